import { requireFinite, requirePositive } from '../guards.js'
import { studentCdf } from './student.js'
import type { Bounds } from './quantile.js'

/** How far seasons lie apart where too few are known to show it: 7 days, as if from four degrees of freedom. */
const USUAL_BETWEEN = { sd: 7, df: 4 } as const
/** Ranks at which the dates of a season are read; as many as a figure's error has strata. */
export const RANKS = 12
/** With fewer seasons the spread between them is not known well enough to go by itself. */
const LEAST_FOR_SPREAD = 5
/** From so many seasons on their own order tells of the middle, and a tail only of what lies beyond them. */
const LEAST_FOR_ORDER = 9
const SMALLEST_SPREAD = 1e-9

/** What is known between seasons of other places or years: a standard deviation and its degrees of freedom. */
export interface Between {
  sd: number
  df: number
}

/** The dates of one rank over the seasons, as a distribution. */
interface RankDistribution {
  /** Dates in order, finite ones only. */
  sorted: Float64Array
  mean: number
  scale: number
  freedom: number
  /** Probability that it comes at all. */
  share: number
  byOrder: boolean
}

/** Value of sorted dates at a probability (Hazen): position n·p − ½ from 0, held to the ends. */
function hazen(sorted: Float64Array, p: number): number {
  const position = Math.min(sorted.length - 1, Math.max(0, sorted.length * p - 0.5))
  const below = Math.floor(position)
  const low = sorted[below] as number
  const weight = position - below
  if (weight === 0) return low
  const high = sorted[below + 1] as number
  return high === Infinity ? Infinity : low + (high - low) * weight
}

function requireSeasons(seasons: readonly (readonly number[])[]): void {
  if (seasons.length === 0) throw new RangeError('seasons must hold at least one season, got 0')
  seasons.forEach((dates, i) => {
    if (dates.length === 0) throw new RangeError(`seasons[${i}] must hold at least one date, got 0`)
    for (const date of dates)
      if (Number.isNaN(date) || date === -Infinity) throw new RangeError(`seasons[${i}] must hold finite dates or Infinity, got ${date}`)
  })
}

function distributionsOf(seasons: readonly (readonly number[])[], between: Between): RankDistribution[] {
  requireSeasons(seasons)
  requirePositive('between.sd', between.sd)
  requirePositive('between.df', between.df)
  const n = seasons.length
  const ordered = seasons.map((dates) => Float64Array.from(dates).sort())
  return Array.from({ length: RANKS }, (_, r) => {
    const dates = ordered.map((season) => hazen(season, (r + 0.5) / RANKS))
    const sorted = Float64Array.from(dates.filter((date) => date !== Infinity)).sort()
    const known = sorted.length
    if (known === 0) return { sorted, mean: NaN, scale: NaN, freedom: NaN, share: 0, byOrder: false }
    const mean = sorted.reduce((a, b) => a + b, 0) / known
    const squares = sorted.reduce((a, b) => a + (b - mean) ** 2, 0)
    const few = known < LEAST_FOR_SPREAD
    const freedom = few ? between.df + known - 1 : known - 1
    const variance = (few ? between.df * between.sd ** 2 + squares : squares) / freedom
    return {
      sorted,
      mean,
      scale: Math.max(SMALLEST_SPREAD, Math.sqrt(variance)) * Math.sqrt(1 + 1 / known),
      freedom,
      share: known === n ? 1 : (known + 0.5) / (n + 1),
      byOrder: known === n && n >= LEAST_FOR_ORDER,
    }
  })
}

/** Probability that the date of a rank is at most `day`. */
function shareOf(d: RankDistribution, day: number): number {
  const { sorted, mean, scale, freedom, share, byOrder } = d
  if (share === 0) return 0
  if (!byOrder) return share * studentCdf((day - mean) / scale, freedom)
  const n = sorted.length
  const first = sorted[0] as number
  const last = sorted[n - 1] as number
  const edge = 1 / (n + 1)
  if (day < first) return (edge * studentCdf((day - mean) / scale, freedom)) / studentCdf((first - mean) / scale, freedom)
  if (day >= last) return 1 - (edge * studentCdf((mean - day) / scale, freedom)) / studentCdf((mean - last) / scale, freedom)
  let k = 0
  while (k + 1 < n && (sorted[k + 1] as number) <= day) k++
  const low = sorted[k] as number
  const high = sorted[k + 1] as number
  return (k + 1 + (day - low) / (high - low)) * edge
}

