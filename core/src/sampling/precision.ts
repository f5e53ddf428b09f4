import { requireFinite, requirePositive } from '../guards.js'

/** Variance of counts as a power of their mean, s² = a·m^b (Taylor 1961). */
export interface TaylorPower {
  a: number
  b: number
}

/**
 * Running total at which the mean is known to the relative standard error after `units` sample units (Green 1970).
 *
 * @throws RangeError at b = 2, where no such line exists, and for a, relativeSe or units not above 0.
 * @example greenStopLine({ a: 2, b: 1.4 }, 0.25, 40) // 27.58
 */
export function greenStopLine(taylor: TaylorPower, relativeSe: number, units: number): number {
  requirePositive('taylor.a', taylor.a)
  requireFinite('taylor.b', taylor.b)
  if (taylor.b === 2) throw new RangeError('taylor.b must not be 2, where the line is undefined, got 2')
  requirePositive('relativeSe', relativeSe)
  requirePositive('units', units)
  const power = 1 / (taylor.b - 2)
  return (relativeSe ** 2 / taylor.a) ** power * units ** ((taylor.b - 1) * power)
}

/**
 * Sample units needed to know a mean per unit to the relative standard error, rounded up (Taylor 1961).
 *
 * @throws RangeError for a, mean or relativeSe not above 0.
 * @example unitsNeeded({ a: 2, b: 1.4 }, 1.5, 0.25) // 26
 */
export function unitsNeeded(taylor: TaylorPower, mean: number, relativeSe: number): number {
  requirePositive('taylor.a', taylor.a)
  requireFinite('taylor.b', taylor.b)
  requirePositive('mean', mean)
  requirePositive('relativeSe', relativeSe)
  const exact = (taylor.a * mean ** (taylor.b - 2)) / relativeSe ** 2
  // An exact whole number must not be rounded up by the last bit of the division.
  return Math.ceil(exact * (1 - 1e-12))
}
