import type { Scale, Threshold, Watch } from '@bocado/contract'
import { actionThreshold, dayNumber, thresholdAtStage, type StageOnTheWay } from '@bocado/core'
import type { Organism } from '@bocado/library'
import { stagesInBlocks, type Reading } from '../crops/service.js'

type Own = NonNullable<Watch['threshold']>

/** The site's own threshold as it holds on a day by how far the crop is. */
export function ownOn(own: Own, stages: readonly StageOnTheWay[], day: string): NonNullable<Own['now']> {
  const { per100, stage, sure } = thresholdAtStage(own, stages, dayNumber(day))
  return { per100, stage: own.steps.find(({ from }) => from === stage)?.from ?? null, sure }
}

/** Watches with the own thresholds of a day. The calendar of crops is only looked at where one of them changes with it. */
export async function withThresholdsOn<W extends Watch>(
  deps: Reading,
  siteId: string,
  season: string,
  watches: readonly W[],
  day: string,
): Promise<W[]> {
  const isStepped = watches.some(({ threshold }) => threshold && threshold.steps.length > 0)
  const stagesOf = isStepped ? await stagesInBlocks(deps, siteId, season) : () => []
  return watches.map((watch) => {
    const { threshold, blockId } = watch
    return threshold ? { ...watch, threshold: { ...threshold, now: ownOn(threshold, stagesOf(blockId), day) } } : watch
  })
}

/** What is counted by degrees of damage has no threshold but the site's own. */
export const countedBy = ({ threshold, serves, eliminate }: Organism['sampling'], scale: Scale) => ({
  threshold: scale === 'degrees' ? { ...threshold, confidence: 'placeholder' as const } : threshold,
  serves,
  eliminate,
})

/** The threshold on which one decides on a day by a count of one kind of class; null where none is known. */
export function thresholdBy(own: Own | null, sampling: Organism['sampling'], scale: Scale): Threshold | null {
  // What presence means is reckoned in the same numbers as classes.
  const kind = scale === 'presence' ? 'classes' : scale
  const per100 = own?.scale === kind ? (own.now?.per100 ?? own.per100) : null
  return actionThreshold(per100, countedBy(sampling, scale))
}
