import type { Organism, Threshold } from '@bocado/contract'
import { countingPlan, type CountedAgainst, type CountingPlan } from '@bocado/core'

export { countingVerdict, countLeans, type CountingPlan } from '@bocado/core'

/** What a count is held against. */
export const againstOf = (threshold: Threshold, sampling: Organism['sampling']): CountedAgainst => ({
  per100: threshold.per100,
  measure: sampling.measure,
  itemsPerUnit: sampling.itemsPerUnit,
  suggestedUnits: sampling.suggestedUnits,
  weights: sampling.classes.map(({ weight }) => weight),
})

/** The lines between which a count goes on; null where nothing is decided by it. */
export const planOf = (threshold: Threshold | null, sampling: Organism['sampling']): CountingPlan | null =>
  threshold && countingPlan(againstOf(threshold, sampling))
