import { requirePositive } from '../guards.js'
import { shareWithInterval, studentQuantile } from '../statistics/index.js'
import { countingPlan, countingVerdict, SAME_UNIT_CORRELATION, type CountedAgainst, type CountingVerdict } from './countingPlan.js'
import { exponentOf, meanFromShare, per100Of } from './presence.js'

/** One in ten counts of a rest that is over its threshold may say that it is under. */
const UPPER_LEVEL = 0.9

/** A place of a count: from which of its sample units on, and whether it lies at the edge; null where that was not said. */
export interface CountedPlace {
  from: number
  edge: boolean | null
}

/** What one part of a count says by itself. */
export interface Stratum {
  edge: boolean
  units: number
  places: number
  per100: number
  /** Upper bound of what is there, per 100 items. */
  upper: number
  verdict: CountingVerdict | null
}

/**
 * Upper bound (one-sided, 90 %) of a mean per hundred items by single sample units: animals by the total that a
 * negative binomial allows, and never below Student's t on the units; infested items by the score interval on as many items as those of one
 * unit are worth.
 *
 * @param found effective count of each sample unit
 * @throws RangeError for no sample units
 */
export function upperPer100(found: readonly number[], { measure, itemsPerUnit, clumping }: CountedAgainst): number {
  const n = found.length
  requirePositive('units', n)
  const total = found.reduce((a, b) => a + b, 0)
  if (measure === 'incidence') {
    const items = (n * itemsPerUnit) / (1 + (itemsPerUnit - 1) * SAME_UNIT_CORRELATION)
    const hit = (total / (n * itemsPerUnit)) * items
    return 100 * shareWithInterval(hit, items, 2 * UPPER_LEVEL - 1).high
  }
  if (measure === 'presence') {
    const { high } = shareWithInterval(Math.min(total, n - 0.5), n, 2 * UPPER_LEVEL - 1)
    return (100 * meanFromShare(Math.min(high, 1 - 1e-9), exponentOf(clumping))) / itemsPerUnit
  }
  const mean = total / n
  const sd = n > 1 ? Math.sqrt(found.reduce((sum, x) => sum + (x - mean) ** 2, 0) / (n - 1)) : 0
  const byUnits = n > 1 ? mean + (studentQuantile(UPPER_LEVEL, n - 1) * sd) / Math.sqrt(n) : 0
  return (100 * Math.max(byUnits, clumpedUpper(total, n, Math.min(exponentOf(clumping), 1e6)))) / itemsPerUnit
}

/** The mean of which so small a total of clumped animals on n units comes in one case of ten. */
function clumpedUpper(total: number, n: number, k: number): number {
  const size = n * k
  const atMost = (mean: number): number => {
    const share = mean / (mean + k)
    let log = size * Math.log(1 - share)
    let sum = Math.exp(log)
    for (let i = 0; i < Math.floor(total); i++) {
      log += Math.log((share * (size + i)) / (i + 1))
      sum += Math.exp(log)
    }
    return sum
  }
  let [low, high] = [total / n, Math.max(1, (2 * total) / n)]
  while (atMost(high) > 1 - UPPER_LEVEL) high *= 2
  while (high - low > 1e-6 * high) {
    const middle = (low + high) / 2
    if (atMost(middle) > 1 - UPPER_LEVEL) low = middle
    else high = middle
  }
  return high
}

/** The place to which a sample unit belongs. */
export const placeOf = (places: readonly CountedPlace[], unit: number): CountedPlace | undefined =>
  places.findLast(({ from }) => from <= unit)

/**
 * A count by its edge and by what lies inside, each with an answer of its own; none where not both were counted.
 *
 * @param found effective count of each sample unit
 */
export function strataOf(found: readonly number[], places: readonly CountedPlace[], against: CountedAgainst | null): Stratum[] {
  const plan = against && countingPlan(against)
  const parts = [true, false].flatMap((edge): Stratum[] => {
    const own = found.filter((_, unit) => placeOf(places, unit)?.edge === edge)
    if (own.length === 0 || !against) return []
    const total = own.reduce((a, b) => a + b, 0)
    const many = places.filter((place) => place.edge === edge).length
    return [
      {
        edge,
        units: own.length,
        places: many,
        per100: per100Of(own, against),
        upper: upperPer100(own, against),
        // Of a part one asks for as many sample units, and the places there were.
        verdict: plan && countingVerdict(plan, own.length, total),
      },
    ]
  })
  return parts.length === 2 ? parts : []
}

/** Parts of a plant from the ground up. */
export const PLANT_HEIGHTS = ['low', 'middle', 'top'] as const
export type PlantHeight = (typeof PLANT_HEIGHTS)[number]

/**
 * A count by where on the plant its sample units were; none where only one height was looked at. It tells where to look and what a treatment
 * has to reach, and decides nothing.
 *
 * @param found effective count of each sample unit
 * @param heights of each; null where that was not said
 */
export function byHeightOf(
  found: readonly number[],
  heights: readonly (PlantHeight | null)[],
  against: Parameters<typeof per100Of>[1],
): { height: PlantHeight; units: number; per100: number }[] {
  const parts = PLANT_HEIGHTS.flatMap((height) => {
    const own = found.filter((_, unit) => heights[unit] === height)
    return own.length === 0 ? [] : [{ height, units: own.length, per100: per100Of(own, against) }]
  })
  return parts.length > 1 ? parts : []
}

/**
 * Which part to treat where the rest may be left: that which is over the threshold, while the upper bound of the other lies below it.
 *
 * @returns null where neither or both are to be treated, or the rest is not known well enough
 */
export function spotTreatment(parts: readonly Stratum[], per100: number): { treat: Stratum; rest: Stratum } | null {
  for (const treat of parts) {
    const rest = parts.find((part) => part !== treat)
    if (rest && treat.per100 >= per100 && treat.verdict !== 'too-few' && rest.upper < per100) return { treat, rest }
  }
  return null
}
