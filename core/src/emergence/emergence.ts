import { requireFinite, requireOrder } from '../guards.js'

/**
 * How weed seedlings' time is counted, each day from soil temperature in °C at seed depth and water potential in MPa. Growth counts
 * from `base` up to `optimum`; `waterBase` is the potential below which no seed germinates.
 */
export type EmergenceClock =
  | { kind: 'thermal'; base: number; optimum: number }
  /** °C·d counted on days with water above the base (Roman, Murphy & Swanton 2000). */
  | { kind: 'hydrothermal-threshold'; base: number; optimum: number; waterBase: number }
  /** MPa·°C·d: the product of warmth and water above their bases (Gummerson 1986; Bradford 2002). */
  | { kind: 'hydrothermal-product'; base: number; optimum: number; waterBase: number }

/**
 * What one day adds, in °C·d or MPa·°C·d; 0 where water is not known and the clock needs it.
 *
 * @throws RangeError for a soil temperature that is not finite, or `base` not below `optimum`
 * @example emergenceTime(15, -0.2, { kind: 'hydrothermal-product', base: 4, optimum: 28, waterBase: -0.8 }) // 6.6
 */
export function emergenceTime(soilC: number, waterMPa: number, clock: EmergenceClock): number {
  requireFinite('soilC', soilC)
  requireOrder('clock.base', clock.base, 'clock.optimum', clock.optimum)
  const warmth = Math.max(0, Math.min(soilC, clock.optimum) - clock.base)
  if (clock.kind === 'thermal') return warmth
  if (Number.isNaN(waterMPa) || waterMPa <= clock.waterBase) return 0
  return clock.kind === 'hydrothermal-threshold' ? warmth : warmth * (waterMPa - clock.waterBase)
}
