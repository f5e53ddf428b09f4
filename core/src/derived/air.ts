import { requireAtLeast, requireFinite, requireWithin } from '../guards.js'

/** Magnus coefficients over water (Alduchov & Eskridge 1996). */
const A = 17.625
const B = 243.04
const HPA_AT_ZERO = 6.1094

/** Below this an instrument's humidity says nothing, and the logarithm of 0 nothing either. */
const LEAST_HUMIDITY = 0.1

/**
 * Saturation vapour pressure in hPa at a temperature in °C, by the Magnus form (Alduchov & Eskridge 1996), over water:
 * within 0.4 % from −40 to 50 °C.
 *
 * @example saturationPressure(20) // 23.33
 */
export function saturationPressure(tempC: number): number {
  requireAtLeast('tempC', tempC, -100)
  return HPA_AT_ZERO * Math.exp((A * tempC) / (tempC + B))
}

/**
 * Dew point in °C from °C and relative humidity in % (Magnus; Alduchov & Eskridge 1996). A humidity under 0.1 % is taken as 0.1.
 *
 * @throws RangeError for a non-finite temperature or humidity outside 0..100.
 * @example dewPoint(20, 60) // 12
 */
export function dewPoint(tempC: number, rhPct: number): number {
  requireFinite('tempC', tempC)
  requireWithin('rhPct', rhPct, 0, 100)
  const gamma = Math.log(Math.max(LEAST_HUMIDITY, rhPct) / 100) + (A * tempC) / (B + tempC)
  return (B * gamma) / (A - gamma)
}

/**
 * Vapour pressure deficit in hPa: what the air could still take up (Magnus; Alduchov & Eskridge 1996).
 *
 * @throws RangeError as `dewPoint`.
 * @example vapourPressureDeficit(25, 50) // 15.81
 */
export function vapourPressureDeficit(tempC: number, rhPct: number): number {
  requireWithin('rhPct', rhPct, 0, 100)
  return saturationPressure(tempC) * (1 - rhPct / 100)
}

/**
 * Wind at 2 m from wind read at another height over short grass (Allen et al. 1998, eq. 47).
 *
 * @param windMs m/s at `heightM`
 * @param heightM m above ground; from 0.5
 * @example windAtTwoMetres(4, 10) // 2.992
 */
export function windAtTwoMetres(windMs: number, heightM: number): number {
  requireAtLeast('windMs', windMs, 0)
  requireAtLeast('heightM', heightM, 0.5)
  return heightM === 2 ? windMs : (windMs * 4.87) / Math.log(67.8 * heightM - 5.42)
}
