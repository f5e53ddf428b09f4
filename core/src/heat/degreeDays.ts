import { requireFinite } from '../guards.js'
import { requireRule, type Cutoff, type DayExtremes, type HeatRule } from './rule.js'
import { sineCurve, triangleCurve, type DayCurve } from './thresholdArea.js'

/** Heat of one day by one curve, with the cut-off applied. */
function curveHeat(curve: DayCurve, min: number, max: number, lower: number, upper: number | undefined, cutoff: Cutoff): number {
  const above = curve.area(min, max, lower)
  if (upper === undefined || max <= upper) return above
  const excess = curve.area(min, max, upper)
  if (cutoff === 'horizontal') return above - excess
  if (cutoff === 'intermediate') return Math.max(0, above - 2 * excess)
  return Math.max(0, above - excess - (upper - lower) * curve.shareAbove(min, max, upper))
}

/** The rule as a function of today's extremes and tomorrow's minimum; thresholds are read once. */
type DayFunction = (min: number, max: number, nextMin: number) => number

function dayFunction(rule: HeatRule): DayFunction {
  const { lower, upper, cutoff = 'horizontal' } = rule
  const single =
    (curve: DayCurve): DayFunction =>
    (min, max) =>
      curveHeat(curve, min, max, lower, upper, cutoff)
  // Half a day rises to today's maximum, half a day goes from there to tomorrow's minimum, which may lie above it.
  const double =
    (curve: DayCurve): DayFunction =>
    (min, max, nextMin) =>
      (curveHeat(curve, min, max, lower, upper, cutoff) +
        curveHeat(curve, Math.min(max, nextMin), Math.max(max, nextMin), lower, upper, cutoff)) /
      2
  const top = upper ?? Infinity
  const clamp = (t: number): number => Math.min(Math.max(t, lower), top)
  switch (rule.method) {
    case 'average':
      return (min, max) => Math.max(0, Math.min((min + max) / 2, top) - lower)
    case 'clamped-average':
      return (min, max) => (clamp(min) + clamp(max)) / 2 - lower
    case 'single-sine':
      return single(sineCurve)
    case 'single-triangle':
      return single(triangleCurve)
    case 'double-sine':
      return double(sineCurve)
    case 'double-triangle':
      return double(triangleCurve)
    case 'hourly':
      throw new RangeError("rule.method must be one that works on a day's extremes, got hourly; use hourlyHeat")
  }
}

/**
 * Heat of one day, in °C·d, from its extremes in °C.
 *
 * `average` and `clamped-average` ignore the kind of cut-off; `single-sine` (Baskerville & Emin 1969), `single-triangle`
 * (Lindsey & Newman 1956; Sevacherian et al. 1977), `double-sine` (Allen 1976) and `double-triangle` take all three
 * (Roltsch et al. 1999). `nextMin` is tomorrow's minimum, used by the double methods only; without it today's stands in.
 *
 * @throws RangeError for a non-finite temperature, `day.min` above `day.max`, `rule.upper` at or below `rule.lower`, and
 * for the method `hourly`, which needs hours.
 * @example degreeDays({ min: 8, max: 20 }, { method: 'single-sine', lower: 10 }) // 4.353
 */
export function degreeDays(day: DayExtremes, rule: HeatRule, nextMin?: number): number {
  requireRule(rule)
  const heatOf = dayFunction(rule)
  requireFinite('day.min', day.min)
  requireFinite('day.max', day.max)
  if (day.min > day.max) throw new RangeError(`day.min must not be above day.max, got ${day.min} and ${day.max}`)
  if (nextMin !== undefined) requireFinite('nextMin', nextMin)
  return heatOf(day.min, day.max, nextMin ?? day.min)
}

/**
 * Heat of each day of a series, in °C·d; same rules and sources as `degreeDays`. The last day's "tomorrow" is itself.
 *
 * @throws RangeError naming the day, as `days[3].max`, for bad extremes, and as `degreeDays` for a bad rule.
 * @example dailyHeat([{ min: 8, max: 20 }, { min: 12, max: 26 }], { method: 'average', lower: 10 }) // [4, 9]
 */
export function dailyHeat(days: readonly DayExtremes[], rule: HeatRule): Float64Array {
  requireRule(rule)
  const heatOf = dayFunction(rule)
  const result = new Float64Array(days.length)
  for (let i = 0; i < days.length; i++) {
    const { min, max } = days[i] as DayExtremes
    if (!Number.isFinite(min) || !Number.isFinite(max) || min > max) throw badDay(i, min, max)
    const next = days[i + 1]?.min
    result[i] = heatOf(min, max, next !== undefined && Number.isFinite(next) ? next : min)
  }
  return result
}

function badDay(i: number, min: number, max: number): RangeError {
  if (!Number.isFinite(min)) return new RangeError(`days[${i}].min must be a finite number, got ${min}`)
  if (!Number.isFinite(max)) return new RangeError(`days[${i}].max must be a finite number, got ${max}`)
  return new RangeError(`days[${i}].min must not be above days[${i}].max, got ${min} and ${max}`)
}
