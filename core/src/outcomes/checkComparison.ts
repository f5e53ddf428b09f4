import { requireAtLeast } from '../guards.js'
import { normalQuantile, studentQuantile } from '../statistics/normal.js'
import { quantileSorted } from '../statistics/quantile.js'
import { drawNormal, seededRandom, type Random } from '../statistics/random.js'
import { abbott, hendersonTilton } from './efficacy.js'

/** Level of every interval of a result. */
export const INTERVAL_LEVEL = 0.9
/** Below this many sample units in any count, resampling says too little and a t interval is used. */
export const FEW_UNITS = 20
/**
 * Standard deviation, on the log scale and per area, of how two areas drift apart without treatment. Stated, not measured:
 * it stands until the site has measured its own.
 */
export const STATED_AREA_SD_LOG = 0.3
const REPLICATES = 2000

export interface Interval {
  low: number
  high: number
}

/** Efficacy as a proportion with two intervals: sampling error alone, and with the difference between areas added. */
export interface Efficacy {
  value: number
  sampling: Interval
  withAreas: Interval
}

/** Effective counts of each sample unit, before and after, in the treated and in the check area. */
export interface CheckComparisonInput {
  treatedBefore: readonly number[]
  treatedAfter: readonly number[]
  checkBefore: readonly number[]
  checkAfter: readonly number[]
}

export interface CheckComparison {
  abbott: Efficacy
  hendersonTilton: Efficacy
  /** `bootstrap` over sample units; `few-units` and `unvarying` (a count in which no unit differs): log-ratio t interval; `totals`: one unit, Poisson, dispersion unknown. */
  method: 'bootstrap' | 'few-units' | 'unvarying' | 'totals'
  /** True where a total was 0 and 0.5 was added to all four. */
  zeroAdjusted: boolean
  /** At most what one treated and one check area can show. */
  verdict: 'lower-than-check' | 'not-separable' | 'higher-than-check'
  /** Per unit: what the treated area would hold had it gone the way of the check. */
  expectedWithoutTreatment: number
}

const sum = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0)

/** Whether units tell nothing of how they vary: all of them hold the same, as where nothing was found. */
const isSilent = (units: readonly number[]): boolean => units.every((n) => n === units[0])

interface LogRatios {
  abbott: number
  hendersonTilton: number
}

/** Log of treated over check, after (Abbott) and relative to before (Henderson & Tilton), per sample unit. */
function logRatios(totals: readonly [number, number, number, number], units: readonly [number, number, number, number]): LogRatios {
  const added = totals.some((total) => total === 0) ? 0.5 : 0
  const perUnit = totals.map((total, i) => Math.log((total + added) / (units[i] as number)))
  const [tb, ta, cb, ca] = perUnit as [number, number, number, number]
  return { abbott: ta - ca, hendersonTilton: ta - ca - (tb - cb) }
}

/**
 * Treated against check, before and after: Abbott 1925 and Henderson & Tilton 1955 on means per sample unit, with 90 %
 * intervals. From 20 units in each count the units are resampled (seeded bootstrap; Efron 1979); below that the interval
 * is a t interval of the log ratio, as it is where a count does not vary or nothing was found. `withAreas` adds the stated spread between two untreated areas, and the verdict rests
 * on it: one treated and one check area never show more than "lower here than in the check".
 *
 * @throws RangeError for an empty count or a negative number, naming it.
 */
export function compareWithCheck(input: CheckComparisonInput, options: { seed: number; areaSdLog?: number }): CheckComparison {
  const names = ['treatedBefore', 'treatedAfter', 'checkBefore', 'checkAfter'] as const
  const counts = names.map((name) => {
    const units = input[name]
    if (units.length === 0) throw new RangeError(`input.${name} must hold at least one sample unit, got 0`)
    units.forEach((n, i) => requireAtLeast(`input.${name}[${i}]`, n, 0))
    return units
  })
  const units = counts.map((c) => c.length) as [number, number, number, number]
  const totals = counts.map(sum) as [number, number, number, number]
  const zeroAdjusted = totals.some((total) => total === 0)
  const point = logRatios(totals, units)
  const areaSd = (options.areaSdLog ?? STATED_AREA_SD_LOG) * Math.SQRT2
  const fewest = Math.min(...units)
  // Resampling what does not vary, or holds nothing, would make an interval without width: certainty that nobody has.
  const silent = counts.some(isSilent)
  const method = fewest === 1 ? 'totals' : fewest < FEW_UNITS ? 'few-units' : silent ? 'unvarying' : 'bootstrap'
  const intervals =
    method === 'bootstrap'
      ? bootstrapIntervals(counts, units, areaSd, seededRandom(options.seed))
      : ratioIntervals(counts, point, areaSd, method)

  const [tb, ta, cb, ca] = totals.map((total, i) => (total + (zeroAdjusted ? 0.5 : 0)) / (units[i] as number)) as [
    number,
    number,
    number,
    number,
  ]
  const efficacy = intervals.hendersonTilton.withAreas
  return {
    abbott: { value: abbott({ treatedAfter: ta, checkAfter: ca }), ...intervals.abbott },
    hendersonTilton: {
      value: hendersonTilton({ treatedBefore: tb, treatedAfter: ta, checkBefore: cb, checkAfter: ca }),
      ...intervals.hendersonTilton,
    },
    method,
    zeroAdjusted,
    verdict: efficacy.low > 0 ? 'lower-than-check' : efficacy.high < 0 ? 'higher-than-check' : 'not-separable',
    expectedWithoutTreatment: (tb * ca) / cb,
  }
}

