import { requireAtLeast, requirePositive, requireWithin } from '../guards.js'
import { normalQuantile } from './normal.js'

/**
 * A share of `looked` units of which `hit` had something, with its score interval (Wilson 1927): never below 0 or above 1,
 * and open to one side where none or all were hit.
 *
 * @param level Probability that the interval holds the share, above 0 and below 1.
 * @throws RangeError naming the argument: for no units, a negative count, more hit than looked at, a level outside 0..1.
 * @example shareWithInterval(3, 20, 0.9) // { share: 0.15, low: 0.06158, high: 0.3218 }
 */
export function shareWithInterval(hit: number, looked: number, level: number): { share: number; low: number; high: number } {
  requirePositive('looked', looked)
  requireAtLeast('hit', hit, 0)
  if (hit > looked) throw new RangeError(`hit must be at most looked, ${looked}, got ${hit}`)
  requireWithin('level', level, Number.EPSILON, 1 - Number.EPSILON)
  const z2 = normalQuantile(1 - (1 - level) / 2) ** 2
  const share = hit / looked
  const middle = (hit + z2 / 2) / (looked + z2)
  const half = (Math.sqrt(z2) / (looked + z2)) * Math.sqrt((hit * (looked - hit)) / looked + z2 / 4)
  return { share, low: hit === 0 ? 0 : Math.max(0, middle - half), high: hit === looked ? 1 : Math.min(1, middle + half) }
}
