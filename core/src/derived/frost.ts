import { sameDayInYear, seasonLater } from '../weather/calendar.js'
import { hasDay, type DailySeries } from '../weather/dailySeries.js'

/** Frosts of one season that starts on `season`: day numbers of the last before midsummer and the first after it. */
export interface SeasonFrosts {
  season: number
  lastSpring: number | null
  firstAutumn: number | null
}

const MIDSUMMER_DAYS = 196

/**
 * Last spring and first autumn frost of a season, midsummer lying 196 days after its start. null where there was none, or where
 * a quarter or more of the days looked at are not known.
 *
 * @param limit °C at or below which a day's minimum is a frost
 */
export function frostsOf(series: DailySeries, season: number, limit = 0): SeasonFrosts {
  const end = seasonLater(season, 1)
  const middle = season + MIDSUMMER_DAYS
  const isFrost = (day: number): boolean => hasDay(series, day) && (series.min[day - series.firstDay] as number) <= limit
  const find = (days: readonly number[]): number | null => {
    const known = days.filter((day) => hasDay(series, day)).length
    return known < 0.75 * days.length ? null : (days.find(isFrost) ?? null)
  }
  const run = (from: number, until: number): number[] => Array.from({ length: until - from }, (_, i) => from + i)
  return { season, lastSpring: find(run(season, middle).reverse()), firstAutumn: find(run(middle, end)) }
}

/** Share of the past seasons that still had a frost on or after the same day of the year, before their midsummer. */
export function springFrostRisk(day: number, seasons: readonly SeasonFrosts[], season: number): number | null {
  const known = seasons.filter(({ lastSpring }) => lastSpring !== null)
  if (known.length === 0) return null
  const late = known.filter(({ season: start, lastSpring }) => {
    const years = new Date(start * 86_400_000).getUTCFullYear() - new Date(season * 86_400_000).getUTCFullYear()
    return (lastSpring as number) >= sameDayInYear(day, years)
  })
  return late.length / known.length
}
