import { requireAtLeast, requireFinite, requirePositive, requireWithin } from '../guards.js'

const SOLAR_CONSTANT = 0.082
/** Turns MJ m⁻² d⁻¹ into mm of water a day. */
const MM_PER_MJ = 0.408

/**
 * Radiation at the top of the atmosphere in MJ m⁻² d⁻¹ (Allen et al. 1998, eq. 21).
 *
 * @param latitude degrees north
 * @param dayOfYear 1 on 1 January
 * @example extraterrestrialRadiation(46.2, 165) // 41.81
 */
export function extraterrestrialRadiation(latitude: number, dayOfYear: number): number {
  requireWithin('latitude', latitude, -90, 90)
  requireWithin('dayOfYear', dayOfYear, 1, 366)
  const phi = (latitude * Math.PI) / 180
  const angle = (2 * Math.PI * dayOfYear) / 365
  const distance = 1 + 0.033 * Math.cos(angle)
  const declination = 0.409 * Math.sin(angle - 1.39)
  const sunset = Math.acos(Math.min(1, Math.max(-1, -Math.tan(phi) * Math.tan(declination))))
  const sines = sunset * Math.sin(phi) * Math.sin(declination)
  const cosines = Math.cos(phi) * Math.cos(declination) * Math.sin(sunset)
  return Math.max(0, ((24 * 60) / Math.PI) * SOLAR_CONSTANT * distance * (sines + cosines))
}

/**
 * Reference evapotranspiration in mm a day from daily extremes in °C (Hargreaves & Samani 1985); never below 0.
 *
 * @throws RangeError for a minimum above the maximum
 * @example referenceEvapotranspiration({ min: 12, max: 26 }, 46.2, 165) // 5.403
 */
export function referenceEvapotranspiration(day: { min: number; max: number }, latitude: number, dayOfYear: number): number {
  requireFinite('day.min', day.min)
  requireAtLeast('day.max', day.max, day.min)
  const mean = (day.min + day.max) / 2
  const radiation = extraterrestrialRadiation(latitude, dayOfYear) * MM_PER_MJ
  return Math.max(0, 0.0023 * radiation * (mean + 17.8) * Math.sqrt(day.max - day.min))
}

/** How full a layer of soil is at the end of each day. */
export interface Moisture {
  /** Share of the water that plants can use, 0..1; NaN before the first known day. */
  fill: Float64Array
  /** Days so far on which rain was not known, and taken as none. */
  unknownRain: Uint32Array
}

/**
 * A layer of soil as one bucket: rain fills it up to its capacity, evapotranspiration empties it in proportion to what is left.
 *
 * @param rain mm a day; NaN is not known
 * @param et0 mm a day of reference evapotranspiration; NaN is not known, and the bucket then keeps what it has
 * @param capacityMm mm the layer can hold
 * @param start share it holds before the first day
 */
export function moisture(rain: ArrayLike<number>, et0: ArrayLike<number>, capacityMm: number, start = 0.5): Moisture {
  requirePositive('capacityMm', capacityMm)
  requireWithin('start', start, 0, 1)
  const fill = new Float64Array(rain.length)
  const unknownRain = new Uint32Array(rain.length)
  let water = start * capacityMm
  let unknown = 0
  for (let i = 0; i < rain.length; i++) {
    const fallen = rain[i] as number
    if (Number.isNaN(fallen)) unknown++
    const lost = et0[i] ?? NaN
    water = Math.min(capacityMm, water + (Number.isNaN(fallen) ? 0 : fallen))
    if (!Number.isNaN(lost)) water = Math.max(0, water - lost * (water / capacityMm))
    fill[i] = water / capacityMm
    unknownRain[i] = unknown
  }
  return { fill, unknownRain }
}
