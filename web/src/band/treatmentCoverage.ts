import type { Product, WatchForecast } from '@bocado/contract'
import {
  cohortsInReach,
  costOfWaiting,
  coverageForecast,
  TREATMENT_HOUR_OF_DAY,
  treatmentReach,
  type Bounds,
  type CostOfWaiting,
  type Ensemble,
  type GenerationCohorts,
  type TreatmentReach,
} from '@bocado/core'
import { ensembleOf } from './streams.js'

export type { CostOfWaiting, TreatmentReach }

/** What a product does, as far as coverage goes: the stages that it reaches, by its label and the library. */
export type Action = Pick<Product, 'effect' | 'residualDays'> & { stages: readonly string[] }

/** Cohorts of a watch that a product can reach, over the draws of its season. */
export interface ReachedCohorts {
  generations: GenerationCohorts[]
  ensemble: Ensemble
}

/** Cohorts of each generation that has a stage which it reaches. */
export function cohortsFor(forecast: WatchForecast, action: Action): ReachedCohorts {
  const ensemble = ensembleOf(forecast)
  const generations = cohortsInReach(
    forecast.events,
    forecast.generations.map(({ id }) => id),
    action.stages,
    ensemble,
  )
  return { generations, ensemble }
}

/** What a treatment on a day of the season reaches, of the generation that it reaches most of. */
export const coverageOn = ({ generations, ensemble }: ReachedCohorts, action: Action, dayIndex: number): TreatmentReach | undefined =>
  treatmentReach(generations, action, dayIndex, ensemble)

/** How much less a treatment reaches a day later, of the generation that it reaches most of on that day; undefined where it reaches none. */
export function waitingADay(
  reached: ReachedCohorts,
  action: Action,
  { generation }: TreatmentReach,
  dayIndex: number,
): CostOfWaiting | undefined {
  const cohorts = reached.generations.find((one) => one.generation === generation)
  return cohorts && costOfWaiting(cohorts, action, dayIndex, [1])[0]
}

/** What treatments on several days of the season together reach of a generation, with predictive bounds. */
export function reachedBySeveral(
  { generations, ensemble }: ReachedCohorts,
  { effect, residualDays }: Action,
  generation: string,
  days: readonly number[],
): Bounds | undefined {
  const own = generations.find((one) => one.generation === generation)
  const treatments = days.map((day) => ({ day: day + TREATMENT_HOUR_OF_DAY, effect, residualDays }))
  return own && coverageForecast(own.cohorts, treatments, ensemble)
}
