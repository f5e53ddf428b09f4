import { requireWithin } from '../guards.js'
import type { SoilTexture } from '../derived/soil.js'

/**
 * Campbell's curve by texture: air-entry potential in kPa, exponent b, saturated content in m³/m³ (Campbell 1974; values of Clapp &
 * Hornberger 1978, from memory, approximate).
 */
const CURVES: Readonly<Record<SoilTexture, { entry: number; b: number; saturated: number }>> = {
  sand: { entry: -1.2, b: 4.05, saturated: 0.395 },
  'loamy-sand': { entry: -0.9, b: 4.38, saturated: 0.41 },
  'sandy-loam': { entry: -2.1, b: 4.9, saturated: 0.435 },
  loam: { entry: -4.7, b: 5.39, saturated: 0.451 },
  'silt-loam': { entry: -7.7, b: 5.3, saturated: 0.485 },
  'clay-loam': { entry: -6.2, b: 8.52, saturated: 0.476 },
  clay: { entry: -4, b: 11.4, saturated: 0.482 },
}

const WILTING_KPA = -1500
const FIELD_CAPACITY_KPA = -33

const contentAt = (kPa: number, { entry, b, saturated }: (typeof CURVES)[SoilTexture]): number => saturated * (kPa / entry) ** (-1 / b)

/**
 * Water potential in MPa of soil that is filled to a share of what plants can use, from wilting point (−1.5 MPa) to field capacity
 * (−0.033 MPa) (Campbell 1974).
 *
 * @throws RangeError for a share outside 0..1
 * @example waterPotential(0.5, 'loam') // -0.1598
 */
export function waterPotential(fill: number, texture: SoilTexture): number {
  requireWithin('fill', fill, 0, 1)
  const curve = CURVES[texture]
  const dry = contentAt(WILTING_KPA, curve)
  const wet = contentAt(FIELD_CAPACITY_KPA, curve)
  const content = dry + fill * (wet - dry)
  return (curve.entry * (content / curve.saturated) ** -curve.b) / 1000
}
