import type { DayExtremes } from '../heat/rule.js'
import { quantileSorted } from '../statistics/quantile.js'

/** One day of a past forecast beside what came; lead 0 is the day of issue. */
export interface ForecastPair {
  lead: number
  /** The day's extremes in °C by each member. */
  members: readonly DayExtremes[]
  came: DayExtremes
}

/** How good forecasts of one lead day were. Errors in °C, forecast less what came: positive is too warm. */
export interface LeadScore {
  lead: number
  /** Forecasts compared. */
  n: number
  biasMin: number
  biasMax: number
  /** Mean absolute error of the median member. */
  errorMin: number
  errorMax: number
  /** Share of the days that came between the lowest and the highest member. */
  inside: number
}

/** Scores past forecasts by lead day, the median member standing for the forecast. In the order of lead days. */
export function scoreForecasts(pairs: readonly ForecastPair[]): LeadScore[] {
  const byLead = new Map<number, ForecastPair[]>()
  for (const pair of pairs) byLead.set(pair.lead, [...(byLead.get(pair.lead) ?? []), pair])
  return [...byLead]
    .sort(([a], [b]) => a - b)
    .map(([lead, of]) => {
      const mean = (value: (pair: ForecastPair) => number): number => of.reduce((sum, pair) => sum + value(pair), 0) / of.length
      const off = (pair: ForecastPair, extreme: 'min' | 'max'): number => middle(pair.members, extreme) - pair.came[extreme]
      return {
        lead,
        n: of.length,
        biasMin: mean((pair) => off(pair, 'min')),
        biasMax: mean((pair) => off(pair, 'max')),
        errorMin: mean((pair) => Math.abs(off(pair, 'min'))),
        errorMax: mean((pair) => Math.abs(off(pair, 'max'))),
        inside: mean((pair) => (within(pair, 'min') + within(pair, 'max')) / 2),
      }
    })
}

function middle(members: readonly DayExtremes[], extreme: 'min' | 'max'): number {
  return quantileSorted(Float64Array.from(members, (member) => member[extreme]).sort(), 0.5)
}

function within({ members, came }: ForecastPair, extreme: 'min' | 'max'): number {
  const values = members.map((member) => member[extreme])
  return came[extreme] >= Math.min(...values) && came[extreme] <= Math.max(...values) ? 1 : 0
}

/** A forecast is corrected only by a bias that at least this many issues show. */
export const LEAST_SCORED = 10
/** The bias of a few issues is mostly chance: it counts as if this many without bias stood beside them. */
const SHRINKING = 8
const NEIGHBOURING_LEADS = 1

/** What is taken off a forecast's extremes on a lead day, in °C; 0 where too few issues were scored. */
export interface LeadCorrection {
  lead: number
  min: number
  max: number
}

/**
 * Corrections from the scores of past forecasts: the bias of a lead day and of those beside it, drawn towards 0 the fewer issues
 * there are.
 */
export function correctionsOf(scores: readonly LeadScore[]): LeadCorrection[] {
  return scores.map(({ lead, n }) => {
    const near = scores.filter((other) => Math.abs(other.lead - lead) <= NEIGHBOURING_LEADS)
    const total = near.reduce((sum, other) => sum + other.n, 0)
    const bias = (of: (score: LeadScore) => number): number => near.reduce((sum, other) => sum + of(other) * other.n, 0) / total
    const weight = n < LEAST_SCORED ? 0 : n / (n + SHRINKING)
    return { lead, min: weight * bias((s) => s.biasMin), max: weight * bias((s) => s.biasMax) }
  })
}

/** A day of a forecast with its correction taken off; a minimum never passes the maximum. */
export function correctedDay({ min, max }: DayExtremes, correction: LeadCorrection | undefined): DayExtremes {
  if (!correction) return { min, max }
  const low = min - correction.min
  const high = max - correction.max
  return low <= high ? { min: low, max: high } : { min: (low + high) / 2, max: (low + high) / 2 }
}
