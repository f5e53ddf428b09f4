import { requireFinite } from '../guards.js'

/** A source of numbers from 0 (inclusive) to 1 (exclusive). Core never makes its own: the caller passes one in. */
export type Random = () => number

/** A repeatable generator from a seed (a 32-bit counter with a multiply–xorshift mix). Same seed, same sequence, everywhere. */
export function seededRandom(seed: number): Random {
  requireFinite('seed', seed)
  let state = seed >>> 0
  return () => {
    state = (state + 0x6d2b79f5) >>> 0
    let t = state
    t = Math.imul(t ^ (t >>> 15), t | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}

/** One draw from the normal distribution (Box & Muller 1958). */
export function drawNormal(random: Random, mean = 0, sd = 1): number {
  const radius = Math.sqrt(-2 * Math.log(1 - random()))
  return mean + sd * radius * Math.cos(2 * Math.PI * random())
}

/** One Poisson draw by multiplication (Knuth 1969); means above 30 are drawn in parts. */
export function drawPoisson(random: Random, mean: number): number {
  if (mean > 30) return drawPoisson(random, mean / 2) + drawPoisson(random, mean / 2)
  const limit = Math.exp(-mean)
  let count = 0
  for (let product = random(); product > limit; product *= random()) count++
  return count
}

/** Shuffles a copy of `values` (Fisher & Yates 1938). */
export function shuffled<T>(values: readonly T[], random: Random): T[] {
  const copy = [...values]
  for (let i = copy.length - 1; i > 0; i--) {
    const j = Math.floor(random() * (i + 1))
    const held = copy[i] as T
    copy[i] = copy[j] as T
    copy[j] = held
  }
  return copy
}
