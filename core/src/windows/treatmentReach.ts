import type { Ensemble } from '../phenology/ensemble.js'
import { reachOf, type ResolvedEvent } from '../phenology/model.js'
import type { Bounds } from '../statistics/quantile.js'
import type { CohortQuantile, TreatmentAction } from '../treatment/coverage.js'
import { reachableCohort, reachHeat } from './reachableCohort.js'
import { coverageForecast, TREATMENT_HOUR_OF_DAY } from './vulnerableWindow.js'

/** A generation as a treatment of certain stages meets it: one cohort for each draw of the season. */
export interface GenerationCohorts {
  generation: string
  cohorts: CohortQuantile[][]
}

/** Cohorts of each generation that has any of the stages, in the order of the generations. */
export function cohortsInReach(
  events: readonly ResolvedEvent[],
  generations: readonly string[],
  stages: readonly string[],
  { members, scores }: Pick<Ensemble, 'members' | 'scores'>,
): GenerationCohorts[] {
  return generations.flatMap((generation) => {
    const reach = reachOf(events, generation, stages)
    if (!reach) return []
    const heat = reachHeat(reach)
    return [{ generation, cohorts: members.map(({ cumulative }, m) => reachableCohort(heat, cumulative, scores[m] ?? 0)) }]
  })
}

/** What a treatment reaches of the generation that it reaches most of, with predictive bounds. */
export interface TreatmentReach {
  generation: string
  bounds: Bounds
}

/**
 * What a treatment on a day of the season reaches, of the generation that it reaches most of; undefined where it reaches none.
 *
 * @param action what it does on contact, and for how many days after
 */
export function treatmentReach(
  generations: readonly GenerationCohorts[],
  action: Pick<TreatmentAction, 'effect' | 'residualDays'>,
  dayIndex: number,
  ensemble: Pick<Ensemble, 'seasons' | 'openIndex'>,
): TreatmentReach | undefined {
  const treatment = { day: dayIndex + TREATMENT_HOUR_OF_DAY, effect: action.effect, residualDays: action.residualDays }
  return generations
    .map(({ generation, cohorts }) => ({ generation, bounds: coverageForecast(cohorts, [treatment], ensemble) }))
    .sort((a, b) => b.bounds.p50 - a.bounds.p50)[0]
}