const meanShare = (ranks: readonly RankDistribution[], day: number): number =>
  ranks.reduce((sum, rank) => sum + shareOf(rank, day), 0) / ranks.length

/** The day by which the mean distribution has reached a share: bracketed, then by false position that halves where it stalls. */
function quantileOf(ranks: readonly RankDistribution[], p: number, range: { low: number; high: number; step: number }): number {
  const total = ranks.reduce((sum, { share }) => sum + share, 0) / ranks.length
  if (p >= total) return Infinity
  let { low, high, step } = range
  let atLow = meanShare(ranks, low) - p
  for (; atLow > 0; step *= 2) atLow = meanShare(ranks, (low -= step)) - p
  let atHigh = meanShare(ranks, high) - p
  for (step = range.step; atHigh < 0; step *= 2) atHigh = meanShare(ranks, (high += step)) - p
  const enough = 1e-6
  for (let i = 0, side = 0; i < 100 && high - low > enough; i++) {
    let middle = atHigh === atLow ? (low + high) / 2 : (low * atHigh - high * atLow) / (atHigh - atLow)
    // False position creeps where the distribution is steep on one side.
    if (i % 3 === 2 || !(middle > low && middle < high)) middle = (low + high) / 2
    const at = meanShare(ranks, middle) - p
    if (at === 0) return middle
    if (at < 0) {
      low = middle
      atLow = at
      if (side === -1) atHigh /= 2
      side = -1
    } else {
      high = middle
      atHigh = at
      if (side === 1) atLow /= 2
      side = 1
    }
  }
  return (low + high) / 2
}

/**
 * 10th, 50th and 90th percentile of a date in a season that is still to come, from seasons that came: each is a sample of what may
 * come, and few of them are less than that. A new season falls below the k-th of n exchangeable dates with probability k/(n + 1);
 * beyond the first and the last, and where fewer than nine are known, a Student t stands in.
 *
 * @param seasons for each past season its equally likely dates, in days; Infinity where it does not come. At least one season, none empty
 * @param between what is known of the spread between seasons where fewer than five tell of it; 7 days, 4 degrees of freedom without it
 * @returns days; Infinity where so much of the probability lies with its not coming
 * @throws RangeError for no season, an empty one, or a date that is no number
 * @example predictiveBounds([[150], [152], [155], [149], [158], [153]]) // { p10: 147.6, p50: 152.8, p90: 158.1 }
 */
export function predictiveBounds(seasons: readonly (readonly number[])[], between: Between = USUAL_BETWEEN): Bounds {
  const ranks = distributionsOf(seasons, between)
  const known = ranks.filter(({ share }) => share > 0)
  if (known.length === 0) return { p10: Infinity, p50: Infinity, p90: Infinity }
  const low = Math.min(...known.map(({ sorted }) => sorted[0] as number))
  const high = Math.max(...known.map(({ sorted }) => sorted.at(-1) as number))
  const range = { low, high, step: Math.max(...known.map(({ scale }) => scale)) }
  const at = (p: number): number => quantileOf(ranks, p, range)
  // Where seasons agree the distribution is a step: found to a ten-millionth, its percentiles may come out of order.
  const p10 = at(0.1)
  const p50 = Math.max(p10, at(0.5))
  return { p10, p50, p90: Math.max(p50, at(0.9)) }
}

/**
 * Probability that a date has come by a day, from the same distribution as `predictiveBounds`.
 *
 * @param day as the dates are counted; Infinity asks for the probability that it comes at all
 * @throws RangeError as `predictiveBounds`, and for a day that is no number
 * @example predictiveShare([[150], [152], [155], [149], [158], [153]], 154) // 0.6212
 */
export function predictiveShare(seasons: readonly (readonly number[])[], day: number, between: Between = USUAL_BETWEEN): number {
  const ranks = distributionsOf(seasons, between)
  if (day === Infinity) return ranks.reduce((sum, { share }) => sum + share, 0) / ranks.length
  requireFinite('day', day)
  return Math.min(1, Math.max(0, meanShare(ranks, day)))
}

/**
 * Predictive bounds of a share: held in 0..1.
 *
 * @param between spread of the share between seasons where few tell of it
 */
export function predictiveShareBounds(seasons: readonly (readonly number[])[], between: Between): Bounds {
  const { p10, p50, p90 } = predictiveBounds(seasons, between)
  const held = (value: number): number => Math.min(1, Math.max(0, value))
  return { p10: held(p10), p50: held(p50), p90: held(p90) }
}
