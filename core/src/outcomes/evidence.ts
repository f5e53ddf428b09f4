import { requireAtLeast, requireFinite, requirePositive, requireWithin } from '../guards.js'
import { normalQuantile } from '../statistics/normal.js'
import { studentQuantileExact } from '../statistics/student.js'
import { INTERVAL_LEVEL, type Interval } from './checkComparison.js'

/** One deed that was held against a check: what it left of what would have been there, and how well that is known. */
export interface JudgedDeed {
  /** The treated area with its check. */
  areaId: string
  /** ln of the share that was left, as of Henderson & Tilton 1955: below 0 where the treated did better. */
  logLeft: number
  /** Standard deviation of `logLeft`, the difference between two areas included. */
  sd: number
}

/** What a site's own deeds of one kind say together. */
export interface Evidence {
  /** `worked` and `worse` only over enough areas; with fewer `lower-here` is the most that is said. */
  verdict: 'worked' | 'lower-here' | 'cannot-tell' | 'higher-here' | 'worse'
  deeds: number
  areas: number
  /** Efficacy as a proportion, with its interval. */
  effect: Interval & { value: number }
}

/** From this many areas on, each with its check, the areas themselves say how much areas differ. */
export const AREAS_THAT_TELL = 3

/**
 * What several deeds of one kind did, each held against a check. Deeds in one area are averaged first: they are no replicates. From three areas
 * on a t interval over the areas decides, which scatter at least as much as their own counts leave them; with fewer the deeds are weighed by
 * how well each is known, and no more is said than that it stood lower here.
 *
 * @param deeds at least one
 * @param level of the interval, above 0 and below 1
 * @throws RangeError for no deeds, a non-finite `logLeft`, or an `sd` not above 0
 * @example evidenceOf([{ areaId: 'a', logLeft: -1, sd: 0.5 }, { areaId: 'b', logLeft: -1.2, sd: 0.5 }, { areaId: 'c', logLeft: -1.1, sd: 0.5 }]).verdict // 'worked'
 */
export function evidenceOf(deeds: readonly JudgedDeed[], level = INTERVAL_LEVEL): Evidence {
  if (deeds.length === 0) throw new RangeError('deeds must hold at least one, got 0')
  deeds.forEach(({ logLeft, sd }, i) => {
    requireFinite(`deeds[${i}].logLeft`, logLeft)
    requirePositive(`deeds[${i}].sd`, sd)
  })
  const byArea = [...new Set(deeds.map(({ areaId }) => areaId))].map((areaId) => {
    const own = deeds.filter((deed) => deed.areaId === areaId)
    // What two areas differ by stays from deed to deed: averaging over one area does not take it away.
    return { mean: mean(own.map(({ logLeft }) => logLeft)), variance: mean(own.map(({ sd }) => sd ** 2)) }
  })
  const n = byArea.length
  const weights = n >= AREAS_THAT_TELL ? byArea.map(() => 1) : byArea.map(({ variance }) => 1 / variance)
  const whole = weights.reduce((sum, weight) => sum + weight, 0)
  const middle = byArea.reduce((sum, area, i) => sum + area.mean * (weights[i] as number), 0) / whole
  const upper = (1 + level) / 2
  const half =
    n >= AREAS_THAT_TELL
      ? studentQuantileExact(upper, n - 1) *
        Math.sqrt(
          Math.max(byArea.reduce((sum, area) => sum + (area.mean - middle) ** 2, 0) / (n - 1), mean(byArea.map((a) => a.variance))) / n,
        )
      : normalQuantile(upper) / Math.sqrt(whole)
  const [most, least] = [middle + half, middle - half]
  const tells = n >= AREAS_THAT_TELL
  return {
    verdict: most < 0 ? (tells ? 'worked' : 'lower-here') : least > 0 ? (tells ? 'worse' : 'higher-here') : 'cannot-tell',
    deeds: deeds.length,
    areas: n,
    effect: { value: 1 - Math.exp(middle), low: 1 - Math.exp(most), high: 1 - Math.exp(least) },
  }
}

const mean = (values: readonly number[]): number => values.reduce((sum, value) => sum + value, 0) / values.length

/** The standard deviation on the log scale that an interval of an efficacy stands for. */
export const logSdOf = ({ low, high }: Interval, level = INTERVAL_LEVEL): number =>
  (Math.log(1 - low) - Math.log(1 - high)) / (2 * normalQuantile((1 + level) / 2))

/** What a comparison of one treated and one check area would have found. */
export interface ComparisonPlan {
  /** Of what is counted, per sample unit, before. */
  mean: number
  /** How much they sit together: k of a negative binomial. */
  k: number
  /** Sample units counted in each area each time. */
  units: number
  /** Pairs of a treated area and its check. */
  pairs: number
  /** Standard deviation on the log scale of how two untreated areas drift apart, per area. */
  areaSdLog: number
}

/** The share of comparisons that shall find what is there. */
const POWER = 0.8
/** So much stands in for a count of nothing. */
const ADDED = 0.5
/** Falls of more than this, on the log scale, are told as all but everything. */
const MOST = 5

/**
 * The least fall, as a proportion, that counts before and after in treated and check areas would tell four times in five. One pair is taken by
 * its counts and the stated difference between areas; several by a t interval over them.
 *
 * @returns undefined where so few are counted that not even their end would be told
 * @throws RangeError for values that are not above 0, or an `areaSdLog` below 0
 * @example tellableFall({ mean: 4, k: 1, units: 40, pairs: 1, areaSdLog: 0.3 }) // 0.7583
 */
export function tellableFall({ mean: before, k, units, pairs, areaSdLog }: ComparisonPlan): number | undefined {
  requirePositive('mean', before)
  requirePositive('k', k)
  requirePositive('units', units)
  requirePositive('pairs', pairs)
  requireAtLeast('areaSdLog', areaSdLog, 0)
  const upper = (1 + INTERVAL_LEVEL) / 2
  const quantile = pairs >= AREAS_THAT_TELL ? studentQuantileExact(upper, pairs - 1) : normalQuantile(upper)
  const total = units * before
  // Fewer are left to count after it, which makes that count less sure: the fall is sought that carries its own uncertainty.
  for (let fall = 0.01; fall < MOST; fall += 0.01) {
    const variance = 3 / total + 1 / Math.max(ADDED, total * Math.exp(-fall)) + 4 / (units * k) + 2 * areaSdLog ** 2
    if (fall >= (quantile + normalQuantile(POWER)) * Math.sqrt(variance / pairs)) return 1 - Math.exp(-fall)
  }
  return undefined
}

/** Nobody counts more sample units in one area. */
const MOST_UNITS = 400

/**
 * The fewest sample units per area with which a comparison would tell a fall four times in five.
 *
 * @param fall as a proportion, above 0 and below 1
 * @returns undefined where no number that anybody counts would
 * @throws RangeError as `tellableFall`, or for a `fall` outside
 * @example unitsToTell(0.8, { mean: 4, k: 1, pairs: 1, areaSdLog: 0.3 }) // 26
 */
export function unitsToTell(fall: number, plan: Omit<ComparisonPlan, 'units'>): number | undefined {
  requireWithin('fall', fall, Number.EPSILON, 1 - Number.EPSILON)
  const tells = (units: number): boolean => (tellableFall({ ...plan, units }) ?? 1) <= fall
  if (!tells(MOST_UNITS)) return undefined
  let [few, enough] = [0, MOST_UNITS]
  while (enough - few > 1) {
    const half = Math.floor((few + enough) / 2)
    if (tells(half)) enough = half
    else few = half
  }
  return enough
}
