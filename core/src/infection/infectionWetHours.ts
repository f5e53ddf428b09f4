import { requireAtLeast, requireFinite } from '../guards.js'
import { betaResponse } from '../heat/curvedRates.js'

/**
 * Hours of leaf wetness needed for infection at a temperature in °C, `Infinity` where none is possible: at or outside
 * tmin and tmax, or where more than `wmax` hours would be needed (general foliar model; Magarey, Sutton & Russo 2005).
 *
 * @throws RangeError for non-finite numbers, negative hours, or temperatures not in the order tmin < topt < tmax.
 * @example infectionWetHours(15, { tmin: 1, topt: 20, tmax: 35, wmin: 5, wmax: 40 }) // 5.521
 */
export function infectionWetHours(tempC: number, p: { tmin: number; topt: number; tmax: number; wmin: number; wmax: number }): number {
  requireFinite('tempC', tempC)
  requireAtLeast('p.wmin', p.wmin, 0)
  requireAtLeast('p.wmax', p.wmax, 0)
  const response = betaResponse(tempC, p)
  if (response === 0) return Infinity
  const hours = p.wmin / response
  return hours > p.wmax ? Infinity : hours
}
