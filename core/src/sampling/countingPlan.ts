import { requireAtLeast, requirePositive, requireWithin } from '../guards.js'
import { normalQuantile } from '../statistics/index.js'
import type { Clumping } from './clumping.js'
import { greenStopLine } from './precision.js'
import { exponentOf, shareWithAny } from './presence.js'
import { sequentialLines } from './sequential.js'

/** The risk of treating needlessly and that of missing, each. */
const RISK = 0.1
/** A mean of this share of the threshold is safe: there nobody would act. */
const SAFE_SHARE = 0.5
/** How alike the items of one sample unit are: the fruit of a tree share its pests. */
export const SAME_UNIT_CORRELATION = 0.05
/** Fewer sample units decide nothing, however clear they look. */
const LEAST_UNITS = 10
/** Nor do sample units of fewer places: neighbours are alike. */
const LEAST_PLACES = 5
/** Sample units, as a multiple of the usual number, after which a count that is still between the lines is undecided. */
const MOST_TIMES = 2

/**
 * By what a count ends.
 * `sequential`: between two lines, Wald 1947. `fixed`: after a number of sample units, by the mean. `crowding`: between two curves around the
 * threshold by the regression of mean crowding, Iwao 1975. `precision`: once the mean is known to a relative standard error, Green 1970.
 */
export const planKinds = ['sequential', 'fixed', 'crowding', 'precision'] as const
export type PlanKind = (typeof planKinds)[number]

/** How a count is to end, where somebody chose otherwise; each left out as it usually is. */
export interface PlanChoice {
  kind: PlanKind
  /** A mean of this share of the threshold is safe, above 0 and below 1. */
  safeShare?: number
  /** Risk of treating needlessly, and of missing. */
  needless?: number
  missed?: number
  /** Relative standard error to which the mean is to be known. */
  relativeSe?: number
  leastUnits?: number
  leastPlaces?: number
  mostUnits?: number
}

/** What a count is held against, and by what it is counted. */
export interface CountedAgainst {
  /** The threshold, per hundred items. */
  per100: number
  /** Whether animals are counted, the items that have any, or only whether the sample unit has any. */
  measure: 'density' | 'incidence' | 'presence'
  itemsPerUnit: number
  /** The usual number of sample units. */
  suggestedUnits: number
  /** Weights of the classes. */
  weights: readonly number[]
  /** How it is to end; as usual where nobody chose. */
  choice?: PlanChoice
  /** How much animals sit together, as it was measured in counts before. */
  clumping?: Clumping
}

/** When a count may end: what the running total over all sample units so far says after each. */
export interface CountingPlan {
  kind: PlanKind
  /** Total from which on one acts after so many sample units. */
  actAt: (units: number) => number
  /** Total up to which there is nothing to do; below 0 as long as no total is. */
  stopAt: (units: number) => number
  /** Total from which on the mean is known well enough to end at all; null where that is not asked for. */
  knownAt: ((units: number) => number) | null
  leastUnits: number
  leastPlaces: number
  mostUnits: number
  /** With nothing found at all it is over after so many sample units. */
  unitsIfNone: number
}

/**
 * The plan by which a count is decided unit by unit. Animals per unit are taken as negative binomial, infested items as binomial with lines moved
 * apart by how alike the items of one unit are. The two lines of Wald need classes that weigh alike, since the spread of other sums is not known.
 *
 * @returns null for a threshold of nothing or of every item, and where what the plan rests on is not known: lines with classes that weigh
 * differently, curves of crowding or precision without counts before that tell how much animals sit together
 * @throws RangeError for sizes that are not positive and shares outside 0 to 1
 * @example countingPlan({ per100: 50, measure: 'density', itemsPerUnit: 1, suggestedUnits: 25, weights: [1] })
 */
export function countingPlan(against: CountedAgainst): CountingPlan | null {
  const { per100, measure, itemsPerUnit, suggestedUnits, choice = { kind: 'sequential' } } = against
  requirePositive('itemsPerUnit', itemsPerUnit)
  requirePositive('suggestedUnits', suggestedUnits)
  if (per100 <= 0 || (measure === 'incidence' && per100 >= 100)) return null
  const least = choice.leastUnits ?? LEAST_UNITS
  const ends = {
    kind: choice.kind,
    leastUnits: least,
    leastPlaces: choice.leastPlaces ?? LEAST_PLACES,
    mostUnits: Math.max(least, choice.mostUnits ?? Math.round(MOST_TIMES * suggestedUnits)),
  }
  const lines = linesOf[choice.kind](against, choice)
  if (!lines) return null
  if (choice.kind === 'fixed') ends.leastUnits = ends.mostUnits = choice.mostUnits ?? suggestedUnits
  return { ...ends, ...withNone({ ...ends, ...lines }) }
}

type Lines = Pick<CountingPlan, 'actAt' | 'stopAt' | 'knownAt'>

