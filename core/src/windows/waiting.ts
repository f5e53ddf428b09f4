import { bounds, type Bounds } from '../statistics/quantile.js'
import { coverage, type TreatmentAction } from '../treatment/coverage.js'
import type { GenerationCohorts } from './treatmentReach.js'
import { TREATMENT_HOUR_OF_DAY } from './vulnerableWindow.js'

/** What a treatment loses, or gains, by some days more of waiting: shares of the generation, 0 to 1; below 0 it gains. */
export interface CostOfWaiting {
  days: number
  lost: Bounds
}

/**
 * What waiting costs: how much less a treatment reaches of a generation some days later than on a day. It is told draw by draw, so that a
 * season that is late is late for both days; the bounds are those of the draws.
 *
 * @param dayIndex day of the season
 * @param waits days of waiting, each at least 1
 * @example
 * costOfWaiting({ generation: 'first', cohorts: [[{ enter: 10, exit: 12 }]] }, { effect: 0.8, residualDays: 0 }, 11, [1])
 * // [{ days: 1, lost: { p10: 0.8, p50: 0.8, p90: 0.8 } }]
 */
export function costOfWaiting(
  { cohorts }: GenerationCohorts,
  { effect, residualDays }: Pick<TreatmentAction, 'effect' | 'residualDays'>,
  dayIndex: number,
  waits: readonly number[],
): CostOfWaiting[] {
  const on = (day: number): number[] =>
    cohorts.map((cohort) => coverage(cohort, [{ day: day + TREATMENT_HOUR_OF_DAY, effect, residualDays }]))
  const now = on(dayIndex)
  return waits.map((days) => {
    const then = on(dayIndex + days)
    return { days, lost: bounds(now.map((reached, m) => reached - then[m]!)) }
  })
}
