import { requireFinite, requirePositive, requireWithin } from '../guards.js'

/** How day length sends a generation into diapause: half of it at `criticalHours`, all of it as days shorten further. */
export interface DiapauseModel {
  criticalHours: number
  /** Hours of day length over which the share goes from a quarter to three quarters, roughly 2.2 times the logistic's scale. */
  slope: number
}

/**
 * Share of the individuals that enter diapause when their sensitive stage lives through a day of this length: logistic, falling with
 * day length. The other share goes on to another generation.
 *
 * @throws RangeError for a day length outside 0..24 or a slope not above 0
 * @example shareInDiapause(13.5, { criticalHours: 14, slope: 0.5 }) // 0.9002
 */
export function shareInDiapause(dayLengthHours: number, model: DiapauseModel): number {
  requireWithin('dayLengthHours', dayLengthHours, 0, 24)
  requireFinite('model.criticalHours', model.criticalHours)
  requirePositive('model.slope', model.slope)
  const scale = model.slope / 2.2
  return 1 / (1 + Math.exp((dayLengthHours - model.criticalHours) / scale))
}
