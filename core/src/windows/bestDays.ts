import { requireAtLeast } from '../guards.js'
import { coverage, survivalOf, type CohortQuantile } from '../treatment/coverage.js'

/** More than this is not planned exactly. */
const MOST_TREATMENTS = 3
/** Means that differ by less are the same. */
const SAME = 1e-12

export interface BestDaysOf {
  /** Days on which one may treat, ascending, on the cohorts' axis. */
  candidates: readonly number[]
  /** At most so many treatments: 1, 2 or 3. */
  k: number
  /** Days that lie at least between two of them. */
  minInterval: number
  /** Share killed on contact, 0 to 1. */
  effect: number
  residualDays: number
  decayPerDay?: number
}

/**
 * The days on which at most k treatments together reach most of what is there, exact for k ≤ 3. A draw of the season counts as much as any
 * other. Of days that reach the same, fewer are taken, then earlier ones.
 *
 * @param cohorts one for each draw: when each quantile of the population enters and leaves the reachable stage
 * @returns ascending, with the mean share killed; none, and 0, where nothing is reached
 * @throws RangeError for no cohort or candidate, candidates out of order, k other than 1 to 3, and whatever `coverage` refuses
 * @example
 * bestDays([[{ enter: 10, exit: 14 }]], { candidates: [9.5, 11.5], k: 2, minInterval: 1, effect: 0.8, residualDays: 0 })
 * // { days: [11.5], mean: 0.8 }
 */
export function bestDays(cohorts: readonly (readonly CohortQuantile[])[], p: BestDaysOf): { days: number[]; mean: number } {
  const { candidates, k, minInterval, effect, residualDays, decayPerDay = 0 } = p
  if (cohorts.length === 0) throw new RangeError('cohorts must hold at least one, got 0')
  if (candidates.length === 0) throw new RangeError('candidates must hold at least one day, got 0')
  if (!Number.isInteger(k) || k < 1 || k > MOST_TREATMENTS) throw new RangeError(`k must be 1, 2 or 3, got ${k}`)
  requireAtLeast('minInterval', minInterval, 0)
  candidates.forEach((day, i) => {
    if (!Number.isFinite(day)) throw new RangeError(`candidates[${i}] must be a finite number, got ${day}`)
    const before = candidates[i - 1]
    if (before !== undefined && day <= before)
      throw new RangeError(`candidates must be ascending, got ${day} after ${before} at candidates[${i}]`)
  })
  const action = (day: number) => ({ day, effect, residualDays, decayPerDay })
  // Checks the action and the cohorts as well.
  const mean = (days: readonly number[]): number =>
    cohorts.reduce((sum, cohort) => sum + coverage(cohort, days.map(action)), 0) / cohorts.length
  mean(candidates.slice(0, 1))
  const survivals = new Survivals(cohorts, candidates, p)
  const alone = candidates.map((_, i) => survivals.reachedAlone(i))

  let best = { days: [] as number[], mean: 0 }
  const consider = (days: number[], reached: number): void => {
    if (reached > best.mean + SAME) best = { days, mean: reached }
  }
  alone.forEach((reached, i) => consider([i], reached))
  if (k > 1) {
    // No day adds more than it reaches by itself: what a later one can add at most.
    const most = mostFrom(alone)
    /** The first candidate that lies far enough behind another. */
    const next = candidates.map((day) => candidates.findIndex((later) => later >= day + minInterval && later > day))
    // All pairs before any three, so that of the same the fewer are taken.
    const pairs: { i: number; j: number; reached: number }[] = []
    candidates.forEach((_, i) => {
      for (let j = next[i] ?? -1; j >= 0 && j < candidates.length; j++) {
        const reached = alone[i]! + alone[j]! <= best.mean + SAME && k === 2 ? 0 : survivals.reachedBy(i, j)
        consider([i, j], reached)
        pairs.push({ i, j, reached })
      }
    })
    if (k > 2)
      for (const { i, j, reached } of pairs) {
        const from = next[j] ?? -1
        if (from < 0 || reached + most[from]! <= best.mean + SAME) continue
        const left = survivals.leftBy(i, j)
        for (let l = from; l < candidates.length; l++)
          if (reached + alone[l]! > best.mean + SAME) consider([i, j, l], survivals.reachedAfter(left, l))
      }
  }
  const days = best.days.map((i) => candidates[i]!)
  return { days, mean: days.length === 0 ? 0 : mean(days) }
}

/** For each place of a list the most that stands there or behind it. */
function mostFrom(values: readonly number[]): number[] {
  const most = [...values]
  for (let i = most.length - 2; i >= 0; i--) most[i] = Math.max(most[i]!, most[i + 1]!)
  return most
}

/** Which share of each quantile survives a treatment of each candidate day. */
class Survivals {
  private readonly size: number
  /** By day, then by quantile. */
  private readonly survive: Float64Array
  /** What each quantile counts in the mean over all draws. */
  private readonly weight: Float64Array
  private readonly held: Float64Array

  constructor(cohorts: readonly (readonly CohortQuantile[])[], days: readonly number[], p: Omit<BestDaysOf, 'candidates'>) {
    this.size = cohorts.reduce((sum, { length }) => sum + length, 0)
    this.weight = new Float64Array(this.size)
    this.survive = new Float64Array(days.length * this.size)
    this.held = new Float64Array(this.size)
    const { effect, residualDays, decayPerDay = 0 } = p
    const actions = days.map((day) => ({ day, effect, residualDays, decayPerDay }))
    let q = 0
    for (const cohort of cohorts)
      for (const one of cohort) {
        this.weight[q] = 1 / (cohorts.length * cohort.length)
        for (let d = 0; d < actions.length; d++) this.survive[d * this.size + q] = survivalOf(one, actions[d]!)
        q++
      }
  }

  reachedAlone(i: number): number {
    const a = i * this.size
    let killed = 0
    for (let q = 0; q < this.size; q++) killed += this.weight[q]! * (1 - this.survive[a + q]!)
    return killed
  }

  /** What a pair of days leaves alive, by quantile; the same array each time. */
  leftBy(i: number, j: number): Float64Array {
    const [a, b] = [i * this.size, j * this.size]
    for (let q = 0; q < this.size; q++) this.held[q] = this.weight[q]! * this.survive[a + q]! * this.survive[b + q]!
    return this.held
  }

  reachedBy(i: number, j: number): number {
    const [a, b] = [i * this.size, j * this.size]
    let left = 0
    for (let q = 0; q < this.size; q++) left += this.weight[q]! * this.survive[a + q]! * this.survive[b + q]!
    return 1 - left
  }

  reachedAfter(left: Float64Array, l: number): number {
    const a = l * this.size
    let sum = 0
    for (let q = 0; q < this.size; q++) sum += left[q]! * this.survive[a + q]!
    return 1 - sum
  }
}
