import { requireFinite } from '../guards.js'
import { quantileSorted } from '../statistics/quantile.js'

/** A date that was forecast, and when it came; days on one axis. */
export interface JudgedForecast {
  /** 10th, 50th and 90th percentile. */
  p10: number
  p50: number
  p90: number
  seen: number
}

/** How good forecasts were. */
export interface ForecastSkill {
  forecasts: number
  /** Mean of forecast less seen, in days: above 0 they were late. */
  bias: number
  /** Mean absolute error in days. */
  error: number
  /** Share of the days seen that lay between the 10th and the 90th percentile; 0.8 is what is aimed at. */
  inside: number
}

/**
 * How good forecasts of dates were, over what was seen.
 *
 * @returns undefined without any
 * @throws RangeError for a non-finite day
 * @example forecastSkill([{ p10: 9, p50: 11, p90: 13, seen: 10 }, { p10: 9, p50: 12, p90: 13, seen: 14 }]).error // 1.5
 */
export function forecastSkill(all: readonly JudgedForecast[]): ForecastSkill | undefined {
  all.forEach((one, i) => {
    for (const name of ['p10', 'p50', 'p90', 'seen'] as const) requireFinite(`all[${i}].${name}`, one[name])
  })
  if (all.length === 0) return undefined
  const mean = (of: (one: JudgedForecast) => number): number => all.reduce((sum, one) => sum + of(one), 0) / all.length
  return {
    forecasts: all.length,
    bias: mean(({ p50, seen }) => p50 - seen),
    error: mean(({ p50, seen }) => Math.abs(p50 - seen)),
    inside: mean(({ p10, p90, seen }) => (seen >= p10 && seen <= p90 ? 1 : 0)),
  }
}

/**
 * How good the calendar alone would have been: each year told by the middle of the other years' days.
 *
 * @param days of the year on which it was seen, one a year
 * @returns undefined with fewer than two years
 * @example calendarSkill([140, 150, 145]).error // 5
 */
export function calendarSkill(days: readonly number[]): Omit<ForecastSkill, 'inside'> | undefined {
  if (days.length < 2) return undefined
  const errors = days.map((day, i) => {
    requireFinite(`days[${i}]`, day)
    const others = Float64Array.from(days.filter((_, k) => k !== i)).sort()
    return quantileSorted(others, 0.5) - day
  })
  const mean = (of: (error: number) => number): number => errors.reduce((sum, error) => sum + of(error), 0) / errors.length
  return { forecasts: days.length, bias: mean((e) => e), error: mean(Math.abs) }
}