/** Items of one unit are alike, so a unit tells less than as many items of as many units: as much less as this is above 1. */
const apartness = ({ measure, itemsPerUnit }: CountedAgainst): number =>
  1 + ((measure === 'incidence' ? itemsPerUnit : 1) - 1) * SAME_UNIT_CORRELATION

const linesOf: Record<PlanKind, (against: CountedAgainst, choice: PlanChoice) => Lines | null> = {
  sequential(against, { safeShare = SAFE_SHARE, needless = RISK, missed = RISK }) {
    const { per100, measure, itemsPerUnit, weights, clumping } = against
    requireWithin('choice.safeShare', safeShare, Number.EPSILON, 1 - Number.EPSILON)
    if (weights.some((weight) => weight !== 0 && weight !== 1)) return null
    const k = exponentOf(clumping)
    const mean = (per100 / 100) * (measure === 'incidence' ? 1 : itemsPerUnit)
    const of = (n: number): number => (measure === 'presence' ? shareWithAny(n, k) : n)
    const chance = Number.isFinite(k) ? ({ kind: 'negative-binomial', k } as const) : ({ kind: 'poisson' } as const)
    const model = measure === 'density' ? chance : ({ kind: 'binomial' } as const)
    const perItem = sequentialLines(model, of(safeShare * mean), of(mean), needless, missed)
    const slope = perItem.slope * (measure === 'incidence' ? itemsPerUnit : 1)
    const apart = apartness(against)
    return {
      actAt: (units) => slope * units + perItem.actIntercept * apart,
      stopAt: (units) => slope * units + perItem.stopIntercept * apart,
      knownAt: null,
    }
  },
  fixed(against) {
    const each = perUnit(against)
    // Every total is on one side of it.
    return { actAt: (units) => each * units, stopAt: (units) => each * units * (1 - 1e-12), knownAt: null }
  },
  crowding(against, { needless = RISK, missed = RISK }) {
    const { alpha, beta } = against.clumping?.crowding ?? {}
    if (alpha === undefined || beta === undefined || against.measure === 'presence') return null
    const mean = perUnit(against)
    const variance = (alpha + 1) * mean + (beta - 1) * mean ** 2
    if (!(variance > 0)) return null
    return {
      actAt: (units) => mean * units + normalQuantile(1 - needless) * Math.sqrt(units * variance),
      stopAt: (units) => mean * units - normalQuantile(1 - missed) * Math.sqrt(units * variance),
      knownAt: null,
    }
  },
  precision(against, { relativeSe = 0.25 }) {
    const taylor = against.clumping?.taylor
    if (!taylor || taylor.b >= 2 || against.measure === 'presence') return null
    const mean = perUnit(against)
    return {
      actAt: (units) => mean * units,
      stopAt: (units) => mean * units * (1 - 1e-12),
      knownAt: (units) => greenStopLine(taylor, relativeSe, units),
    }
  },
}

/** The threshold as a total on one sample unit. */
const perUnit = ({ per100, itemsPerUnit, measure, clumping }: CountedAgainst): number => {
  const mean = (per100 / 100) * itemsPerUnit
  return measure === 'presence' ? shareWithAny(mean, exponentOf(clumping)) : mean
}

function withNone(plan: Lines & Pick<CountingPlan, 'leastUnits' | 'mostUnits'>): Lines & Pick<CountingPlan, 'unitsIfNone'> {
  const { actAt, stopAt, knownAt, leastUnits, mostUnits } = plan
  let unitsIfNone = leastUnits
  // Of nothing the mean is never known to a share of itself.
  if (knownAt) unitsIfNone = mostUnits
  else while (stopAt(unitsIfNone) < 0) unitsIfNone++
  return { actAt, stopAt, knownAt, unitsIfNone }
}

/** What a count says so far; `too-few`: nothing yet, however it looks, for want of sample units or of places. */
export type CountingVerdict = 'act' | 'stop' | 'go-on' | 'too-few' | 'undecided'

/**
 * What a total over so many sample units says by a plan. Between the lines one counts on, up to the plan's most; then it is undecided, which
 * is neither acting nor leaving it.
 *
 * @param places from which the sample units are; null where nobody kept that
 * @throws RangeError for a negative total or number of units
 */
export function countingVerdict(plan: CountingPlan, units: number, total: number, places: number | null = null): CountingVerdict {
  requireAtLeast('units', units, 0)
  requireAtLeast('total', total, 0)
  if (units < plan.leastUnits || (places !== null && places < plan.leastPlaces)) return 'too-few'
  const isKnown = !plan.knownAt || total >= plan.knownAt(units)
  if (isKnown && total >= plan.actAt(units)) return 'act'
  if (isKnown && total <= plan.stopAt(units)) return 'stop'
  return units < plan.mostUnits ? 'go-on' : 'undecided'
}

/** To which line a total is nearer: towards which an undecided count leans. */
export const countLeans = ({ actAt, stopAt }: CountingPlan, units: number, total: number): 'act' | 'stop' =>
  total >= (actAt(units) + stopAt(units)) / 2 ? 'act' : 'stop'