type Intervals = Record<keyof LogRatios, { sampling: Interval; withAreas: Interval }>

/** Efficacy falls as the ratio rises, so the bounds change places. */
function efficacyInterval(lowLog: number, highLog: number): Interval {
  return { low: 1 - Math.exp(highLog), high: 1 - Math.exp(lowLog) }
}

function resampledTotal(units: readonly number[], random: Random): number {
  let total = 0
  for (let i = 0; i < units.length; i++) total += units[Math.floor(random() * units.length)] as number
  return total
}

function bootstrapIntervals(
  counts: readonly (readonly number[])[],
  units: [number, number, number, number],
  areaSd: number,
  random: Random,
): Intervals {
  const draws = {
    abbott: { sampling: new Float64Array(REPLICATES), withAreas: new Float64Array(REPLICATES) },
    hendersonTilton: { sampling: new Float64Array(REPLICATES), withAreas: new Float64Array(REPLICATES) },
  }
  for (let r = 0; r < REPLICATES; r++) {
    const totals = counts.map((c) => resampledTotal(c, random)) as [number, number, number, number]
    const ratios = logRatios(totals, units)
    const drift = drawNormal(random, 0, areaSd)
    for (const formula of ['abbott', 'hendersonTilton'] as const) {
      draws[formula].sampling[r] = ratios[formula]
      draws[formula].withAreas[r] = ratios[formula] + drift
    }
  }
  const tail = (1 - INTERVAL_LEVEL) / 2
  const interval = (values: Float64Array): Interval => {
    const sorted = values.sort()
    return efficacyInterval(quantileSorted(sorted, tail), quantileSorted(sorted, 1 - tail))
  }
  return {
    abbott: { sampling: interval(draws.abbott.sampling), withAreas: interval(draws.abbott.withAreas) },
    hendersonTilton: { sampling: interval(draws.hendersonTilton.sampling), withAreas: interval(draws.hendersonTilton.withAreas) },
  }
}

/** Variance of the log of a mean by the delta method; Poisson where the units do not vary or there is only one. */
function logMeanVariance(units: readonly number[], added: number): number {
  const total = sum(units) + added
  const n = units.length
  const mean = sum(units) / n
  const variance = n > 1 ? sum(units.map((x) => (x - mean) ** 2)) / (n - 1) : 0
  const poisson = 1 / total
  return variance > 0 ? Math.max((variance * n) / total ** 2, added > 0 ? poisson : 0) : poisson
}

function ratioIntervals(
  counts: readonly (readonly number[])[],
  point: LogRatios,
  areaSd: number,
  method: 'few-units' | 'unvarying' | 'totals',
): Intervals {
  const added = counts.some((c) => sum(c) === 0) ? 0.5 : 0
  const variances = counts.map((c) => logMeanVariance(c, added)) as [number, number, number, number]
  const upper = 1 - (1 - INTERVAL_LEVEL) / 2
  const width = method === 'totals' ? normalQuantile(upper) : studentQuantile(upper, Math.min(...counts.map((c) => c.length)) - 1)
  const interval = (log: number, variance: number): Interval =>
    efficacyInterval(log - width * Math.sqrt(variance), log + width * Math.sqrt(variance))
  const both = (log: number, variance: number): { sampling: Interval; withAreas: Interval } => ({
    sampling: interval(log, variance),
    withAreas: interval(log, variance + areaSd ** 2),
  })
  return {
    abbott: both(point.abbott, variances[1] + variances[3]),
    hendersonTilton: both(point.hendersonTilton, sum(variances)),
  }
}

/**
 * Mean effective count per sample unit with its 90 % sampling interval: bootstrap from 20 units, t below, Poisson for a
 * single unit or where none differs from another. Nothing found has an upper limit of 2.3 divided by the units (Hanley & Lippman-Hand
 * 1983).
 *
 * @throws RangeError for no units or a negative number.
 */
export function meanWithInterval(units: readonly number[], seed: number): Interval & { mean: number } {
  if (units.length === 0) throw new RangeError('units must hold at least one sample unit, got 0')
  units.forEach((n, i) => requireAtLeast(`units[${i}]`, n, 0))
  const n = units.length
  const mean = sum(units) / n
  const upper = 1 - (1 - INTERVAL_LEVEL) / 2
  // Nothing found is not nothing there: with n units and none, as much as −ln(1 − level)/n a unit may have been missed.
  if (sum(units) === 0) return { mean: 0, low: 0, high: -Math.log(1 - INTERVAL_LEVEL) / n }
  if (n >= FEW_UNITS && !isSilent(units)) {
    const random = seededRandom(seed)
    const means = Float64Array.from({ length: REPLICATES }, () => resampledTotal(units, random) / n).sort()
    return { mean, low: quantileSorted(means, 1 - upper), high: quantileSorted(means, upper) }
  }
  // Counts that do not vary are taken to vary as much as chance alone makes them.
  const variance = n > 1 && !isSilent(units) ? sum(units.map((x) => (x - mean) ** 2)) / (n - 1) : mean
  const se = Math.sqrt(variance / n)
  const width = (n > 1 ? studentQuantile(upper, n - 1) : normalQuantile(upper)) * se
  return { mean, low: Math.max(0, mean - width), high: mean + width }
}
