import { requireAtLeast, requireFinite } from '../guards.js'
import { studentQuantileExact } from '../statistics/student.js'

/** Counts of one pair of plots that were drawn by lot: totals, before and after. */
export interface TrialPair {
  treatedBefore: number
  treatedAfter: number
  checkBefore: number
  checkAfter: number
}

/** A count of nothing has no logarithm: so much is added to all four of its pair. */
const ADDED = 0.5

/**
 * What a treatment did in a trial of pairs drawn by lot: the mean over the pairs of ln(Ta/Tb) − ln(Ca/Cb), with its t interval, as the share that
 * is gone. Counts scatter by themselves: where the result decides something, pairs should not count as more alike than Poisson counts would leave
 * them.
 *
 * @param p.level of the interval, above 0 and below 1
 * @param p.asScattered whether the pairs count as differing at least as much as counts do by themselves; without it only as much as these did
 * @returns effect 1 − exp(mean), with low ≤ effect ≤ high; below 0 where the treated did worse
 * @throws RangeError for fewer than two pairs, or negative counts
 */
export function pairedTrial(p: { pairs: readonly TrialPair[]; level: number; asScattered?: boolean }): {
  effect: number
  low: number
  high: number
} {
  const { pairs, level } = p
  if (pairs.length < 2) throw new RangeError(`pairs must hold at least two, got ${pairs.length}`)
  requireFinite('level', level)
  if (level <= 0 || level >= 1) throw new RangeError(`level must be between 0 and 1, got ${level}`)
  const all = pairs.map((pair, i) => {
    const counts = [pair.treatedBefore, pair.treatedAfter, pair.checkBefore, pair.checkAfter]
    for (const [k, name] of (['treatedBefore', 'treatedAfter', 'checkBefore', 'checkAfter'] as const).entries())
      requireAtLeast(`pairs[${i}].${name}`, counts[k] as number, 0)
    const add = counts.includes(0) ? ADDED : 0
    const [tb, ta, cb, ca] = counts.map((count) => count + add) as [number, number, number, number]
    return { ratio: Math.log(ta / tb) - Math.log(ca / cb), poisson: 1 / tb + 1 / ta + 1 / cb + 1 / ca }
  })
  const n = all.length
  const mean = all.reduce((sum, { ratio }) => sum + ratio, 0) / n
  const between = all.reduce((sum, { ratio }) => sum + (ratio - mean) ** 2, 0) / (n - 1)
  const least = all.reduce((sum, { poisson }) => sum + poisson, 0) / n
  const half = studentQuantileExact((1 + level) / 2, n - 1) * Math.sqrt((p.asScattered ? Math.max(between, least) : between) / n)
  return { effect: 1 - Math.exp(mean), low: 1 - Math.exp(mean + half), high: 1 - Math.exp(mean - half) }
}
