import { requireAtLeast, requirePositive } from '../guards.js'
import type { Random } from '../statistics/index.js'
import { sequentialDecision, sequentialLines, type SequentialLines } from './sequential.js'

/** The risk of treating needlessly and that of missing, each. */
const RISK = 0.1
/** A mean of this share of the threshold is safe: there nobody would act. */
const SAFE_SHARE = 0.5
/** How alike the items of one sample unit are: the fruit of a tree share its pests. */
const SAME_UNIT_CORRELATION = 0.05
/** Common exponent of the negative binomial for animals per sample unit, where nobody has measured it. */
const ASSUMED_K = 1
/** Fewer sample units decide nothing, however clear they look. */
const LEAST_UNITS = 10
/** Sample units, as a multiple of the usual number, after which a count that is still between the lines is undecided. */
const MOST_TIMES = 2

/** What a count is held against, and by what it is counted. */
export interface CountedAgainst {
  /** The threshold, per hundred items. */
  per100: number
  /** Whether animals are counted or the items that have any. */
  measure: 'density' | 'incidence'
  itemsPerUnit: number
  /** The usual number of sample units. */
  suggestedUnits: number
  /** Weights of the classes. */
  weights: readonly number[]
}

/** When a count may end: the running total over all sample units so far walks between two lines until it leaves them. */
export interface CountingPlan {
  /** Total against sample units. */
  lines: SequentialLines
  leastUnits: number
  mostUnits: number
  /** With nothing found at all it is over after so many sample units. */
  unitsIfNone: number
}

/**
 * The plan by which a count is decided unit by unit: Wald 1947 on animals per unit (negative binomial) or on infested items (binomial, its
 * lines moved apart by how alike the items of one unit are). None where the classes weigh differently, since the spread of such a sum is not
 * known, nor for a threshold of nothing or of every item.
 *
 * @throws RangeError for sizes that are not positive
 * @example countingPlan({ per100: 50, measure: 'density', itemsPerUnit: 1, suggestedUnits: 25, weights: [1] })
 */
export function countingPlan({ per100, measure, itemsPerUnit, suggestedUnits, weights }: CountedAgainst): CountingPlan | null {
  requirePositive('itemsPerUnit', itemsPerUnit)
  requirePositive('suggestedUnits', suggestedUnits)
  if (per100 <= 0 || weights.some((weight) => weight !== 0 && weight !== 1)) return null
  if (measure === 'incidence' && per100 >= 100) return null
  const act = (per100 / 100) * (measure === 'incidence' ? 1 : itemsPerUnit)
  const model = measure === 'incidence' ? ({ kind: 'binomial' } as const) : ({ kind: 'negative-binomial', k: ASSUMED_K } as const)
  const perItem = sequentialLines(model, SAFE_SHARE * act, act, RISK, RISK)
  const items = measure === 'incidence' ? itemsPerUnit : 1
  const apart = 1 + (items - 1) * SAME_UNIT_CORRELATION
  const lines = {
    slope: perItem.slope * items,
    actIntercept: perItem.actIntercept * apart,
    stopIntercept: perItem.stopIntercept * apart,
  }
  return {
    lines,
    leastUnits: LEAST_UNITS,
    mostUnits: Math.max(LEAST_UNITS, Math.round(MOST_TIMES * suggestedUnits)),
    unitsIfNone: Math.max(LEAST_UNITS, Math.ceil(-lines.stopIntercept / lines.slope)),
  }
}

/**
 * What is found on one sample unit where there really are so many per hundred items, drawn as the plan takes it: animals by the negative
 * binomial, infested items by an urn from which each draw makes its like more likely (beta-binomial, Pólya).
 *
 * @throws RangeError for a share of items above all of them
 */
export function drawFinds({ measure, itemsPerUnit }: CountedAgainst, per100: number, random: Random): number {
  if (measure === 'density') {
    // Of exponent 1: geometric.
    const mean = (per100 / 100) * itemsPerUnit
    return mean === 0 ? 0 : Math.floor(Math.log(1 - random()) / Math.log(mean / (mean + ASSUMED_K)))
  }
  if (per100 > 100) throw new RangeError(`per100 must be at most 100 where items are counted, got ${per100}`)
  const strength = (1 - SAME_UNIT_CORRELATION) / SAME_UNIT_CORRELATION
  let found = 0
  for (let item = 0; item < itemsPerUnit; item++) if (random() < ((per100 / 100) * strength + found) / (strength + item)) found++
  return found
}

/** What a count says so far; `too-few`: nothing yet, however it looks. */
export type CountingVerdict = 'act' | 'stop' | 'go-on' | 'too-few' | 'undecided'

/**
 * What a total over so many sample units says by a plan. Between the lines one counts on, up to the plan's most; then it is undecided, which
 * is neither acting nor leaving it.
 *
 * @throws RangeError for a negative total or number of units
 */
export function countingVerdict(plan: CountingPlan, units: number, total: number): CountingVerdict {
  requireAtLeast('units', units, 0)
  requireAtLeast('total', total, 0)
  if (units < plan.leastUnits) return 'too-few'
  const said = sequentialDecision(plan.lines, units, total)
  if (said !== 'continue') return said
  return units < plan.mostUnits ? 'go-on' : 'undecided'
}

/** To which line a total is nearer: towards which an undecided count leans. */
export const countLeans = ({ lines }: CountingPlan, units: number, total: number): 'act' | 'stop' =>
  total >= lines.slope * units + (lines.actIntercept + lines.stopIntercept) / 2 ? 'act' : 'stop'
