import { requireAtLeast } from '../guards.js'

/** A patch that could be worked at this season. */
export interface PatchToTake {
  id: string
  /** Plants that stand there. */
  plants: number
  /** Work that it takes whole, walking there included, in minutes. */
  minutes: number
  /** m to the nearest other patch of the same; Infinity for the only one. */
  apartM: number
  /** Whether it would shed seed, or spread, this season. */
  seeds: boolean
  /** By what the user said of the ground: 1 first, 3 last; null, or left out: nobody said. */
  rank?: number | null
  /** What seeds there gets away: by water, along an edge, with machines. */
  spreads?: boolean
}

/** What is worked at, in the order in which it is, and what is left. */
export interface Triage<P extends PatchToTake> {
  taken: P[]
  left: P[]
  minutes: number
}

/** A patch so far from any other counts twice: it opens new ground. */
const APART_M = 100
/** What will not seed this year can wait. */
const NOT_YET = 0.3
/** What a rank of the ground makes of it; where nobody ranked it, it is as any other. */
const RANK_WORTH: Readonly<Record<number, number>> = { 1: 2, 2: 1, 3: 0.5 }
/** Upstream, at an edge or where machines come from a patch makes others. */
const GETS_AWAY = 1.5

/**
 * How much is won by taking a patch now: what it would add to the ground next year grows with its edge, that is with the root of its plants, and
 * more where it stands apart, so that a small outlier is worth more for its work than a part of the main stand (Moody & Mack 1988). What seeds
 * where it gets away comes before what stays, and the user's own ranks weigh in.
 */
export const patchWorth = ({ plants, apartM, seeds, rank = null, spreads = false }: PatchToTake): number =>
  Math.sqrt(plants) * (1 + Math.min(1, apartM / APART_M)) * (seeds ? (spreads ? GETS_AWAY : 1) : NOT_YET) * (RANK_WORTH[rank ?? 0] ?? 1)

/**
 * Which patches to take whole within so much work: those that together are worth most, exactly. They come in the order of what they are worth for
 * their work, so that a day that ends early still took the best of them.
 *
 * @param minutes of work that there are
 * @throws RangeError for negative work or plants
 * @example triage([{ id: 'a', plants: 100, minutes: 90, apartM: 5, seeds: true }, { id: 'b', plants: 4, minutes: 10, apartM: 300, seeds: true }], 60).taken.map(({ id }) => id).join() // 'b'
 */
export function triage<P extends PatchToTake>(patches: readonly P[], minutes: number): Triage<P> {
  requireAtLeast('minutes', minutes, 0)
  patches.forEach(({ plants, minutes: own }, i) => {
    requireAtLeast(`patches[${i}].plants`, plants, 0)
    requireAtLeast(`patches[${i}].minutes`, own, 0)
  })
  const room = Math.floor(minutes)
  const needs = patches.map((patch) => Math.ceil(patch.minutes))
  // The most that can be won with so many minutes of the first patches, one patch after the other.
  const best = patches.map(() => new Float64Array(room + 1))
  patches.forEach((patch, i) => {
    const before = best[i - 1]
    const own = best[i] as Float64Array
    const [need, worth] = [needs[i] as number, patchWorth(patch)]
    for (let m = 0; m <= room; m++) {
      const without = before?.[m] ?? 0
      own[m] = need <= m ? Math.max(without, (before?.[m - need] ?? 0) + worth) : without
    }
  })
  const isTaken = new Set<number>()
  for (let i = patches.length - 1, m = room; i >= 0; i--)
    if (((best[i] as Float64Array)[m] as number) > (best[i - 1]?.[m] ?? 0)) {
      isTaken.add(i)
      m -= needs[i] as number
    }
  const forWork = (patch: P): number => patchWorth(patch) / Math.max(1, patch.minutes)
  const taken = patches.filter((_, i) => isTaken.has(i)).sort((a, b) => forWork(b) - forWork(a))
  const left = patches.filter((_, i) => !isTaken.has(i)).sort((a, b) => patchWorth(b) - patchWorth(a))
  return { taken, left, minutes: taken.reduce((sum, patch) => sum + patch.minutes, 0) }
}
