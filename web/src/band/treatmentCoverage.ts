import type { Product, WatchForecast } from '@bocado/contract'
import { cohortsInReach, treatmentReach, type Ensemble, type GenerationCohorts, type TreatmentReach } from '@bocado/core'
import { ensembleOf } from './streams.js'

export type { TreatmentReach }

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
