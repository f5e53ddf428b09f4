import type { Product } from '@bocado/contract'
import { mixForArea, sprayOutput, type Mix } from '@bocado/core'
import { acresFromHectares, squareMetresFromHectares } from '../design/units.js'

export type { Mix }

/** What somebody sprays with: L/ha of spray, and L in the tank. */
export interface Sprayer {
  sprayLPerHa: number
  tankL: number
}

/** What is mixed of a product on an area, in the unit of its label. */
export interface MixHere extends Mix {
  unit: string
  /** Less water than its label asks for, L/ha; null where it is enough, or the label says nothing. */
  tooLittle: number | null
}

/** Areas of rates, per hectare. */
const PER_HA: Readonly<Record<string, number>> = { ha: 1, acre: acresFromHectares(1), 'm²': squareMetresFromHectares(1) }

/**
 * What goes into the tanks.
 *
 * @param rate in the unit of the label
 * @returns null where it cannot be worked out: something is missing, or the rate lies above that of the label
 */
export function mixHere(
  { rateUnit, leastVolume }: Pick<Product, 'rateUnit' | 'leastVolume'>,
  p: { areaHa: number | null; rate: number | null; most: number; sprayer: { [K in keyof Sprayer]: number | null } },
): MixHere | null {
  const { areaHa, rate, most } = p
  const { sprayLPerHa, tankL } = p.sprayer
  const given = [areaHa, rate, sprayLPerHa, tankL]
  if (given.some((value) => value === null || !Number.isFinite(value) || value <= 0) || (rate as number) > most) return null
  const [unit = '', per = 'ha'] = rateUnit.split('/')
  const ratePerHa = (rate as number) * (PER_HA[per] ?? 1)
  const mix = mixForArea({ areaHa: areaHa as number, ratePerHa, sprayLPerHa: sprayLPerHa as number, tankL: tankL as number })
  return { ...mix, unit, tooLittle: leastVolume !== null && (sprayLPerHa as number) < leastVolume ? leastVolume : null }
}

/** How far what a boom delivers lies from what is wanted, as a share of it; null where something is missing. */
export function outputOff(
  wanted: number | null,
  p: { nozzleLitresPerMinute: number | null; speedKmH: number | null; spacingM: number | null },
): { output: number; off: number } | null {
  const { nozzleLitresPerMinute: flow, speedKmH, spacingM } = p
  if (![wanted, flow, speedKmH, spacingM].every((value) => value !== null && Number.isFinite(value) && value > 0)) return null
  const output = sprayOutput({ nozzleLitresPerMinute: flow as number, speedKmH: speedKmH as number, spacingM: spacingM as number })
  return { output, off: output / (wanted as number) - 1 }
}
