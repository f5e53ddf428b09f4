import type { Organism, Threshold, Watch } from '@bocado/contract'
import { actionThreshold, isCrossed } from '@bocado/core'

export { isCrossed }

/** The threshold on which one decides of a watch today, by how far its crop is; null where none is known. */
export const thresholdOf = (watch: Pick<Watch, 'threshold'>, { sampling }: Pick<Organism, 'sampling'>): Threshold | null => {
  const { confidence, value } = sampling.threshold
  // What presence means is reckoned in the same numbers as classes.
  const kind = sampling.scale === 'presence' ? 'classes' : sampling.scale
  const own = watch.threshold?.scale === kind ? watch.threshold : null
  return actionThreshold(own ? (own.now?.per100 ?? own.per100) : null, {
    threshold: { value, confidence },
    serves: sampling.serves,
    eliminate: sampling.eliminate,
  })
}
