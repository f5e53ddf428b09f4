import { requireAtLeast, requirePositive } from '../guards.js'
import type { Random } from '../statistics/index.js'
import { drawClumped } from './clumping.js'
import { countingPlan, countingVerdict, SAME_UNIT_CORRELATION, type CountedAgainst } from './countingPlan.js'
import { exponentOf, shareWithAny } from './presence.js'

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

/** The exponent with which animals sit at a mean, by what counts tell of their spread. */
function exponentAt({ clumping, choice }: CountedAgainst, mean: number): number {
  const { alpha, beta } = clumping?.crowding ?? {}
  const variance =
    choice?.kind === 'precision' && clumping?.taylor
      ? clumping.taylor.a * mean ** clumping.taylor.b
      : choice?.kind === 'crowding' && alpha !== undefined && beta !== undefined
        ? (alpha + 1) * mean + (beta - 1) * mean ** 2
        : null
  if (variance === null) return exponentOf(clumping)
  return variance > mean ? mean ** 2 / (variance - mean) : Infinity
}

/**
 * What is found on one sample unit where there really are so many per hundred items, drawn as the plan takes it: animals by the negative
 * binomial, infested items by an urn from which each draw makes its like more likely (beta-binomial, Pólya).
 *
 * @throws RangeError for a share of items above all of them
 */
export function drawFinds(against: CountedAgainst, per100: number, random: Random): number {
  const { measure, itemsPerUnit } = against
  if (measure === 'presence') return Number(random() < shareWithAny((per100 / 100) * itemsPerUnit, exponentOf(against.clumping)))
  if (measure === 'density') {
    const mean = (per100 / 100) * itemsPerUnit
    return mean === 0 ? 0 : drawClumped(random, mean, exponentAt(against, mean))
  }
  if (per100 > 100) throw new RangeError(`per100 must be at most 100 where items are counted, got ${per100}`)
  const strength = (1 - SAME_UNIT_CORRELATION) / SAME_UNIT_CORRELATION
  let found = 0
  for (let item = 0; item < itemsPerUnit; item++) if (random() < ((per100 / 100) * strength + found) / (strength + item)) found++
  return found
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
