/** Whose threshold it is: the site's own, the library's, or that of what is to go altogether: one is enough. */
export type ThresholdFrom = 'own' | 'library' | 'every-one'

/** A number on which one decides, per hundred items. */
export interface ActionThreshold {
  per100: number
  from: ThresholdFrom
}

/** What an entry knows of the count on which one decides. */
export interface CountedFor {
  threshold: { value: number; confidence: 'established' | 'approximate' | 'placeholder' }
  /** A count of damage comes too late to decide on. */
  serves: 'decision' | 'outcome'
  eliminate: boolean
}

/**
 * The threshold on which one decides; null where there is none: a placeholder decides nothing, nor does a count that comes too late. What the
 * site wrote itself always stands.
 *
 * @example actionThreshold(null, { threshold: { value: 20, confidence: 'placeholder' }, serves: 'decision', eliminate: false }) // null
 */
export function actionThreshold(own: number | null, { threshold, serves, eliminate }: CountedFor): ActionThreshold | null {
  if (own !== null) return { per100: own, from: 'own' }
  if (eliminate) return { per100: 0, from: 'every-one' }
  if (serves === 'outcome' || threshold.confidence === 'placeholder') return null
  return { per100: threshold.value, from: 'library' }
}

/** Whether a count is over its threshold; false where there is none. Of what is to go altogether one is enough. */
export const isCrossed = (per100: number, threshold: ActionThreshold | null): boolean =>
  threshold !== null && (threshold.from === 'every-one' ? per100 > 0 : per100 >= threshold.per100)
