import { hectaresFromAcres, kilogramsFromPounds, litresFromGallons } from '../units/index.js'
import type { RateBasis } from './amounts.js'

const SQUARE_METRES_PER_HECTARE = 10_000
const OUNCES_PER_POUND = 16
const PER_GALLON = { 'fl oz': 128, pt: 8, qt: 4, gal: 1 } as const

/** What a rate is made of. */
export interface RateParts {
  basis: RateBasis
  /** In what the product is measured. */
  of: string
  /** How many of the basis (ha, L, plants, m, m², m³) the rate is for. */
  per: number
}

const PER: Readonly<Record<string, { basis: RateBasis; per: number }>> = {
  ha: { basis: 'area', per: 1 },
  acre: { basis: 'area', per: hectaresFromAcres(1) },
  'm²': { basis: 'area', per: 1 / SQUARE_METRES_PER_HECTARE },
  L: { basis: 'volume', per: 1 },
  gal: { basis: 'volume', per: litresFromGallons(1) },
  plant: { basis: 'plant', per: 1 },
  'm row': { basis: 'row', per: 1 },
  '10 000 m² wall': { basis: 'wall', per: 10_000 },
  '10 000 m³ canopy': { basis: 'canopy', per: 10_000 },
}

/**
 * Reads the unit of a rate as labels write it.
 *
 * @throws RangeError for a unit that no label has
 * @example ratePartsOf('fl oz/acre').of // 'fl oz'
 */
export function ratePartsOf(unit: string): RateParts {
  if (unit === '% v/v') return { basis: 'percent', of: 'L', per: 1 }
  const slash = unit.indexOf('/')
  const per = PER[unit.slice(slash + 1)]
  if (slash < 1 || !per) throw new RangeError(`no label has a rate in ${unit}`)
  return { of: unit.slice(0, slash), ...per }
}

/**
 * How much of a product was used, in that in which its rate is measured: what was typed, else its rate on its area.
 *
 * @returns null where nobody said how much, and the rate does not go by area
 * @example usedOf({ typed: null, rate: 0.1, areaHa: 4 }, 'L/ha')?.amount // 0.4
 */
export function usedOf(
  { typed, rate, areaHa }: { typed: number | null; rate: number | null; areaHa: number | null },
  rateUnit: string,
): { amount: number; unit: string } | null {
  const { basis, of, per } = ratePartsOf(rateUnit)
  if (typed !== null) return { amount: typed, unit: of }
  return basis === 'area' && rate !== null && areaHa !== null ? { amount: (rate * areaHa) / per, unit: of } : null
}

/** Of what a stock is kept: volume, weight or pieces. */
export interface Stock {
  amount: number
  unit: 'L' | 'kg' | 'pieces'
}

/**
 * An amount of a product in L, kg or pieces.
 *
 * @throws RangeError for a unit that is none of an amount
 * @example inStock(250, 'mL').amount // 0.25
 */
export function inStock(amount: number, unit: string): Stock {
  if (unit in PER_GALLON) return { amount: litresFromGallons(amount / PER_GALLON[unit as keyof typeof PER_GALLON]), unit: 'L' }
  const of: Readonly<Record<string, Stock>> = {
    L: { amount, unit: 'L' },
    mL: { amount: amount / 1000, unit: 'L' },
    kg: { amount, unit: 'kg' },
    g: { amount: amount / 1000, unit: 'kg' },
    oz: { amount: kilogramsFromPounds(amount / OUNCES_PER_POUND), unit: 'kg' },
    lb: { amount: kilogramsFromPounds(amount), unit: 'kg' },
    pieces: { amount, unit: 'pieces' },
  }
  const found = of[unit]
  if (!found) throw new RangeError(`no amount is measured in ${unit}`)
  return found
}
