import { requirePositive } from '../guards.js'

/** Litres that make no tank of their own: what is left over by the arithmetic. */
const NO_TANK_L = 1e-9

/** What is mixed for an area: amounts in the unit of the rate, volumes in L. */
export interface Mix {
  product: number
  sprayL: number
  fullTanks: number
  productPerFullTank: number
  /** 0 where the last tank is a full one. */
  lastTankL: number
  productInLastTank: number
}

/**
 * An amount of a product, spread evenly over full tanks and a last one. The product is part of the spray.
 *
 * @throws RangeError for anything that is not above 0
 * @example intoTanks({ product: 0.3, sprayL: 25, tankL: 10 })
 * // fullTanks 2, productPerFullTank 0.12, lastTankL 5, productInLastTank 0.06
 */
export function intoTanks({ product, sprayL, tankL }: { product: number; sprayL: number; tankL: number }): Mix {
  requirePositive('product', product)
  requirePositive('sprayL', sprayL)
  requirePositive('tankL', tankL)
  const perLitre = product / sprayL
  const whole = Math.floor((sprayL + NO_TANK_L) / tankL)
  const left = sprayL - whole * tankL
  const lastTankL = left > NO_TANK_L ? left : 0
  return { product, sprayL, fullTanks: whole, productPerFullTank: tankL * perLitre, lastTankL, productInLastTank: lastTankL * perLitre }
}

/**
 * Amounts for an area with one sprayer: how much of a product and of spray, in how many full tanks, and what goes into the last one. The product
 * is part of the spray.
 *
 * @param p.ratePerHa in the unit of the product, such as L or kg
 * @throws RangeError for anything that is not above 0
 * @example mixForArea({ areaHa: 4.2, ratePerHa: 0.1, sprayLPerHa: 500, tankL: 1000 })
 * // product 0.42, sprayL 2100, fullTanks 2, productPerFullTank 0.2, lastTankL 100, productInLastTank 0.02
 */
export function mixForArea({
  areaHa,
  ratePerHa,
  sprayLPerHa,
  tankL,
}: {
  areaHa: number
  ratePerHa: number
  sprayLPerHa: number
  tankL: number
}): Mix {
  requirePositive('areaHa', areaHa)
  requirePositive('ratePerHa', ratePerHa)
  requirePositive('sprayLPerHa', sprayLPerHa)
  requirePositive('tankL', tankL)
  return intoTanks({ product: areaHa * ratePerHa, sprayL: areaHa * sprayLPerHa, tankL })
}
