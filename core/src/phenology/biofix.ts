import { chillPortions } from '../heat/chill.js'
import { dayOf, sameDayInYear, seasonLater, yearOf, type Hemisphere } from '../time/civilDays.js'
import { LEAD_DAYS } from '../weather/seasonWeather.js'

/**
 * The day on which heat starts by the calendar: month and day of the northern hemisphere, half a year later in the southern. A day
 * in the last 120 before the season belongs to it, so that what germinates in autumn counts into the spring.
 *
 * @example calendarBiofix({ month: 3, day: 1 }, dayNumber('2026-01-01'), 'north') - dayNumber('2026-01-01') // 59
 */
export function calendarBiofix(date: { month: number; day: number }, firstDay: number, hemisphere: Hemisphere): number {
  const month = hemisphere === 'south' ? date.month + 6 : date.month
  const inFirstYear = dayOf(yearOf(firstDay), month, date.day)
  const years = [-1, 0, 1].map((y) => sameDayInYear(inFirstYear, y))
  return years.find((day) => day >= firstDay - LEAD_DAYS && day < seasonLater(firstDay, 1)) ?? firstDay
}

/** A biofix by chill: the day it was met, or the one expected from past seasons with how far it may be off, in days. */
export interface ChillBiofix {
  day: number
  met: boolean
  /** Standard deviation of the day; 0 once it is met. */
  sd: number
}

/**
 * The day by whose end a season has had its chill, counted from 120 days before it (Fishman, Erez & Couvillon 1987). While it is
 * not met, the mean of the past seasons' dates stands in. Undefined where neither is known.
 *
 * @param temperature °C by hour from `firstHour` on, hours since 1970-01-01 in standard time; NaN ends what is known
 * @param today day number; later hours are not looked at
 */
export function chillBiofix(
  portions: number,
  temperature: { firstHour: number; values: ArrayLike<number> },
  firstDay: number,
  today: number,
): ChillBiofix | undefined {
  const met = dayOfChill(portions, temperature, firstDay, Math.min(today, seasonLater(firstDay, 1)))
  if (met !== undefined) return { day: met, met: true, sd: 0 }
  const past: number[] = []
  for (let years = -40; years < 0; years++) {
    const season = seasonLater(firstDay, years)
    const day = dayOfChill(portions, temperature, season, seasonLater(season, 1))
    if (day !== undefined) past.push(day - season)
  }
  if (past.length < 3) return undefined
  const mean = past.reduce((a, b) => a + b, 0) / past.length
  const variance = past.reduce((a, b) => a + (b - mean) ** 2, 0) / (past.length - 1)
  // A new season lies as far from the mean as the mean itself is off, too.
  return { day: Math.max(today, firstDay + Math.round(mean)), met: false, sd: Math.sqrt(variance * (1 + 1 / past.length)) }
}

function dayOfChill(
  portions: number,
  { firstHour, values }: { firstHour: number; values: ArrayLike<number> },
  firstDay: number,
  until: number,
): number | undefined {
  const from = (firstDay - LEAD_DAYS) * 24 - firstHour
  if (from < 0) return undefined
  const hours: number[] = []
  for (let i = from; i < Math.min(values.length, until * 24 - firstHour) && !Number.isNaN(values[i]); i++) hours.push(values[i] as number)
  if (hours.length < 24) return undefined
  const hour = chillPortions(hours).findIndex((chill) => chill >= portions)
  return hour < 0 ? undefined : Math.floor((firstHour + from + hour) / 24)
}

/** A biofix by catches: from where heat counts, and how far that may be off, in days. */
export interface CatchBiofix {
  /** Day number, fraction included: the middle of the interval before the first check of the run. */
  day: number
  halfInterval: number
  /** Days of the checks in a row. */
  checks: number[]
}

/**
 * The first sustained catch of a trap: `run` checks in a row with at least `least` animals. Heat counts from the middle of the
 * interval before the first of them. Undefined where there is none yet.
 *
 * @param hungOn day number of the first look, or of the day on which the trap was hung
 * @example sustainedCatch(120, [{ day: 127, count: 0 }, { day: 134, count: 3 }, { day: 141, count: 2 }]) // { day: 130.5, halfInterval: 3.5, checks: [134, 141] }
 */
export function sustainedCatch(
  hungOn: number,
  checks: readonly { day: number; count: number }[],
  run = 2,
  least = 1,
): CatchBiofix | undefined {
  const first = checks.findIndex((_, i) => i + run <= checks.length && checks.slice(i, i + run).every(({ count }) => count >= least))
  if (first < 0) return undefined
  const before = checks[first - 1]?.day ?? hungOn
  const { day } = checks[first] as { day: number }
  return { day: (before + day) / 2, halfInterval: (day - before) / 2, checks: checks.slice(first, first + run).map((check) => check.day) }
}
