import { requireAtLeast, requireFinite } from '../guards.js'
import { drawNormal, drawPoisson, shuffled, studentQuantileExact, type Random } from '../statistics/index.js'
import { pairedTrial, type TrialPair } from './pairedTrial.js'

/** Level of the interval by which a trial is decided: at most a twentieth of trials in which nothing was done say that it worked. */
export const TRIAL_LEVEL = 0.9
/** From this share of pairs with a count of nothing on, an effect is told as the least that it was. */
const AT_LEAST_FROM = 0.2
/** A total of nothing has no logarithm: so much is added to all four. */
const ADDED = 0.5
/** The fewest pairs from which anything is said. */
const FEWEST_PAIRS = 3

/** What a trial of pairs drawn by lot says. */
export interface FairTrial {
  verdict: 'worked' | 'worse' | 'cannot-tell' | 'too-few'
  /** By which it was decided; null where too few pairs are left. */
  decided: { effect: number; low: number; high: number } | null
  /** The effect that is shown: of the summed counts. `atLeast` where counts of nothing hide how large it was. */
  shown: { effect: number; low: number; high: number; atLeast: boolean } | null
  used: number
  /** Pairs on which nothing was found before: they tell nothing. */
  leftOut: number
}

const sumOf = (pairs: readonly TrialPair[]): TrialPair =>
  pairs.reduce(
    (sum, pair) => ({
      treatedBefore: sum.treatedBefore + pair.treatedBefore,
      treatedAfter: sum.treatedAfter + pair.treatedAfter,
      checkBefore: sum.checkBefore + pair.checkBefore,
      checkAfter: sum.checkAfter + pair.checkAfter,
    }),
    { treatedBefore: 0, treatedAfter: 0, checkBefore: 0, checkAfter: 0 },
  )

/** ln of the share that is left, of summed counts (Henderson & Tilton 1955). */
function logLeft(pairs: readonly TrialPair[]): number {
  const { treatedBefore: tb, treatedAfter: ta, checkBefore: cb, checkAfter: ca } = sumOf(pairs)
  const add = tb === 0 || ta === 0 || cb === 0 || ca === 0 ? ADDED : 0
  return Math.log(((ta + add) * (cb + add)) / ((tb + add) * (ca + add)))
}

/**
 * What pairs of plants, pots, beds or plots say that were drawn by lot before anything was done. Whether it worked is decided over the pairs
 * (`pairedTrial`, as scattered as counts are); what is shown is the effect of the summed counts, with the interval of leaving out one pair
 * after another.
 *
 * @param pairs totals before and after
 * @throws RangeError for negative counts
 */
export function fairTrial(pairs: readonly TrialPair[]): FairTrial {
  for (const [i, pair] of pairs.entries())
    for (const name of ['treatedBefore', 'treatedAfter', 'checkBefore', 'checkAfter'] as const)
      requireAtLeast(`pairs[${i}].${name}`, pair[name], 0)
  const used = pairs.filter(({ treatedBefore, checkBefore }) => treatedBefore + checkBefore > 0)
  const leftOut = pairs.length - used.length
  if (used.length < FEWEST_PAIRS) return { verdict: 'too-few', decided: null, shown: null, used: used.length, leftOut }
  const decided = pairedTrial({ pairs: used, level: TRIAL_LEVEL, asScattered: true })
  const n = used.length
  const whole = logLeft(used)
  const without = used.map((_, i) => logLeft(used.filter((_pair, k) => k !== i)))
  const middle = without.reduce((sum, one) => sum + one, 0) / n
  const se = Math.sqrt(((n - 1) / n) * without.reduce((sum, one) => sum + (one - middle) ** 2, 0))
  const half = studentQuantileExact((1 + TRIAL_LEVEL) / 2, n - 1) * se
  const corrected = used.filter((pair) => Object.values(pair).includes(0)).length
  return {
    verdict: decided.low > 0 ? 'worked' : decided.high < 0 ? 'worse' : 'cannot-tell',
    decided,
    shown: {
      effect: 1 - Math.exp(whole),
      low: 1 - Math.exp(whole + half),
      high: 1 - Math.exp(whole - half),
      atLeast: corrected / n >= AT_LEAST_FROM,
    },
    used: n,
    leftOut,
  }
}

/** Pairs of which each plant is dead or alive at the end. */
export interface SurvivalPair {
  treatedAlive: boolean
  checkAlive: boolean
}

