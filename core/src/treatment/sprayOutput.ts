import { requireAtLeast, requirePositive } from '../guards.js'

/**
 * Spray volume in L/ha that a boom delivers, 600·q/(v·s): nozzle flow in L/min, speed in km/h, nozzle spacing in m.
 * Dimensional identity: 600 turns L/min, km/h and m into L/ha.
 *
 * @throws RangeError for a negative flow, or a speed or spacing not above 0.
 * @example sprayOutput({ nozzleLitresPerMinute: 0.8, speedKmH: 6, spacingM: 0.5 }) // 160
 */
export function sprayOutput(p: { nozzleLitresPerMinute: number; speedKmH: number; spacingM: number }): number {
  requireAtLeast('p.nozzleLitresPerMinute', p.nozzleLitresPerMinute, 0)
  requirePositive('p.speedKmH', p.speedKmH)
  requirePositive('p.spacingM', p.spacingM)
  return (600 * p.nozzleLitresPerMinute) / (p.speedKmH * p.spacingM)
}
