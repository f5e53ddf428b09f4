import { requireAtLeast } from '../guards.js'
import { shareWithInterval } from '../statistics/index.js'

/** Of fewer plants that the other one found nobody says how many one overlooks. */
const LEAST_FOUND = 5
/** The bound that is taken: nine times of ten more is seen. */
const LOWER_LEVEL = 0.8

/** What two people found on the same ground, one after the other, without telling each other. */
export interface TwoLooks {
  first: number
  second: number
  both: number
}

/**
 * The share of what stands there that one look finds, by those of the other one's finds that it found too (the idea of Petersen 1896); the lower
 * 10 % bound, since too much trust is what does harm.
 *
 * @param looks the same organism and stage; they are added up
 * @returns null while the two together have fewer than five finds to go by
 * @throws RangeError for more found by both than by one
 * @example detectability([{ first: 10, second: 8, both: 7 }]) // { share: 0.7778, lower: 0.6321 }
 */
export function detectability(looks: readonly TwoLooks[]): { share: number; lower: number } | null {
  let [seen, of] = [0, 0]
  for (const { first, second, both } of looks) {
    requireAtLeast('both', both, 0)
    if (both > first || both > second) throw new RangeError(`both must be at most first and second, got ${both}`)
    // Each of the two is judged by what the other found.
    seen += 2 * both
    of += first + second
  }
  if (of < 2 * LEAST_FOUND) return null
  const { share, low } = shareWithInterval(seen, of, LOWER_LEVEL)
  return { share, lower: low }
}
