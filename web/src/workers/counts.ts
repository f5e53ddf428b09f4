import { operatingCharacteristic, seededRandom, type CountedAgainst, type CountsEnd } from '@bocado/core'

export type { CountedAgainst, CountsEnd }

/** Truths that are tried, as multiples of the threshold: nothing, what counts as safe, what lies between, the threshold, and well over it. */
const TRUTHS = [0, 0.5, 0.75, 1, 1.5, 2]
const ROUNDS = 2000
/** The same picture each time. */
const SEED = 1947

/** How counts by a plan end, for truths around its threshold. */
export function countsEnd(against: CountedAgainst): CountsEnd[] {
  const truths = TRUTHS.map((times) => times * against.per100).filter((per100) => against.measure === 'density' || per100 <= 100)
  return operatingCharacteristic(against, truths, ROUNDS, seededRandom(SEED)) ?? []
}
