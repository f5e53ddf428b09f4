import { requireAtLeast, requirePositive, requireWithin } from '../guards.js'

/** Above 0; Infinity where they sit no closer together than by chance. */
function requireExponent(k: number): void {
  if (!(k > 0)) throw new RangeError(`k must be above 0, got ${k}`)
}

/**
 * The share of sample units that have any where there are so many on average: 1 − (1 + m/k)^(−k), as negative binomial counts are spread.
 *
 * @throws RangeError for a mean below 0 or k not above 0
 * @example shareWithAny(1, 1) // 0.5
 */
export function shareWithAny(mean: number, k: number): number {
  requireAtLeast('mean', mean, 0)
  requireExponent(k)
  return Number.isFinite(k) ? 1 - (1 + mean / k) ** -k : 1 - Math.exp(-mean)
}

/**
 * How many there are on average where so large a share of sample units has any: the other way round.
 *
 * @returns Infinity where all have any: then it tells nothing but that there are many
 * @throws RangeError for a share outside 0 to 1 or k not above 0
 * @example meanFromShare(0.5, 1) // 1
 */
export function meanFromShare(share: number, k: number): number {
  requireWithin('share', share, 0, 1)
  requireExponent(k)
  return Number.isFinite(k) ? k * ((1 - share) ** (-1 / k) - 1) : -Math.log(1 - share)
}

/**
 * What a count comes to, per hundred items: the mean of what was found, or, where only the presence on each sample unit was looked at, the mean
 * that so large a share means. Of all of them having any the last one is taken as half: the mean is at least so large.
 *
 * @param found effective count of each sample unit
 * @throws RangeError for no sample units
 * @example per100Of([1, 0, 1, 0], { measure: 'presence', itemsPerUnit: 1 }) // 100
 */
export function per100Of(
  found: readonly number[],
  against: { measure: 'density' | 'incidence' | 'presence'; itemsPerUnit: number; clumping?: { k: number | null } },
): number {
  requirePositive('units', found.length)
  const total = found.reduce((a, b) => a + b, 0)
  if (against.measure !== 'presence') return (100 * total) / (found.length * against.itemsPerUnit)
  const share = Math.min(total, found.length - 0.5) / found.length
  return (100 * meanFromShare(share, exponentOf(against.clumping))) / against.itemsPerUnit
}

/** Common exponent of the negative binomial for animals per sample unit, where nobody has measured it. */
export const ASSUMED_K = 1

/** The exponent that was measured, or the one that is assumed; Infinity where they sit no closer together than by chance. */
export const exponentOf = (clumping: { k: number | null } | undefined): number => (clumping ? (clumping.k ?? Infinity) : ASSUMED_K)
