import { requireFinite, requireWithin } from '../guards.js'

/**
 * Wet-bulb temperature in °C from air temperature in °C and relative humidity in % (Stull 2011), near sea-level pressure. The
 * fit was made for 5 to 99 % and −20 to 50 °C, where it is off by less than 1 °C; outside it is carried on and less sure.
 *
 * @throws RangeError for a non-finite temperature or humidity outside 0..100.
 * @example wetBulb(20, 50) // 13.7
 */
export function wetBulb(tempC: number, rhPct: number): number {
  requireFinite('tempC', tempC)
  requireWithin('rhPct', rhPct, 0, 100)
  return (
    tempC * Math.atan(0.151977 * Math.sqrt(rhPct + 8.313659)) +
    Math.atan(tempC + rhPct) -
    Math.atan(rhPct - 1.676331) +
    0.00391838 * rhPct ** 1.5 * Math.atan(0.023101 * rhPct) -
    4.686035
  )
}

/**
 * Delta T in °C, the wet-bulb depression that tells whether droplets survive the way to the leaf; never below 0. It holds where
 * `wetBulb` does.
 *
 * @throws RangeError as `wetBulb`.
 * @example deltaT(28, 40) // 9.177
 */
export function deltaT(tempC: number, rhPct: number): number {
  return Math.max(0, tempC - wetBulb(tempC, rhPct))
}
