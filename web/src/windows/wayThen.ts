import type { TreatmentReach } from '../band/treatmentCoverage.js'
import type { Offered } from './useShelfFor.js'

/** A way to act, and what it reaches on the day that is thought about. */
export interface WayThen {
  offer: Offered<'fits'> | Offered<'doubtful'>
  /** Of the generation that is in question. */
  reached: TreatmentReach | undefined
  /** It reaches none of that on this day, but another generation. */
  other?: TreatmentReach | undefined
}
