import type { Bounds } from '../statistics/quantile.js'
import { boundsOfDates, boundsOfShares, FEW_SEASONS_DAYS, notBefore, type Ensemble } from '../phenology/ensemble.js'
import { coverage, type CohortQuantile, type TreatmentAction } from '../treatment/coverage.js'
import { NEVER, reachableCohort, type ReachHeat } from './reachableCohort.js'

/** A treatment given on a day acts from the middle of that day. */
export const TREATMENT_HOUR_OF_DAY = 0.5

/** A window counts as open while coverage is at least this share of the best that one treatment can reach. */
export const OPEN_SHARE_OF_BEST = 0.8

/** Below this best coverage a single treatment from outside is no use: poorly reachable. */
export const POORLY_REACHABLE_BELOW = 0.3

/** One member's window, in days of the season. Infinity where it does not come in this season. */
export interface MemberWindow {
  opens: number
  closes: number
  bestDay: number
  best: number
}

/** The first day whose treatment comes at or after a moment. */
const firstMomentFrom = (moment: number): number => Math.max(0, Math.ceil(moment - TREATMENT_HOUR_OF_DAY))

/**
 * Window of one cohort for a contact treatment of effect 1: the run of days around the best one on which it reaches at
 * least 80 % of that best.
 */
export function contactWindow(cohort: readonly CohortQuantile[], days: number): MemberWindow {
  // How many enter and leave before each day's moment; their running difference is how many are inside.
  const change = new Int32Array(days + 1)
  for (const { enter, exit } of cohort) {
    const first = firstMomentFrom(enter)
    const last = firstMomentFrom(exit)
    if (first >= days || last <= first) continue
    change[first] = (change[first] as number) + 1
    if (last <= days) change[last] = (change[last] as number) - 1
  }
  let bestDay = -1
  let best = 0
  let inside = 0
  const reached = new Float64Array(days)
  for (let day = 0; day < days; day++) {
    inside += change[day] as number
    const share = inside / cohort.length
    reached[day] = share
    if (share > best) {
      best = share
      bestDay = day
    }
  }
  if (bestDay < 0) return { opens: Infinity, closes: Infinity, bestDay: Infinity, best: 0 }
  let opens = bestDay
  let closes = bestDay
  while (opens > 0 && (reached[opens - 1] as number) >= OPEN_SHARE_OF_BEST * best) opens--
  while (closes < days - 1 && (reached[closes + 1] as number) >= OPEN_SHARE_OF_BEST * best) closes++
  return { opens, closes, bestDay, best }
}

/** A window over all members: bounds of its dates (days of the season) and of the best coverage one treatment reaches. */
export interface WindowForecast {
  opens: Bounds
  closes: Bounds
  bestDay: Bounds
  best: Bounds
}

/** The best of a window hardly differs from season to season; by so much where few tell of it (from practice). */
const BEST_BETWEEN_SD = 0.05

/**
 * The vulnerable window of one reach over an ensemble, with predictive bounds: it never closes before it opens, at any percentile.
 *
 * @param residualDays days for which what was put on goes on acting: who enters within them is reached as well
 * @param lastDays for each draw the day on which its season ends by something else than heat: nothing can be reached from there on
 */
export function windowForecast(
  ensemble: Ensemble,
  heat: ReachHeat,
  days: number,
  residualDays = 0,
  lastDays: readonly number[] = [],
): WindowForecast {
  const windows = ensemble.members.map(({ cumulative }, m) => {
    const cohort = reachableCohort(heat, cumulative, ensemble.scores[m] ?? 0)
    const met = residualDays === 0 ? cohort : cohort.map(({ enter, exit }) => ({ enter: enter - residualDays, exit }))
    return contactWindow(met, Math.max(0, Math.min(days, Math.floor(lastDays[m] ?? days))))
  })
  const opens = boundsOfDates(
    windows.map((window) => window.opens),
    ensemble,
  )
  return {
    opens,
    closes: notBefore(
      opens,
      boundsOfDates(
        windows.map((window) => window.closes),
        ensemble,
      ),
    ),
    bestDay: boundsOfDates(
      windows.map((window) => window.bestDay),
      ensemble,
    ),
    best: boundsOfShares(
      windows.map((window) => window.best),
      ensemble,
      BEST_BETWEEN_SD,
    ),
  }
}

/**
 * What one or more treatments reach, with predictive bounds; shares 0..1.
 *
 * @param cohorts one for each draw of the ensemble, in its order
 */
export function coverageForecast(
  cohorts: readonly (readonly CohortQuantile[])[],
  treatments: readonly TreatmentAction[],
  ensemble: Pick<Ensemble, 'seasons' | 'openIndex'>,
): Bounds {
  const reached = cohorts.map((cohort) => coverage(cohort, treatments))
  return boundsOfShares(reached, ensemble, fewSeasonsSd(cohorts, treatments, ensemble))
}

/** How far coverage may differ where few seasons tell of it: as much as a week earlier or later makes. 0 where enough do, or all is over. */
function fewSeasonsSd(
  cohorts: readonly (readonly CohortQuantile[])[],
  treatments: readonly TreatmentAction[],
  { seasons, openIndex }: Pick<Ensemble, 'seasons' | 'openIndex'>,
): number {
  const last = Math.max(...treatments.map(({ day, residualDays }) => day + residualDays))
  if (seasons >= LEAST_SEASONS || last < openIndex) return 0
  const mean = (days: number): number => {
    const moved = treatments.map((treatment) => ({ ...treatment, day: treatment.day + days }))
    return cohorts.reduce((sum, cohort) => sum + coverage(cohort, moved), 0) / cohorts.length
  }
  const now = mean(0)
  return Math.max(Math.abs(mean(FEW_SEASONS_DAYS) - now), Math.abs(mean(-FEW_SEASONS_DAYS) - now))
}

const LEAST_SEASONS = 5

/** Where a window stands on a given day. */
export type WindowState = 'coming' | 'open' | 'closing' | 'past' | 'poorly-reachable' | 'not-this-season'

/** Days before the median close from which a window is said to be closing. */
export const CLOSING_DAYS = 3

/** State of a window on a day of the season. */
export function windowState(window: WindowForecast, todayIndex: number): WindowState {
  if (window.opens.p50 >= NEVER || window.best.p50 === 0) return 'not-this-season'
  if (window.closes.p50 < todayIndex) return 'past'
  if (window.best.p50 < POORLY_REACHABLE_BELOW) return 'poorly-reachable'
  if (window.opens.p50 > todayIndex) return 'coming'
  return window.closes.p50 - todayIndex <= CLOSING_DAYS ? 'closing' : 'open'
}
