import { quantileSorted } from '../statistics/quantile.js'
import { sameDayInYear } from '../time/civilDays.js'
import type { HourlySeries } from '../weather/fillHours.js'
import { LEAD_DAYS } from '../weather/seasonWeather.js'
import { chillPortions } from './chill.js'

/** Chill portions at the end of each day from `from` to the day before `until`; ends at the first hour that is not known. */
export function chillByDay({ firstHour, values }: HourlySeries, from: number, until: number): Float64Array {
  const start = from * 24 - firstHour
  if (start < 0) return new Float64Array()
  let end = start
  while (end < Math.min(values.length, until * 24 - firstHour) && !Number.isNaN(values[end])) end++
  const hourly = chillPortions(values.subarray(start, end))
  return Float64Array.from({ length: Math.floor(hourly.length / 24) }, (_, d) => hourly[d * 24 + 23] as number)
}

const PAST_SEASONS = 11
const LEAST_PAST = 3

/**
 * Median of the chill portions that past seasons had by the same day of the year, counted from 120 days before the season; undefined where
 * fewer than three seasons know it.
 *
 * @param pastYears by how many years the past seasons lie off, as `knownPastYears` gives them
 */
export function usualChill(temperatures: HourlySeries, season: number, today: number, pastYears: readonly number[]): number | undefined {
  const past = pastYears.slice(0, PAST_SEASONS).flatMap((years) => {
    const from = sameDayInYear(season, years) - LEAD_DAYS
    const until = sameDayInYear(today, years)
    const chill = chillByDay(temperatures, from, until)
    return chill.length === until - from && chill.length > 0 ? [chill.at(-1) as number] : []
  })
  return past.length < LEAST_PAST ? undefined : quantileSorted(Float64Array.from(past).sort(), 0.5)
}
