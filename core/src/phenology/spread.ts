import { requireAtLeast, requireFinite, requireOrder, requirePositive } from '../guards.js'
import { normalCdf, normalQuantile } from '../statistics/normal.js'

/**
 * How an event is spread over the individuals of a population, along heat in °C·d. `sd` is always the actual standard
 * deviation on that scale, for the lognormal too. For `weibull`, `onset` is the heat before which nothing happens.
 */
export type Spread =
  | { kind: 'normal' | 'lognormal' | 'logistic'; median: number; sd: number }
  | { kind: 'weibull'; median: number; shape: number; onset: number }

const LOGISTIC_SCALE = Math.sqrt(3) / Math.PI

/** Standard deviation of ln(heat) for a lognormal of given median and actual standard deviation. */
function logSd(median: number, sd: number): number {
  const w = (1 + Math.sqrt(1 + (4 * sd * sd) / (median * median))) / 2
  return Math.sqrt(Math.log(w))
}

/** Throws `RangeError` naming the field unless the spread is a proper distribution. */
export function requireSpread(spread: Spread): void {
  requireFinite('spread.median', spread.median)
  switch (spread.kind) {
    case 'weibull':
      requirePositive('spread.shape', spread.shape)
      requireOrder('spread.onset', spread.onset, 'spread.median', spread.median)
      return
    case 'lognormal':
      requirePositive('spread.median', spread.median)
      requirePositive('spread.sd', spread.sd)
      return
    case 'normal':
    case 'logistic':
      requirePositive('spread.sd', spread.sd)
      return
    default:
      throw new RangeError(`spread.kind must be normal, lognormal, logistic or weibull, got ${String((spread as { kind: unknown }).kind)}`)
  }
}

/**
 * Share of the population, 0..1, for which the event has happened once `heat` °C·d have accumulated: the distribution
 * function. Weibull with onset as in Roman, Murphy & Swanton 2000.
 *
 * @throws RangeError for non-finite heat, sd or shape not above 0, a lognormal median not above 0, or onset at or above
 * the median.
 * @example shareReached(180, { kind: 'normal', median: 200, sd: 40 }) // 0.3085
 */
export function shareReached(heat: number, spread: Spread): number {
  requireFinite('heat', heat)
  requireSpread(spread)
  switch (spread.kind) {
    case 'normal':
      return normalCdf((heat - spread.median) / spread.sd)
    case 'lognormal':
      return heat <= 0 ? 0 : normalCdf(Math.log(heat / spread.median) / logSd(spread.median, spread.sd))
    case 'logistic':
      return 1 / (1 + Math.exp(-(heat - spread.median) / (spread.sd * LOGISTIC_SCALE)))
    case 'weibull':
      if (heat <= spread.onset) return 0
      return -Math.expm1(-Math.LN2 * ((heat - spread.onset) / (spread.median - spread.onset)) ** spread.shape)
  }
}

/**
 * The heat in °C·d at which a share `p` (0 < p < 1) has reached the event: the inverse of `shareReached`.
 *
 * @throws RangeError as `shareReached`, and for p outside 0..1.
 * @example heatAtShare(0.03, { kind: 'normal', median: 200, sd: 40 }) // 124.8
 */
export function heatAtShare(p: number, spread: Spread): number {
  requireSpread(spread)
  requireFinite('p', p)
  if (p <= 0 || p >= 1) throw new RangeError(`p must be between 0 and 1, got ${p}`)
  switch (spread.kind) {
    case 'normal':
      return spread.median + spread.sd * normalQuantile(p)
    case 'lognormal':
      return spread.median * Math.exp(logSd(spread.median, spread.sd) * normalQuantile(p))
    case 'logistic':
      return spread.median + spread.sd * LOGISTIC_SCALE * Math.log(p / (1 - p))
    case 'weibull':
      return spread.onset + (spread.median - spread.onset) * (-Math.log1p(-p) / Math.LN2) ** (1 / spread.shape)
  }
}

/**
 * The distribution whose share `atShare` lies at `heat` and whose standard deviation is `sd`, both in °C·d. A published
 * "first catch" is about the 3 % point, not the median; the median is derived here.
 *
 * @throws RangeError where no such distribution exists: a lognormal needs heat above 0.
 */
export function spreadThrough(p: { kind: 'normal' | 'lognormal' | 'logistic'; heat: number; atShare: number; sd: number }): Spread {
  requireFinite('heat', p.heat)
  requirePositive('sd', p.sd)
  if (p.kind !== 'lognormal') {
    const centred = heatAtShare(p.atShare, { kind: p.kind, median: 0, sd: p.sd })
    return { kind: p.kind, median: p.heat - centred, sd: p.sd }
  }
  requirePositive('heat', p.heat)
  const z = normalQuantile(p.atShare)
  // heat = median·exp(s(median)·z), which rises with the median over the range that matters.
  let low = p.heat * 1e-3
  let high = p.heat + p.sd * (Math.abs(z) + 1) * 4
  for (let i = 0; i < 100; i++) {
    const median = (low + high) / 2
    if (median * Math.exp(logSd(median, p.sd) * z) < p.heat) low = median
    else high = median
  }
  requireAtLeast('heat', p.heat, 0)
  return { kind: 'lognormal', median: (low + high) / 2, sd: p.sd }
}

const SD_QUANTILES = 400

/**
 * Standard deviation of a distribution between individuals, in °C·d; of a Weibull from its quantiles.
 *
 * @example sdOf({ kind: 'weibull', median: 200, shape: 2, onset: 100 }) // 55.56
 */
export function sdOf(spread: Spread): number {
  if (spread.kind !== 'weibull') return spread.sd
  let sum = 0
  let squares = 0
  for (let i = 0; i < SD_QUANTILES; i++) {
    const heat = heatAtShare((i + 0.5) / SD_QUANTILES, spread)
    sum += heat
    squares += heat * heat
  }
  const mean = sum / SD_QUANTILES
  return Math.sqrt(Math.max(0, squares / SD_QUANTILES - mean * mean))
}
