import { requireAtLeast, requireFinite } from '../guards.js'
import { studentQuantileExact } from './student.js'

/** How something goes from year to year: the share by which it changes each year, with its interval. */
export interface YearlyTrend {
  /** Proportion; 0.2: a fifth more each year, −0.2: a fifth less. */
  yearly: number
  low: number
  high: number
  years: number
}

/** With fewer years a line goes through anything. */
export const TREND_YEARS = 3
const LEVEL = 0.9

/**
 * Log-linear trend over years with a 90 % t interval. Where a year has none, half of the smallest other value stands in for it, since nothing
 * has no logarithm. Undefined with fewer than three years, or where nothing was found in any.
 *
 * @param points at most one a year; values at least 0
 * @throws RangeError for a negative value or a non-finite year
 * @example yearlyTrend([{ year: 2023, value: 8 }, { year: 2024, value: 4 }, { year: 2025, value: 2 }]).yearly // -0.5
 */
export function yearlyTrend(points: readonly { year: number; value: number }[]): YearlyTrend | undefined {
  points.forEach(({ year, value }, i) => {
    requireFinite(`points[${i}].year`, year)
    requireAtLeast(`points[${i}].value`, value, 0)
  })
  const found = points.flatMap(({ value }) => (value > 0 ? [value] : []))
  const n = points.length
  if (n < TREND_YEARS || found.length === 0) return undefined
  const least = Math.min(...found) / 2
  const logs = points.map(({ value }) => Math.log(value > 0 ? value : least))
  const middle = points.reduce((sum, { year }) => sum + year, 0) / n
  const level = logs.reduce((sum, log) => sum + log, 0) / n
  const spread = points.reduce((sum, { year }) => sum + (year - middle) ** 2, 0)
  if (spread === 0) return undefined
  const slope = points.reduce((sum, { year }, i) => sum + (year - middle) * ((logs[i] as number) - level), 0) / spread
  const left = points.reduce((sum, { year }, i) => sum + ((logs[i] as number) - level - slope * (year - middle)) ** 2, 0)
  const half = studentQuantileExact((1 + LEVEL) / 2, n - 2) * Math.sqrt(left / (n - 2) / spread)
  return { yearly: Math.exp(slope) - 1, low: Math.exp(slope - half) - 1, high: Math.exp(slope + half) - 1, years: n }
}
