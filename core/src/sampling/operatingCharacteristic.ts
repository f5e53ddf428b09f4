import { requireAtLeast, requirePositive } from '../guards.js'
import type { Random } from '../statistics/index.js'
import { countingPlan, countingVerdict, drawFinds, type CountedAgainst } from './countingPlan.js'

/** How counts by a plan end where there really are so many. */
export interface CountsEnd {
  per100: number
  /** Shares of the counts that end so; they add up to 1. */
  act: number
  stop: number
  undecided: number
  /** Sample units of a count, on average. */
  units: number
}

/**
 * What comes of a plan where the truth is known, by simulation of whole counts: its operating characteristic and the number of sample units
 * that it takes. Each count is looked at after every unit, as people do; it is drawn as the plan takes animals to sit together.
 *
 * @param per100s what there really is, per hundred items
 * @param rounds simulated counts for each
 * @returns one for each of `per100s`; none where the plan is none
 * @throws RangeError for a negative truth, or one above every item where items are counted
 */
export function operatingCharacteristic(
  against: CountedAgainst,
  per100s: readonly number[],
  rounds: number,
  random: Random,
): CountsEnd[] | null {
  requirePositive('rounds', rounds)
  const plan = countingPlan(against)
  if (!plan) return null
  return per100s.map((per100) => {
    requireAtLeast('per100', per100, 0)
    const ended = { act: 0, stop: 0, undecided: 0 }
    let looked = 0
    for (let round = 0; round < rounds; round++) {
      let total = 0
      for (let units = 1; ; units++) {
        total += drawFinds(against, per100, random)
        const said = countingVerdict(plan, units, total)
        if (said === 'go-on' || said === 'too-few') continue
        ended[said]++
        looked += units
        break
      }
    }
    return {
      per100,
      act: ended.act / rounds,
      stop: ended.stop / rounds,
      undecided: ended.undecided / rounds,
      units: looked / rounds,
    }
  })
}
