import type { Product, WatchForecast } from '@bocado/contract'
import {
  coverageForecast,
  reachableCohort,
  reachHeat,
  reachOf,
  TREATMENT_HOUR_OF_DAY,
  type Bounds,
  type CohortQuantile,
  type Ensemble,
} from '@bocado/core'
import { ensembleOf } from './streams.js'

/** What a product does, as far as coverage goes; a bare contact treatment stands for the window itself. */
export type Action = Pick<Product, 'stages' | 'effect' | 'residualDays'>

interface GenerationCohorts {
  generation: string
  /** One cohort for each draw of the season. */
  cohorts: CohortQuantile[][]
  ensemble: Ensemble
}

/** Cohorts of each generation that a product can reach: those of its stages that anything outside reaches at all. */
export function cohortsFor(forecast: WatchForecast, action: Action): GenerationCohorts[] {
  const open = forecast.stages.filter(({ id, reachable }) => reachable && action.stages.includes(id)).map(({ id }) => id)
  return forecast.generations.flatMap(({ id }) => {
    const reach = reachOf(forecast.events, id, open)
    if (!reach) return []
    const heat = reachHeat(reach)
    const ensemble = ensembleOf(forecast)
    return [
      {
        generation: id,
        cohorts: ensemble.members.map(({ cumulative }, m) => reachableCohort(heat, cumulative, ensemble.scores[m] ?? 0)),
        ensemble,
      },
    ]
  })
}

export interface DayCoverage {
  generation: string
  bounds: Bounds
}

/** What a treatment on a day of the season reaches, of the generation that it reaches most of. */
export function coverageOn(generations: readonly GenerationCohorts[], action: Action, dayIndex: number): DayCoverage | undefined {
  const treatment = { day: dayIndex + TREATMENT_HOUR_OF_DAY, effect: action.effect, residualDays: action.residualDays }
  return generations
    .map(({ generation, cohorts, ensemble }) => ({ generation, bounds: coverageForecast(cohorts, [treatment], ensemble) }))
    .sort((a, b) => b.bounds.p50 - a.bounds.p50)[0]
}
