import type { DailySeries } from './dailySeries.js'
import type { HourlySeries } from './fillHours.js'

const HOURS = 24
/** Fewer hours of a day tell neither its minimum nor its maximum. */
const LEAST_HOURS = 18
/** Days before and after the same date that count as the same time of year. */
const AROUND_DAYS = 15
/** Of these days at least so many have to be there for a year to speak. */
const LEAST_DAYS = 10
/** Other years that have to speak before a day can be told from them. */
const LEAST_YEARS = 4
/** °C beyond the median of other years' extremes that no weather of one place goes. */
const BEYOND = { warm: 14, cold: 16 } as const
const DAYS_PER_YEAR = 365.25

const median = (values: number[]): number => {
  const sorted = [...values].sort((a, b) => a - b)
  return sorted[Math.floor((sorted.length - 1) / 2)] as number
}

/**
 * Days of hourly temperatures, in °C, that lie far outside what the place has had at that time of year, as {@link unseenExtremes} finds
 * them.
 *
 * @param from day number before which nothing is looked at again
 * @returns day numbers in standard time, in order
 */
export function unseenDays({ firstHour, values }: HourlySeries, from = -Infinity): number[] {
  const firstDay = Math.ceil(firstHour / HOURS)
  const days = Math.floor((firstHour + values.length) / HOURS) - firstDay
  if (days <= DAYS_PER_YEAR * LEAST_YEARS) return []
  const min = new Float64Array(days).fill(NaN)
  const max = new Float64Array(days).fill(NaN)
  for (let d = 0; d < days; d++) {
    const start = (firstDay + d) * HOURS - firstHour
    let [low, high, count] = [Infinity, -Infinity, 0]
    for (let h = start; h < start + HOURS; h++) {
      const value = values[h] as number
      if (Number.isNaN(value)) continue
      count++
      if (value < low) low = value
      if (value > high) high = value
    }
    if (count < LEAST_HOURS) continue
    min[d] = low
    max[d] = high
  }
  return unseenExtremes({ firstDay, min, max }, from)
}

/**
 * Days whose extremes, in °C, lie far outside what the place has had at that time of year: warmer by 14 °C than the median of other
 * years' highest maxima within fifteen days of the date, or colder by 16 °C than that of their lowest minima. Nothing is found with fewer
 * than four other years. Half the years may be wrong before it errs.
 *
 * @param series extremes by day; NaN: not known
 * @param from day number before which nothing is looked at again
 * @returns day numbers, in order
 */
export function unseenExtremes({ firstDay, min, max }: Pick<DailySeries, 'firstDay' | 'min' | 'max'>, from = -Infinity): number[] {
  const days = min.length
  if (days <= DAYS_PER_YEAR * LEAST_YEARS) return []
  const around = (centre: number): { low: number; high: number } | undefined => {
    let [low, high, count] = [Infinity, -Infinity, 0]
    for (let d = Math.max(0, centre - AROUND_DAYS); d <= Math.min(days - 1, centre + AROUND_DAYS); d++) {
      if (Number.isNaN(min[d])) continue
      count++
      low = Math.min(low, min[d] as number)
      high = Math.max(high, max[d] as number)
    }
    return count < LEAST_DAYS ? undefined : { low, high }
  }
  const known: ({ low: number; high: number } | undefined)[] = []
  const found: number[] = []
  for (let d = Math.max(0, from - firstDay); d < days; d++) {
    if (Number.isNaN(min[d])) continue
    const others: { low: number; high: number }[] = []
    for (let year = -Math.ceil(days / DAYS_PER_YEAR); year <= days / DAYS_PER_YEAR; year++) {
      const centre = d + Math.round(year * DAYS_PER_YEAR)
      if (year === 0 || centre < 0 || centre >= days) continue
      if (!(centre in known)) known[centre] = around(centre)
      const other = known[centre]
      if (other) others.push(other)
    }
    if (others.length < LEAST_YEARS) continue
    const isWarm = (max[d] as number) > median(others.map(({ high }) => high)) + BEYOND.warm
    const isCold = (min[d] as number) < median(others.map(({ low }) => low)) - BEYOND.cold
    if (isWarm || isCold) found.push(firstDay + d)
  }
  return found
}
