import type { Organism, OwnCountingPlan, Threshold } from '@bocado/contract'
import { countingPlan, strataOf, type CountedAgainst, type CountedPlace, type CountingPlan, type Stratum } from '@bocado/core'

export {
  byHeightOf,
  countingVerdict,
  countLeans,
  per100Of,
  spotTreatment,
  type CountedAgainst,
  type CountingPlan,
  type Stratum,
} from '@bocado/core'

/** How a count ends by a plan of the site's own. */
export function endsBy(plan: OwnCountingPlan | null): Pick<CountedAgainst, 'choice' | 'clumping'> {
  if (!plan) return {}
  const { clumping, ...choice } = plan
  return { choice, ...(clumping ? { clumping } : {}) }
}

/** What a count is held against. */
export const againstOf = (threshold: Threshold, sampling: Organism['sampling']): CountedAgainst => ({
  per100: threshold.per100,
  measure: sampling.measure,
  itemsPerUnit: sampling.itemsPerUnit,
  suggestedUnits: sampling.suggestedUnits,
  weights: sampling.classes.map(({ weight }) => weight),
  ...endsBy(sampling.rule?.plan ?? null),
})

/** The lines between which a count goes on; null where nothing is decided by it. */
export const planOf = (threshold: Threshold | null, sampling: Organism['sampling']): CountingPlan | null =>
  threshold && countingPlan(againstOf(threshold, sampling))

/** Edge and inside of a count by themselves, where both were counted. */
export const strataBy = (
  found: readonly number[],
  places: readonly CountedPlace[] | null,
  threshold: Threshold | null,
  sampling: Organism['sampling'],
): Stratum[] => (places && threshold ? strataOf(found, places, againstOf(threshold, sampling)) : [])
