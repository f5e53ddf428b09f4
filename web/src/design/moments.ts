import { MS_PER_HOUR } from '@bocado/core/time'
import { CalendarDate, parseAbsolute, parseDate, Time, toCalendarDateTime, toZoned } from '@internationalized/date'

/**
 * The UTC moment of a day and a wall-clock time of the site, or null while either is missing, or where there is no such time on that
 * day: 25:00, or half past two in the night in which the clock goes forward. Of an hour that comes twice it is the first.
 */
export function momentOf(day: string | null, time: string, zone: string): string | null {
  const parts = /^(\d{1,2})[:.]?(\d{2})$/.exec(time.trim())
  if (day === null || dayOf(day) === null || !parts) return null
  const [hour, minute] = [Number(parts[1]), Number(parts[2])]
  if (hour > 23 || minute > 59) return null
  const at = toZoned(toCalendarDateTime(parseDate(day), new Time(hour, minute)), zone, 'compatible')
  // What does not exist is moved on to what does: then the clock shows another time than was typed.
  if (at.hour !== hour || at.minute !== minute) return null
  return iso(at.toDate().getTime())
}

/** A moment some hours after another. */
export const hoursAfter = (moment: string, hours: number): string => iso(Date.parse(moment) + Math.round(hours * MS_PER_HOUR))

const iso = (ms: number): string => new Date(ms).toISOString().replace('.000Z', 'Z')

/** Day and wall-clock time of a moment at the site. */
export function wallClockOf(moment: string, zone: string): { day: string; time: string } {
  const at = parseAbsolute(moment, zone)
  const two = (n: number): string => String(n).padStart(2, '0')
  return { day: `${at.year}-${two(at.month)}-${two(at.day)}`, time: `${two(at.hour)}:${two(at.minute)}` }
}

const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec']
const MONTH_NAMES = [
  'january',
  'february',
  'march',
  'april',
  'may',
  'june',
  'july',
  'august',
  'september',
  'october',
  'november',
  'december',
]

/** A day as people write it: `2026-06-12`, `12 Jun 2026`, `12 June 2026`, `12.6.2026`; null where it is none, or there is no such day. */
export function dayOf(text: string): string | null {
  const numbers = /^(\d{4})-(\d{2})-(\d{2})$/.exec(text) ?? /^(\d{1,2})\.(\d{1,2})\.(\d{4})$/.exec(text)
  const named = /^(\d{1,2}) (\p{L}+) (\d{4})$/u.exec(text)
  if (named) {
    const name = named[2]!.toLowerCase()
    const month = Math.max(MONTHS.indexOf(name), MONTH_NAMES.indexOf(name)) + 1
    return civilDay(Number(named[3]), month, Number(named[1]))
  }
  if (!numbers) return null
  const [a, b, c] = numbers.slice(1).map(Number) as [number, number, number]
  return text.includes('-') ? civilDay(a, b, c) : civilDay(c, b, a)
}

function civilDay(year: number, month: number, day: number): string | null {
  const date = new CalendarDate(year, month, day)
  // A day that does not exist is moved to one that does.
  return date.month === month && date.day === day && month >= 1 && day >= 1 ? date.toString() : null
}