/**
 * Dead or alive: only pairs of which one lives tell anything; how likely so many of them, or more, are one-sided by chance (exact).
 *
 * @returns `p` is 1 where no pair differs
 * @example survivalTrial([{ treatedAlive: true, checkAlive: false }]).p // 0.5
 */
export function survivalTrial(pairs: readonly SurvivalPair[]): {
  verdict: 'worked' | 'worse' | 'cannot-tell'
  onlyTreated: number
  onlyCheck: number
  p: number
} {
  const onlyTreated = pairs.filter(({ treatedAlive, checkAlive }) => treatedAlive && !checkAlive).length
  const onlyCheck = pairs.filter(({ treatedAlive, checkAlive }) => !treatedAlive && checkAlive).length
  const n = onlyTreated + onlyCheck
  const most = Math.max(onlyTreated, onlyCheck)
  const p = n === 0 ? 1 : tail(n, most)
  const isSure = p <= (1 - TRIAL_LEVEL) / 2
  return { verdict: !isSure ? 'cannot-tell' : onlyTreated > onlyCheck ? 'worked' : 'worse', onlyTreated, onlyCheck, p }
}

/** P(X ≥ k) of a fair coin thrown n times. */
function tail(n: number, k: number): number {
  let term = 0.5 ** n
  let sum = 0
  for (let i = 0; i <= n; i++) {
    if (i >= k) sum += term
    term *= (n - i) / (i + 1)
  }
  return Math.min(1, sum)
}

/**
 * Draws by lot which of each pair of neighbours is treated.
 *
 * @param units names along the row, neighbours beside each other; an even number of them
 * @throws RangeError for fewer than six, or an odd number
 */
export function drawTrial(units: readonly string[], random: Random): { treated: string; check: string }[] {
  if (units.length < 2 * FEWEST_PAIRS || units.length % 2 !== 0)
    throw new RangeError(`units must be an even number of at least ${2 * FEWEST_PAIRS}, got ${units.length}`)
  return Array.from({ length: units.length / 2 }, (_, i) => {
    const [treated = '', check = ''] = shuffled(units.slice(2 * i, 2 * i + 2), random)
    return { treated, check }
  })
}

/** Trials that are played through to tell how often one finds what is there. */
const PLAYED = 300
/** How counts scatter from plant to plant, as the k of a negative binomial. */
const USUAL_K = 2

/**
 * How often a trial finds an effect that is there: it is played through with counts as they usually scatter.
 *
 * @param p.mean found on one unit before
 * @param p.effect share that is gone, above 0 and below 1
 * @returns share of trials that say it worked
 * @throws RangeError for fewer than three pairs, a mean that is not above 0, or an effect outside 0 to 1
 */
export function trialPower(p: { pairs: number; mean: number; effect: number; random: Random }): number {
  const { pairs, mean, effect, random } = p
  requireAtLeast('pairs', pairs, FEWEST_PAIRS)
  requireFinite('mean', mean)
  if (mean <= 0) throw new RangeError(`mean must be above 0, got ${mean}`)
  if (!(effect > 0 && effect < 1)) throw new RangeError(`effect must be between 0 and 1, got ${effect}`)
  let found = 0
  for (let run = 0; run < PLAYED; run++) {
    if (fairTrial(playedTrial({ pairs, mean, effect, random })).verdict === 'worked') found++
  }
  return found / PLAYED
}

/**
 * Counts of one trial as it may go, of plants that differ as they usually do and each keep what they have, but for what is treated.
 *
 * @param p.effect share that is gone, 0 where nothing was done
 */
export function playedTrial(p: { pairs: number; mean: number; effect: number; random: Random }): TrialPair[] {
  const { mean, effect, random } = p
  return Array.from({ length: p.pairs }, () => {
    const [treated, check] = [mean * drawGamma(random), mean * drawGamma(random)]
    return {
      treatedBefore: drawPoisson(random, treated),
      treatedAfter: drawPoisson(random, treated * (1 - effect)),
      checkBefore: drawPoisson(random, check),
      checkAfter: drawPoisson(random, check),
    }
  })
}

/** A gamma of mean 1 and shape `USUAL_K` (Marsaglia & Tsang 2000). */
function drawGamma(random: Random): number {
  const d = USUAL_K - 1 / 3
  const c = 1 / Math.sqrt(9 * d)
  for (;;) {
    const x = drawNormal(random)
    const v = (1 + c * x) ** 3
    if (v > 0 && Math.log(random()) < 0.5 * x * x + d - d * v + d * Math.log(v)) return (d * v) / USUAL_K
  }
}
