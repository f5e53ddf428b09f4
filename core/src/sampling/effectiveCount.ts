import { requireAtLeast, requireFinite } from '../guards.js'

/**
 * Animals that count against the threshold: Σ weight·n over the classes (stage, size, parasitised, dead). A class without
 * a weight is an error, not a zero, so that a misspelt class cannot vanish.
 *
 * @throws RangeError naming the class, as `counts.pupa`, for an unknown class or a negative or non-finite count.
 * @example effectiveCount({ larva: 3, mummy: 2 }, { larva: 1, mummy: 0 }) // 3
 */
export function effectiveCount(counts: Readonly<Record<string, number>>, weights: Readonly<Record<string, number>>): number {
  let sum = 0
  for (const [name, n] of Object.entries(counts)) {
    requireAtLeast(`counts.${name}`, n, 0)
    if (!Object.hasOwn(weights, name))
      throw new RangeError(
        `counts.${name} must be a class with a weight (${Object.keys(weights).join(', ')}), got ${n} of an unknown class`,
      )
    const weight = weights[name] as number
    requireFinite(`weights.${name}`, weight)
    sum += weight * n
  }
  return sum
}
