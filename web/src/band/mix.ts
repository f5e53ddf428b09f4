import type { Product } from '@bocado/contract'
import {
  amountNeeded,
  canopyVolume,
  evenSpacing,
  intoTanks,
  leafWallArea,
  ratePartsOf,
  sprayOutput,
  usedOf,
  type Mix,
  type RateBasis,
} from '@bocado/core'

export type { Mix, RateBasis }

/** What somebody sprays with: L/ha of spray, and L in the tank; how many times less water than the label's dilution is made for. */
export interface Sprayer {
  sprayLPerHa: number
  tankL: number
  concentrate: number
}

/** What there is of that on which a rate rests, as far as somebody said: L of spray where it is not known by area, plants, rows in m. */
export interface Sized {
  areaHa: number | null
  sprayL: number | null
  plants: number | null
  rowM: number | null
  heightM: number | null
  widthM: number | null
  rowSpacingM: number | null
}

export const NOTHING_SIZED: Sized = {
  areaHa: null,
  sprayL: null,
  plants: null,
  rowM: null,
  heightM: null,
  widthM: null,
  rowSpacingM: null,
}

/** What is needed of a product, in that in which its rate is measured. */
export interface MixHere {
  product: number
  unit: string
  /** Into which tanks; null where it is not put out with water, or nobody said how much. */
  tanks: Mix | null
  /** Less water than its label asks for, L/ha; null where it is enough, or the label says nothing. */
  tooLittle: number | null
  /** Metres between pieces that are spread evenly; null for anything else. */
  apartM: number | null
}

const isSaid = (value: number | null | undefined): value is number => typeof value === 'number' && Number.isFinite(value) && value > 0

/** L of spray: on the area where that is said, else what somebody fills in. */
function sprayOf({ areaHa, sprayL }: Sized, sprayLPerHa: number | null): number | null {
  if (isSaid(areaHa) && isSaid(sprayLPerHa)) return areaHa * sprayLPerHa
  return isSaid(sprayL) ? sprayL : null
}

/** Which sizes a rate asks for. */
export const sizesOf = (basis: RateBasis): (keyof Sized)[] =>
  ({
    area: ['areaHa' as const],
    volume: ['areaHa' as const],
    percent: ['areaHa' as const],
    plant: ['plants' as const],
    row: ['rowM' as const],
    wall: ['areaHa' as const, 'heightM' as const, 'rowSpacingM' as const],
    canopy: ['areaHa' as const, 'heightM' as const, 'widthM' as const, 'rowSpacingM' as const],
  })[basis]

/**
 * What is needed, and what goes into the tanks.
 *
 * @param rate in the unit of the label
 * @returns null where it cannot be worked out: something is missing, or the rate lies above that of the label
 */
export function mixHere(
  { rateUnit, leastVolume }: Pick<Product, 'rateUnit' | 'leastVolume'>,
  p: { sized: Sized; rate: number | null; most: number; sprayer: { [K in keyof Sprayer]: number | null } },
): MixHere | null {
  const { sized, rate, most } = p
  const { sprayLPerHa, tankL, concentrate } = p.sprayer
  if (!isSaid(rate) || rate > most) return null
  const { basis, of, per } = ratePartsOf(rateUnit)
  const { areaHa, heightM, widthM, rowSpacingM } = sized
  const sprayL = sprayOf(sized, sprayLPerHa)
  const rows = isSaid(areaHa) && isSaid(heightM) && isSaid(rowSpacingM) ? { heightM, rowSpacingM, areaHa } : null
  const on = {
    areaHa,
    sprayL,
    plants: sized.plants,
    rowM: sized.rowM,
    wallM2: rows && leafWallArea(rows) * rows.areaHa,
    canopyM3: rows && isSaid(widthM) ? canopyVolume({ ...rows, widthM }) * rows.areaHa : null,
  }
  const product = amountNeeded(basis, basis === 'percent' ? rate : rate / per, on, isSaid(concentrate) ? concentrate : 1)
  if (product === null) return null
  const tanks = sprayL !== null && isSaid(tankL) ? intoTanks({ product, sprayL, tankL }) : null
  const byArea = isSaid(sprayLPerHa) && leastVolume !== null && sprayLPerHa < leastVolume
  return {
    product,
    unit: of,
    tanks,
    // A label of dilutions is made for so much water; what goes into less of it is the same on the ground.
    tooLittle: byArea && basis === 'area' ? leastVolume : null,
    apartM: of === 'pieces' && basis === 'area' ? evenSpacing(rate / per) : null,
  }
}

/**
 * L/ha of spray for the canopy of rows.
 *
 * @param litresPer100M3 of canopy, as the label or the sprayer's book has it
 * @returns null where something is missing
 */
export function sprayForCanopy({ heightM, widthM, rowSpacingM }: Sized, litresPer100M3: number | null): number | null {
  if (!isSaid(heightM) || !isSaid(widthM) || !isSaid(rowSpacingM) || !isSaid(litresPer100M3)) return null
  return (canopyVolume({ heightM, widthM, rowSpacingM }) * litresPer100M3) / 100
}

/** How far what a boom delivers lies from what is wanted, as a share of it; null where something is missing. */
export function outputOff(
  wanted: number | null,
  p: { nozzleLitresPerMinute: number | null; speedKmH: number | null; spacingM: number | null },
): { output: number; off: number } | null {
  const { nozzleLitresPerMinute: flow, speedKmH, spacingM } = p
  if (!isSaid(wanted) || !isSaid(flow) || !isSaid(speedKmH) || !isSaid(spacingM)) return null
  const output = sprayOutput({ nozzleLitresPerMinute: flow, speedKmH, spacingM })
  return { output, off: output / wanted - 1 }
}

export { usedOf }

/** In what a product is measured whose rate has this unit. */
export const amountUnit = (rateUnit: string): string => ratePartsOf(rateUnit).of

/** On what a label's rate rests. */
export const rateBasis = (unit: string): RateBasis => ratePartsOf(unit).basis
