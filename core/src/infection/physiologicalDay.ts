import { requireFinite } from '../guards.js'

/** Growth response at one temperature, 0..10, best at 21 °C. */
function response(t: number): number {
  if (t <= 7 || t >= 30) return 0
  return 10 * (1 - (t - 21) ** 2 / (t <= 21 ? 196 : 81))
}

/**
 * Physiological days added by one day with the given extremes in °C; sums start at crop emergence (Sands et al. 1979).
 *
 * @throws RangeError for non-finite temperatures or `minC` above `maxC`.
 * @example physiologicalDay(10, 24) // 7.846
 */
export function physiologicalDay(minC: number, maxC: number): number {
  requireFinite('minC', minC)
  requireFinite('maxC', maxC)
  if (minC > maxC) throw new RangeError(`minC must not be above maxC, got ${minC} and ${maxC}`)
  return (5 * response(minC) + 8 * response((2 * minC + maxC) / 3) + 8 * response((minC + 2 * maxC) / 3) + 3 * response(maxC)) / 24
}
