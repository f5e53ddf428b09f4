import { predictiveBounds, predictiveShare, predictiveShareBounds } from '../statistics/predictive.js'
import type { Bounds } from '../statistics/quantile.js'
import { seededRandom, type Random } from '../statistics/random.js'
import { drawScores, seasonBySeason } from '../weather/draws.js'
import type { HeatMember, SeasonHeat } from '../weather/seasonHeat.js'

/** How a season may go: its draws, and the score that each gives to uncertain figures. */
export interface Ensemble {
  /** Draw-major, as `seasonHeat` gives them. */
  members: readonly HeatMember[]
  /** One standard score for each of them, from `drawScores`. */
  scores: readonly number[]
  /** Seasons that they come from; 1 where no past season continues the present one. */
  seasons: number
  /** First day that is not observed. */
  openIndex: number
}

/** One seed for all: the same weather gives the same forecast, whoever asks. */
const SCORE_SEED = 1969

/** A season's heat with the scores of its draws; the same for the same weather, unless another source of chance is given. */
export const ensembleOf = (
  { members, seasons, openIndex }: Pick<SeasonHeat, 'members' | 'seasons' | 'openIndex'>,
  random: Random = seededRandom(SCORE_SEED),
): Ensemble => ({ members, seasons, openIndex, scores: drawScores(members.length / seasons, seasons, random) })

/** What is already observed differs between seasons by nothing. */
const DECIDED = { sd: 1e-9, df: 4 } as const
/** With few seasons a share may be as different as seven days make it. */
export const FEW_SEASONS_DAYS = 7

/** Whether all of these dates lie in days that were observed: then no other season's weather can move them. */
const isDecided = (dates: readonly number[], { openIndex }: Pick<Ensemble, 'openIndex'>): boolean => dates.every((date) => date < openIndex)

/** Predictive bounds of a date over an ensemble, one date for each draw; Infinity where it does not come. */
export function boundsOfDates(dates: readonly number[], e: Pick<Ensemble, 'seasons' | 'openIndex'>): Bounds {
  return predictiveBounds(seasonBySeason(dates, e.seasons), ...(isDecided(dates, e) ? [DECIDED] : []))
}

/** Probability that a date has come by the end of a day of the season; the distribution is that of `boundsOfDates`. */
export function probabilityBy(dates: readonly number[], dayIndex: number, e: Pick<Ensemble, 'seasons' | 'openIndex'>): number {
  if (dates.length === 0) return 0
  return predictiveShare(seasonBySeason(dates, e.seasons), dayIndex + 1, ...(isDecided(dates, e) ? [DECIDED] : []))
}

/**
 * Predictive bounds of a share over an ensemble, one value for each draw.
 *
 * @param betweenSd how far it may differ between seasons where few tell of it
 */
export function boundsOfShares(values: readonly number[], e: Pick<Ensemble, 'seasons'>, betweenSd: number): Bounds {
  const first = values[0]
  if (first !== undefined && betweenSd === 0 && values.every((value) => value === first)) return { p10: first, p50: first, p90: first }
  return predictiveShareBounds(seasonBySeason(values, e.seasons), { sd: Math.max(1e-9, betweenSd), df: 4 })
}

/** Bounds of which none lies before the one of the same percentile in `before`. */
export const notBefore = (before: Bounds, b: Bounds): Bounds => ({
  p10: Math.max(before.p10, b.p10),
  p50: Math.max(before.p50, b.p50),
  p90: Math.max(before.p90, b.p90),
})
