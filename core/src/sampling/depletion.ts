import { requireAtLeast, requirePositive } from '../guards.js'

/** One sweep of a visit: what was taken, and in how many minutes. */
export interface Sweep {
  taken: number
  minutes: number
}

/** Fewer sweeps do not tell how the catch falls. */
const LEAST_SWEEPS = 3

/**
 * How many there were before the first sweep of one visit, by how the catch a minute falls with what was taken before (Leslie & Davis 1939). It
 * holds where nothing came in or hatched between the sweeps, as within one visit.
 *
 * @returns null for fewer than three sweeps, and where the catch does not fall
 * @throws RangeError for a catch below 0 or minutes that are not above 0
 * @example depletion([{ taken: 50, minutes: 10 }, { taken: 25, minutes: 10 }, { taken: 12, minutes: 10 }]) // { there: 99.01, left: 12.01 }
 */
export function depletion(sweeps: readonly Sweep[]): { there: number; left: number } | null {
  let before = 0
  const points = sweeps.map(({ taken, minutes }) => {
    requireAtLeast('taken', taken, 0)
    requirePositive('minutes', minutes)
    const point = [before, taken / minutes] as const
    before += taken
    return point
  })
  if (points.length < LEAST_SWEEPS) return null
  const n = points.length
  const [mx, my] = [points.reduce((s, [x]) => s + x, 0) / n, points.reduce((s, [, y]) => s + y, 0) / n]
  const sxx = points.reduce((s, [x]) => s + (x - mx) ** 2, 0)
  const slope = sxx === 0 ? 0 : points.reduce((s, [x, y]) => s + (x - mx) * (y - my), 0) / sxx
  if (slope >= 0) return null
  const there = Math.max(before, mx - my / slope)
  return { there, left: there - before }
}
