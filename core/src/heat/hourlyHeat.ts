import { requireRule, type HeatRule } from './rule.js'

/**
 * Heat of each hour, in °C·d (the hour's rate divided by 24), from hourly temperatures in °C. The rule's method is ignored.
 *
 * Cut-offs follow each hour's temperature (Roltsch et al. 1999): `horizontal` holds the rate at `upper`, `intermediate`
 * lowers it by what lies above, `vertical` counts nothing strictly above `upper`.
 *
 * @throws RangeError naming the hour, as `tempsC[7]`, for a non-finite temperature, and for `upper` at or below `lower`.
 * @example hourlyHeat([9, 16, 34], { method: 'hourly', lower: 10, upper: 31 }) // [0, 0.25, 0.875]
 */
export function hourlyHeat(tempsC: ArrayLike<number>, rule: HeatRule): Float64Array {
  requireRule(rule)
  const { lower, upper = Infinity, cutoff = 'horizontal' } = rule
  const result = new Float64Array(tempsC.length)
  for (let i = 0; i < tempsC.length; i++) {
    const t = tempsC[i] as number
    if (!Number.isFinite(t)) throw new RangeError(`tempsC[${i}] must be a finite number, got ${t}`)
    if (t <= lower) continue
    let rate = t - lower
    if (t > upper) {
      if (cutoff === 'horizontal') rate = upper - lower
      else rate = cutoff === 'vertical' ? 0 : Math.max(0, rate - 2 * (t - upper))
    }
    result[i] = rate / 24
  }
  return result
}
