import { requireWithin } from '../guards.js'

/**
 * The `p` quantile of values already sorted ascending, interpolated between neighbours (Hyndman & Fan 1996, type 7).
 * Values may be `Infinity` (an event that does not happen): a quantile that leans on one is `Infinity`.
 *
 * @example quantileSorted([1, 2, 3, 10], 0.5) // 2.5
 */
export function quantileSorted(sorted: ArrayLike<number>, p: number): number {
  requireWithin('p', p, 0, 1)
  if (sorted.length === 0) throw new RangeError('sorted must hold at least one value, got 0')
  const position = (sorted.length - 1) * p
  const below = Math.floor(position)
  const low = sorted[below] as number
  const high = sorted[Math.min(below + 1, sorted.length - 1)] as number
  const weight = position - below
  if (weight === 0 || low === high) return low
  return high === Infinity ? Infinity : low + (high - low) * weight
}

/** 10th, 50th and 90th percentile: the bounds in which every forecast date is given. */
export interface Bounds {
  p10: number
  p50: number
  p90: number
}

/**
 * Bounds of a set of values, one per member of an ensemble.
 *
 * @example bounds([150, 152, 155, 149, 158]) // { p10: 149.4, p50: 152, p90: 156.8 }
 */
export function bounds(values: readonly number[]): Bounds {
  const sorted = Float64Array.from(values).sort()
  return { p10: quantileSorted(sorted, 0.1), p50: quantileSorted(sorted, 0.5), p90: quantileSorted(sorted, 0.9) }
}
