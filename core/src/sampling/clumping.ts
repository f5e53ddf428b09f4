import { requireAtLeast } from '../guards.js'
import { drawPoisson, type Random } from '../statistics/index.js'
import type { TaylorPower } from './precision.js'

/** How much animals sit together, told by counts. */
export interface Clumping {
  /** Common exponent of the negative binomial; small where they sit together. null: no more than by chance. */
  k: number | null
  /** Variance as a power of the mean. */
  taylor: TaylorPower | null
  /** Mean crowding as a line of the mean: of single animals or groups, and how these sit. */
  crowding: { alpha: number; beta: number } | null
  /** Counts it rests on. */
  counts: number
}

/** Of fewer counts one does not say how animals sit. */
const LEAST_COUNTS = 5
/** Fewer sample units do not tell the spread of one count. */
const LEAST_UNITS = 5

interface Moments {
  n: number
  mean: number
  variance: number
}

function momentsOf(found: readonly number[]): Moments {
  const n = found.length
  const mean = found.reduce((a, b) => a + b, 0) / n
  return { n, mean, variance: found.reduce((sum, x) => sum + (x - mean) ** 2, 0) / (n - 1) }
}

/** Slope and intercept of a straight line by least squares; null where all stand at one place. */
function line(points: readonly (readonly [number, number])[]): { slope: number; intercept: number } | null {
  const n = points.length
  const [mx, my] = [points.reduce((s, [x]) => s + x, 0) / n, points.reduce((s, [, y]) => s + y, 0) / n]
  const sxx = points.reduce((s, [x]) => s + (x - mx) ** 2, 0)
  if (sxx < 1e-12) return null
  const slope = points.reduce((s, [x, y]) => s + (x - mx) * (y - my), 0) / sxx
  return { slope, intercept: my - slope * mx }
}

/**
 * How much animals sit together, by counts of single sample units: the common k of the negative binomial by the regression of moments (Bliss &
 * Owen 1958), variance as a power of the mean (Taylor 1961), and mean crowding as a line of the mean (Iwao 1968).
 *
 * @param counts what was found on each sample unit, count by count; counts of under five sample units and those that found nothing tell nothing
 * @returns null where fewer than five counts tell anything
 * @example clumping([[0, 1], [2]]) // null
 */
export function clumping(counts: readonly (readonly number[])[]): Clumping | null {
  const told = counts
    .filter((found) => found.length >= LEAST_UNITS)
    .map(momentsOf)
    .filter(({ mean }) => mean > 0)
  if (told.length < LEAST_COUNTS) return null
  let [up, down] = [0, 0]
  for (const { n, mean, variance } of told) {
    const x = mean ** 2 - variance / n
    const y = variance - mean
    up += x * y
    down += x * x
  }
  const k = up > 0 ? down / up : null
  const spread = told.filter(({ variance }) => variance > 0)
  const power = spread.length >= LEAST_COUNTS ? line(spread.map(({ mean, variance }) => [Math.log(mean), Math.log(variance)])) : null
  const crowded = line(told.map(({ mean, variance }) => [mean, mean + variance / mean - 1]))
  return {
    k,
    taylor: power && { a: Math.exp(power.intercept), b: power.slope },
    crowding: crowded && { alpha: crowded.intercept, beta: crowded.slope },
    counts: told.length,
  }
}

/**
 * One draw of a negative binomial, Poisson where k is not finite.
 *
 * @throws RangeError for a mean below 0 or k not above 0
 */
export function drawClumped(random: Random, mean: number, k: number): number {
  requireAtLeast('mean', mean, 0)
  if (!(k > 0)) throw new RangeError(`k must be above 0, got ${k}`)
  if (mean === 0) return 0
  if (!Number.isFinite(k)) return drawPoisson(random, mean)
  // By adding up the probabilities, each made from the one before.
  const share = mean / (mean + k)
  let p = (k / (k + mean)) ** k
  let left = random() - p
  let n = 0
  while (left > 0 && p > 1e-15) {
    p *= (share * (k + n)) / (n + 1)
    n++
    left -= p
  }
  return n
}
