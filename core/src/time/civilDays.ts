import { MS_PER_DAY } from './durations.js'

/**
 * Civil dates as whole numbers of days since 1970-01-01, in the station's standard time. Every day has 24 hours here:
 * wall-clock time exists only at import and in display.
 */

const CIVIL_DATE = /^(\d{4})-(\d{2})-(\d{2})$/

/**
 * Day number of a date `YYYY-MM-DD`.
 * @throws RangeError for text that is not a date of the calendar, such as 2026-02-30.
 */
export function dayNumber(date: string): number {
  const parts = CIVIL_DATE.exec(date)
  if (parts) {
    const ms = Date.UTC(Number(parts[1]), Number(parts[2]) - 1, Number(parts[3]))
    if (civilDate(ms / MS_PER_DAY) === date) return ms / MS_PER_DAY
  }
  throw new RangeError(`date must be a day of the calendar as YYYY-MM-DD, got ${date}`)
}

/** The date `YYYY-MM-DD` of a day number; fractions of a day are dropped. */
export function civilDate(day: number): string {
  return new Date(Math.floor(day) * MS_PER_DAY).toISOString().slice(0, 10)
}

/** Calendar year of a day number. */
export const yearOf = (day: number): number => new Date(day * MS_PER_DAY).getUTCFullYear()

/** Which half of the Earth, as far as seasons go. */
export type Hemisphere = 'north' | 'south'

/**
 * First day of the season that holds `day`: 1 January in the northern hemisphere, 1 July in the southern.
 */
export function seasonStart(day: number, hemisphere: Hemisphere): number {
  const date = new Date(day * MS_PER_DAY)
  const year = date.getUTCFullYear()
  if (hemisphere === 'north') return Date.UTC(year, 0, 1) / MS_PER_DAY
  return Date.UTC(date.getUTCMonth() >= 6 ? year : year - 1, 6, 1) / MS_PER_DAY
}

/** First day of the season that is `years` after (or, negative, before) the one starting on `start`. */
export function seasonLater(start: number, years: number): number {
  const date = new Date(start * MS_PER_DAY)
  return Date.UTC(date.getUTCFullYear() + years, date.getUTCMonth(), 1) / MS_PER_DAY
}

/**
 * The day with the same month and day of the month, `years` later (negative: earlier). 29 February falls on the 28th
 * where that year has none.
 */
export function sameDayInYear(day: number, years: number): number {
  const date = new Date(day * MS_PER_DAY)
  const year = date.getUTCFullYear() + years
  const month = date.getUTCMonth()
  const last = new Date(Date.UTC(year, month + 1, 0)).getUTCDate()
  return Date.UTC(year, month, Math.min(date.getUTCDate(), last)) / MS_PER_DAY
}

/** Day of the year of a day number, 1 to 366. */
export const dayOfYear = (day: number): number => day - Date.UTC(yearOf(day), 0, 1) / MS_PER_DAY + 1

/** Month of a day number, 0 to 11. */
export const monthOf = (day: number): number => new Date(day * MS_PER_DAY).getUTCMonth()

/** Day number of a day of a year; months count from 1, and those beyond 12 reach into the next year. */
export const dayOf = (year: number, month: number, date: number): number => Date.UTC(year, month - 1, date) / MS_PER_DAY

/** Month (0 to 11) and day of the month of a day number, and how many days that month has. */
export function monthDay(day: number): { month: number; date: number; length: number } {
  const moment = new Date(day * MS_PER_DAY)
  const month = moment.getUTCMonth()
  return { month, date: moment.getUTCDate(), length: new Date(Date.UTC(moment.getUTCFullYear(), month + 1, 0)).getUTCDate() }
}
