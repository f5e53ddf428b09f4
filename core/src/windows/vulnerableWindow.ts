import type { HeatMember } from '../weather/seasonHeat.js'
import { bounds, type Bounds } from '../statistics/quantile.js'
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

/** The vulnerable window of one reach over all members; `scores` as from `stratifiedScores`, one per member. */
export function windowForecast(members: readonly HeatMember[], scores: readonly number[], heat: ReachHeat, days: number): WindowForecast {
  const windows = members.map(({ cumulative }, m) => contactWindow(reachableCohort(heat, cumulative, scores[m] ?? 0), days))
  return {
    opens: bounds(windows.map(({ opens }) => opens)),
    closes: bounds(windows.map(({ closes }) => closes)),
    bestDay: bounds(windows.map(({ bestDay }) => bestDay)),
    best: bounds(windows.map(({ best }) => best)),
  }
}

/** What one or more treatments reach, over all members: days of the season, shares 0..1. */
export function coverageForecast(cohorts: readonly (readonly CohortQuantile[])[], treatments: readonly TreatmentAction[]): Bounds {
  return bounds(cohorts.map((cohort) => coverage(cohort, treatments)))
}

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
