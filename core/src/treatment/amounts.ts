import { requirePositive } from '../guards.js'

const SQUARE_METRES_PER_HECTARE = 10_000
const PERCENT = 100

/**
 * On what a label's rate rests: ground, spray, a share of the spray, plants, metres of row, the wall of leaves on both sides of the rows, or the
 * space that the canopy fills.
 */
export const rateBases = ['area', 'volume', 'percent', 'plant', 'row', 'wall', 'canopy'] as const
export type RateBasis = (typeof rateBases)[number]

/** Rows of trees, vines or canes, in m. */
export interface Rows {
  heightM: number
  rowSpacingM: number
}

/**
 * Space that the canopy of rows fills, m³/ha: height × width × 10,000 / distance of rows.
 *
 * @throws RangeError for anything that is not above 0
 * @example canopyVolume({ heightM: 3, widthM: 1.5, rowSpacingM: 4.5 }) // 10000
 */
export function canopyVolume({ heightM, widthM, rowSpacingM }: Rows & { widthM: number }): number {
  requirePositive('heightM', heightM)
  requirePositive('widthM', widthM)
  requirePositive('rowSpacingM', rowSpacingM)
  return (heightM * widthM * SQUARE_METRES_PER_HECTARE) / rowSpacingM
}

/**
 * Wall of leaves on both sides of rows, m²/ha: 2 × height × 10,000 / distance of rows.
 *
 * @throws RangeError for anything that is not above 0
 * @example leafWallArea({ heightM: 2, rowSpacingM: 2.5 }) // 16000
 */
export function leafWallArea({ heightM, rowSpacingM }: Rows): number {
  requirePositive('heightM', heightM)
  requirePositive('rowSpacingM', rowSpacingM)
  return (2 * heightM * SQUARE_METRES_PER_HECTARE) / rowSpacingM
}

/** Metres of row on a hectare. */
export function rowLength(rowSpacingM: number): number {
  requirePositive('rowSpacingM', rowSpacingM)
  return SQUARE_METRES_PER_HECTARE / rowSpacingM
}

/** How much there is of what a rate rests on; null where nobody said. */
export interface Ground {
  areaHa: number | null
  sprayL: number | null
  plants: number | null
  rowM: number | null
  /** m² of leaf wall on the whole of it. */
  wallM2: number | null
  /** m³ of canopy on the whole of it. */
  canopyM3: number | null
}

const has = (value: number | null): value is number => value !== null && Number.isFinite(value) && value > 0

/**
 * How much of a product is needed.
 *
 * @param rate of the label, per ha, per L of spray, in per cent of it, per plant, per m of row, per m² of wall, or per m³ of canopy
 * @param concentrate how many times less water is used than the label's dilution is made for: what it gives per volume is taken so many times
 * @returns in the unit of the product (L where the rate is a share of the spray); null where that on which the rate rests is not known
 * @throws RangeError for a rate or a factor that is not above 0
 * @example amountNeeded('percent', 2, { areaHa: null, sprayL: 15, plants: null, rowM: null, wallM2: null, canopyM3: null }) // 0.3
 */
export function amountNeeded(basis: RateBasis, rate: number, on: Ground, concentrate = 1): number | null {
  requirePositive('rate', rate)
  requirePositive('concentrate', concentrate)
  const of: Record<RateBasis, number | null> = {
    area: on.areaHa,
    volume: on.sprayL,
    percent: on.sprayL,
    plant: on.plants,
    row: on.rowM,
    wall: on.wallM2,
    canopy: on.canopyM3,
  }
  const size = of[basis]
  if (!has(size)) return null
  if (basis === 'percent') return (rate / PERCENT) * size * concentrate
  return rate * size * (basis === 'volume' ? concentrate : 1)
}

/**
 * How far apart traps, dispensers or releases stand when they are spread evenly, m.
 *
 * @throws RangeError for anything that is not above 0
 * @example evenSpacing(25) // 20
 */
export function evenSpacing(perHa: number): number {
  requirePositive('perHa', perHa)
  return Math.sqrt(SQUARE_METRES_PER_HECTARE / perHa)
}
