import { dailyHeat } from '../heat/degreeDays.js'
import { curvedHeat, type CurvedRule, type RateCurve } from '../heat/curvedHeat.js'
import { hourlyHeat } from '../heat/hourlyHeat.js'
import type { HeatRule } from '../heat/rule.js'
import { quantileSorted } from '../statistics/quantile.js'
import { sameDayInYear, seasonLater } from '../time/civilDays.js'
import { fillDays, hasDay, type DailySeries } from './dailySeries.js'
import type { HourlySeries } from './fillHours.js'

/** A straight rule, or a curved rate stated like one. */
export type AnyHeatRule = HeatRule | CurvedRule

/** Heat of one season from a start day on: °C·d through each day, for as many days as there is weather. */
export interface SeasonSum {
  /** First day of the season. */
  season: number
  cumulative: Float64Array
}

/** Weather of one place as days, and as the hours behind them for the method `hourly`. */
export interface PlaceWeather {
  days: DailySeries
  hours: HourlySeries
}

/**
 * Heat of a season from `startDay` to the day before `until` (day numbers). It ends early at the first day without weather,
 * measured or filled; for `hourly` and curved rates at the first day with an hour missing.
 */
export function seasonSum(weather: PlaceWeather, rule: AnyHeatRule, season: number, startDay: number, until: number): SeasonSum {
  const heat =
    'curve' in rule || rule.method === 'hourly'
      ? heatFromHours(weather.hours, rule, startDay, until)
      : heatFromDays(weather.days, rule, startDay, until)
  let sum = 0
  return { season, cumulative: heat.map((value) => (sum += value)) }
}

function heatFromDays(series: DailySeries, rule: HeatRule, startDay: number, until: number): Float64Array {
  const filled = fillDays(series, startDay, until - 1)
  const days = []
  for (let day = startDay; day < until && hasDay(filled, day); day++) {
    const i = day - filled.firstDay
    days.push({ min: filled.min[i] as number, max: filled.max[i] as number })
  }
  return dailyHeat(days, rule)
}

function heatFromHours({ firstHour, values }: HourlySeries, rule: AnyHeatRule, startDay: number, until: number): Float64Array {
  const days: number[] = []
  for (let day = startDay; day < until; day++) {
    const from = day * 24 - firstHour
    const hours = from < 0 ? new Float64Array() : values.subarray(from, from + 24)
    if (hours.length < 24 || hours.some(Number.isNaN)) break
    const heat = 'curve' in rule ? curvedHeat(hours, rule) : hourlyHeat(hours, rule)
    days.push(heat.reduce((a, b) => a + b, 0))
  }
  return Float64Array.from(days)
}

/** The past seasons that are complete from the same start day to their end, oldest first. */
export function pastSums(weather: PlaceWeather, rule: AnyHeatRule, season: number, startDay: number): SeasonSum[] {
  const sums: SeasonSum[] = []
  for (let years = -60; years < 0; years++) {
    const start = sameDayInYear(startDay, years)
    const end = seasonLater(season, years + 1)
    if (!hasDay(weather.days, start + 30)) continue
    const sum = seasonSum(weather, rule, seasonLater(season, years), start, end)
    if (sum.cumulative.length === end - start) sums.push(sum)
  }
  return sums
}

/** In days that gain less than this share of a season's usual day, a day more or less says nothing of how far the season is. */
const LEAST_GAIN = 0.5

/**
 * Days by which a season runs ahead of the past ones: for each of these, how much later it had the sum that the season has
 * now; the median of them. In the cold half of a year, when hardly any heat comes, it is told by the last day on which it still came. Negative
 * where the season is behind; undefined without past seasons or before any heat.
 */
export function daysAheadOfPast(current: SeasonSum, past: readonly SeasonSum[]): number | undefined {
  const { cumulative: sums } = current
  const total = sums.at(-1) ?? 0
  if (past.length === 0 || total <= 0) return undefined
  const gain = (day: number): number => (sums[day] as number) - (sums[day - 1] ?? 0)
  const warm = sums.reduce((days, _, day) => days + (gain(day) > 0 ? 1 : 0), 0)
  const told = sums.findLastIndex((_, day) => gain(day) >= (LEAST_GAIN * total) / warm)
  const ahead = past.map(({ cumulative }) => dayReached(cumulative, sums[told] as number) - told)
  return quantileSorted(Float64Array.from(ahead).sort(), 0.5)
}

/** The day, counted from the start, on which a sum is reached; the season's last where it never is. */
function dayReached(cumulative: Float64Array, heat: number): number {
  const day = cumulative.findIndex((sum) => sum >= heat)
  return day < 0 ? cumulative.length - 1 : day
}

/** What a choice of method changes, over the past seasons, at a given heat. */
export interface MethodDifference {
  method: HeatRule['method'] | RateCurve
  /** Median day, counted from the start, on which the heat is reached; undefined where fewer than half the seasons do. */
  day: number | undefined
  /** Median of the days by which it is later than by the reference, season by season. */
  laterBy: number | undefined
}

/** Compares methods at a heat against the first of them: each season is compared with itself. */
export function compareMethods(
  weather: PlaceWeather,
  rules: readonly AnyHeatRule[],
  season: number,
  startDay: number,
  heat: number,
): MethodDifference[] {
  const dates = rules.map(
    (rule) =>
      new Map(pastSums(weather, rule, season, startDay).flatMap(({ season: year, cumulative }) => reachedIn(year, cumulative, heat))),
  )
  const reference = dates[0]
  const median = (values: readonly number[]): number | undefined =>
    values.length === 0 ? undefined : quantileSorted(Float64Array.from(values).sort(), 0.5)
  return rules.map((rule, i) => {
    const own = dates[i] ?? new Map<number, number>()
    const differences = [...own].flatMap(([year, day]) => {
      const other = reference?.get(year)
      return other === undefined ? [] : [day - other]
    })
    return { method: 'curve' in rule ? rule.curve : rule.method, day: median([...own.values()]), laterBy: median(differences) }
  })
}

function reachedIn(season: number, cumulative: Float64Array, heat: number): [number, number][] {
  const day = cumulative.findIndex((sum) => sum >= heat)
  return day < 0 ? [] : [[season, day]]
}
