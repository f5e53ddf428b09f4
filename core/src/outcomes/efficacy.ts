import { requireAtLeast, requireWithin } from '../guards.js'

function requireDenominator(name: string, value: number): void {
  if (value === 0) throw new RangeError(`${name} must not be 0, where the efficacy is undefined, got 0`)
}

/**
 * Efficacy against an untreated check from counts after treatment, 1 − T/C (Abbott 1925). Negative where the treated area
 * did worse.
 *
 * @throws RangeError for negative counts or a check without any.
 * @example abbott({ treatedAfter: 4, checkAfter: 10 }) // 0.6
 */
export function abbott(p: { treatedAfter: number; checkAfter: number }): number {
  requireAtLeast('p.treatedAfter', p.treatedAfter, 0)
  requireAtLeast('p.checkAfter', p.checkAfter, 0)
  requireDenominator('p.checkAfter', p.checkAfter)
  return 1 - p.treatedAfter / p.checkAfter
}

/**
 * Efficacy corrected for what the check did over the same time, 1 − Ta·Cb/(Tb·Ca) (Henderson & Tilton 1955). Negative
 * where the treated area did worse.
 *
 * @throws RangeError for negative counts, or 0 in `treatedBefore` or `checkAfter`.
 * @example hendersonTilton({ treatedBefore: 20, treatedAfter: 4, checkBefore: 18, checkAfter: 24 }) // 0.85
 */
export function hendersonTilton(p: { treatedBefore: number; treatedAfter: number; checkBefore: number; checkAfter: number }): number {
  requireAtLeast('p.treatedBefore', p.treatedBefore, 0)
  requireAtLeast('p.treatedAfter', p.treatedAfter, 0)
  requireAtLeast('p.checkBefore', p.checkBefore, 0)
  requireAtLeast('p.checkAfter', p.checkAfter, 0)
  requireDenominator('p.treatedBefore', p.treatedBefore)
  requireDenominator('p.checkAfter', p.checkAfter)
  return 1 - (p.treatedAfter * p.checkBefore) / (p.treatedBefore * p.checkAfter)
}

/**
 * Mortality due to the treatment, corrected for mortality in the check, (Mt − Mc)/(1 − Mc) (Schneider-Orelli 1947).
 *
 * @throws RangeError for mortalities outside 0..1, or a check in which everything died.
 * @example schneiderOrelli({ treatedMortality: 0.8, checkMortality: 0.1 }) // 0.7778
 */
export function schneiderOrelli(p: { treatedMortality: number; checkMortality: number }): number {
  requireWithin('p.treatedMortality', p.treatedMortality, 0, 1)
  requireWithin('p.checkMortality', p.checkMortality, 0, 1)
  if (p.checkMortality === 1) throw new RangeError('p.checkMortality must be below 1, where the efficacy is undefined, got 1')
  return (p.treatedMortality - p.checkMortality) / (1 - p.checkMortality)
}
