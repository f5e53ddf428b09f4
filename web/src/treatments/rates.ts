import { rateUnits, type Product } from '@bocado/contract'
import { acresFromHectares } from '../design/units.js'

type RateUnit = Product['rateUnit']

const SQUARE_METRES_PER_HECTARE = 10_000

/** What a rate comes to on a piece of ground: an amount and its unit. */
export function amountOn(rate: number, unit: RateUnit, areaHa: number): { amount: number; unit: string } {
  const [of = '', per = 'ha'] = unit.split('/')
  const ground = per === 'acre' ? acresFromHectares(areaHa) : per === 'm²' ? areaHa * SQUARE_METRES_PER_HECTARE : areaHa
  return { amount: rate * ground, unit: of }
}

/** The units of rates, those first in which labels of the place are written. */
export const rateUnitsFor = (site: { units: 'metric' | 'us'; kind: string }): RateUnit[] => {
  const isUsual = (unit: RateUnit): boolean => {
    if (site.kind === 'garden' && site.units === 'metric') return unit.endsWith('/m²')
    return unit.endsWith(site.units === 'us' ? '/acre' : '/ha')
  }
  return [...rateUnits.filter(isUsual), ...rateUnits.filter((unit) => !isUsual(unit))]
}

/** The unit in which most labels of a shelf are written; null where there is none yet. */
export function usualUnit(shelf: readonly Pick<Product, 'rateUnit'>[]): RateUnit | null {
  const often = (unit: RateUnit): number => shelf.filter(({ rateUnit }) => rateUnit === unit).length
  return [...new Set(shelf.map(({ rateUnit }) => rateUnit))].sort((a, b) => often(b) - often(a))[0] ?? null
}
