import { rateUnits, type Product } from '@bocado/contract'

type RateUnit = Product['rateUnit']

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
