import { requireWithin } from '../guards.js'

/** Share of the difference to the air that soil at 10 cm takes up in a day; from practice, hence always "estimated". */
export const SOIL_RESPONSE = { bare: 0.25, covered: 0.15 } as const
export type SoilCover = keyof typeof SOIL_RESPONSE

const START_DAYS = 10

/**
 * Soil temperature at 10 cm in °C, estimated from daily mean air temperatures in °C: it follows them with a lag, and starts at
 * the mean of the first ten known days. NaN where the air of that day is not known; the soil then keeps what it had.
 */
export function soilTemperature(means: ArrayLike<number>, cover: SoilCover): Float64Array {
  const result = new Float64Array(means.length).fill(NaN)
  let sum = 0
  let n = 0
  for (let i = 0; i < means.length && n < START_DAYS; i++) {
    if (Number.isNaN(means[i] as number)) continue
    sum += means[i] as number
    n++
  }
  let soil = n > 0 ? sum / n : NaN
  for (let i = 0; i < means.length; i++) {
    const air = means[i] as number
    if (Number.isNaN(air)) continue
    soil += SOIL_RESPONSE[cover] * (air - soil)
    result[i] = soil
  }
  return result
}

/** Soils by texture. */
export const soilTextures = ['sand', 'loamy-sand', 'sandy-loam', 'loam', 'silt-loam', 'clay-loam', 'clay'] as const
export type SoilTexture = (typeof soilTextures)[number]

/** Water that plants can use, mm per m of soil: middles of the ranges in Allen et al. 1998, table 19; from memory, approximate. */
const AVAILABLE_MM_PER_M: Readonly<Record<SoilTexture, number>> = {
  sand: 80,
  'loamy-sand': 90,
  'sandy-loam': 130,
  loam: 155,
  'silt-loam': 160,
  'clay-loam': 160,
  clay: 160,
}

/** Depth of the layers that are kept account of, in m. */
export const ROOT_ZONE_M = 0.5
export const SURFACE_M = 0.05

/**
 * Water in mm that a layer of soil holds for plants between wilting and field capacity.
 *
 * @example waterCapacity('loam', 0.5) // 77.5
 */
export function waterCapacity(texture: SoilTexture, depthM: number): number {
  requireWithin('depthM', depthM, 0.01, 3)
  return AVAILABLE_MM_PER_M[texture] * depthM
}
