import type { Organism, Threshold } from '@bocado/contract'
import { countingPlan, type CountingPlan } from '@bocado/core'

export { countingVerdict, countLeans, type CountingPlan } from '@bocado/core'

/** The lines between which a count goes on; null where nothing is decided by it. */
export const planOf = (threshold: Threshold | null, sampling: Organism['sampling']): CountingPlan | null =>
  threshold &&
  countingPlan({
    per100: threshold.per100,
    measure: sampling.measure,
    itemsPerUnit: sampling.itemsPerUnit,
    suggestedUnits: sampling.suggestedUnits,
    weights: sampling.classes.map(({ weight }) => weight),
  })
