import { requireOrder } from '../guards.js'
import { betaResponse, briereRate } from './curvedRates.js'

/** Shapes of curved development rates. */
export const rateCurves = ['briere', 'beta'] as const
export type RateCurve = (typeof rateCurves)[number]

/**
 * A curved rate stated like a heat rule: nothing below `lower`, fastest near `upper`, nothing from `limit` on; °C. It is scaled to
 * give the same heat as the straight line from `lower` at the temperature midway between `lower` and `upper`, so that sums compare
 * in °C·d. Brière's curve finds its optimum itself; `upper` only sets the scale.
 */
export interface CurvedRule {
  curve: RateCurve
  lower: number
  upper: number
  limit: number
}

/**
 * Heat of each hour in °C·d by a curved rate (Brière et al. 1999; beta: Yan & Hunt 1999).
 *
 * @throws RangeError for thresholds not in the order lower < upper < limit, and naming the hour for a non-finite temperature
 */
export function curvedHeat(tempsC: ArrayLike<number>, rule: CurvedRule): Float64Array {
  requireOrder('rule.lower', rule.lower, 'rule.upper', rule.upper)
  requireOrder('rule.upper', rule.upper, 'rule.limit', rule.limit)
  const middle = (rule.lower + rule.upper) / 2
  const rate = rateOf(rule)
  const atMiddle = rate(middle)
  const scale = atMiddle > 0 ? (middle - rule.lower) / atMiddle : 0
  const result = new Float64Array(tempsC.length)
  for (let i = 0; i < tempsC.length; i++) {
    const t = tempsC[i] as number
    if (!Number.isFinite(t)) throw new RangeError(`tempsC[${i}] must be a finite number, got ${t}`)
    result[i] = (scale * rate(t)) / 24
  }
  return result
}

function rateOf({ curve, lower, upper, limit }: CurvedRule): (t: number) => number {
  return curve === 'briere'
    ? (t) => briereRate(t, { a: 1, t0: lower, tl: limit })
    : (t) => betaResponse(t, { tmin: lower, topt: upper, tmax: limit })
}
