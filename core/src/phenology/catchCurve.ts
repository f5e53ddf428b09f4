import { requireAtLeast, requireFinite } from '../guards.js'
import { normalQuantile } from '../statistics/normal.js'
import { heatAtShare, shareReached, type Spread } from './spread.js'

/** Checks of one trap through one flight: heat in °C·d at the first look, then at each check with what was caught since the one before. */
export interface CatchSeason {
  from: number
  checks: readonly { heat: number; count: number }[]
}

/** A flight as the catches show it: one spread between individuals, and where each season's flight lay. */
export interface CatchFit {
  /** Standard deviation between individuals in °C·d, with its 90 % interval, widened by the dispersion. */
  sd: number
  low: number
  high: number
  /** For each season in its order the median in °C·d with its standard error; undefined where the season cannot tell. */
  seasons: ({ median: number; se: number } | undefined)[]
  /** Pearson's χ² by its degrees of freedom, at least 1: how much rougher catches are than chance. */
  dispersion: number
  catches: number
  intervals: number
}

type Kind = 'normal' | 'lognormal' | 'logistic'

const LEAST_CATCHES = 10
const LEAST_INTERVALS = 4
/** Expected catches below which an interval is joined to the next for the dispersion. */
const LEAST_EXPECTED = 1

/**
 * Median and spread of a flight from catches per interval, by maximum likelihood. Catches are interval-censored: only the checks
 * between which an animal came are known, so each interval counts by the share of the flight that falls into it, given that it fell
 * between first look and last check; cumulative catches are never treated as independent points. Seasons share the spread and have
 * each their own median. Standard errors are inflated by the dispersion (McCullagh & Nelder 1989).
 *
 * @returns undefined where no season has ten catches in at least four intervals
 * @throws RangeError for counts below 0, or checks whose heat falls
 */
export function fitCatches(seasons: readonly CatchSeason[], kind: Kind): CatchFit | undefined {
  seasons.forEach(requireSeason)
  const telling = seasons.map((season) => (tells(season) ? season : undefined))
  const used = telling.filter((season) => season !== undefined)
  if (used.length === 0) return undefined
  const widest = Math.max(...used.map((season) => lastHeat(season) - season.from))
  const total = (sd: number): number => used.reduce((sum, season) => sum + bestMedian(season, kind, sd).likelihood, 0)
  const logSd = highest((log) => total(Math.exp(log)), Math.log(widest / 200), Math.log(widest))
  const sd = Math.exp(logSd)
  const fits = telling.map((season) => (season ? { season, ...bestMedian(season, kind, sd) } : undefined))
  const dispersion = dispersionOf(
    used.map((season) => ({ season, median: bestMedian(season, kind, sd).median })),
    kind,
    sd,
  )
  const curve = curvature((log) => total(Math.exp(log)), logSd, 0.05)
  const logSe = curve > 0 ? Math.sqrt(dispersion / curve) : Infinity
  const wide = normalQuantile(0.95) * logSe
  return {
    sd,
    low: sd * Math.exp(-wide),
    high: sd * Math.exp(wide),
    seasons: fits.map((fit) => {
      if (!fit) return undefined
      const bend = curvature((m) => likelihood(fit.season, spreadOf(kind, m, sd)), fit.median, sd * 0.05)
      return bend > 0 ? { median: fit.median, se: Math.sqrt(dispersion / bend) } : undefined
    }),
    dispersion,
    catches: used.reduce((sum, { checks }) => sum + checks.reduce((n, { count }) => n + count, 0), 0),
    intervals: used.reduce((sum, { checks }) => sum + checks.length, 0),
  }
}

/** The heat in °C·d at which a share of a fitted flight has come. */
export const flightAt = (share: number, kind: Kind, median: number, sd: number): number => heatAtShare(share, spreadOf(kind, median, sd))

const spreadOf = (kind: Kind, median: number, sd: number): Spread => ({ kind, median, sd })
const lastHeat = ({ from, checks }: CatchSeason): number => checks.at(-1)?.heat ?? from

function requireSeason({ from, checks }: CatchSeason, s: number): void {
  requireFinite(`seasons[${s}].from`, from)
  let before = from
  checks.forEach(({ heat, count }, i) => {
    requireFinite(`seasons[${s}].checks[${i}].heat`, heat)
    requireAtLeast(`seasons[${s}].checks[${i}].heat`, heat, before)
    requireAtLeast(`seasons[${s}].checks[${i}].count`, count, 0)
    before = heat
  })
}

function tells({ checks }: CatchSeason): boolean {
  const caught = checks.filter(({ count }) => count > 0)
  return checks.length >= LEAST_INTERVALS && caught.length >= 2 && caught.reduce((sum, { count }) => sum + count, 0) >= LEAST_CATCHES
}

/** Share of the flight in each interval, given that it came between first look and last check. */
function shares(season: CatchSeason, spread: Spread): number[] {
  let before = shareReached(season.from, spread)
  const start = before
  const parts = season.checks.map(({ heat }) => {
    const reached = shareReached(heat, spread)
    const part = reached - before
    before = reached
    return part
  })
  const all = before - start
  return parts.map((part) => (all > 0 ? part / all : 0))
}

function likelihood(season: CatchSeason, spread: Spread): number {
  return shares(season, spread).reduce((sum, p, i) => {
    const { count } = season.checks[i] as { count: number }
    return count > 0 ? sum + count * Math.log(Math.max(p, 1e-12)) : sum
  }, 0)
}

function bestMedian(season: CatchSeason, kind: Kind, sd: number): { median: number; likelihood: number } {
  const lowest = kind === 'lognormal' ? Math.max(1e-3, season.from) : season.from - sd
  const median = highest((m) => likelihood(season, spreadOf(kind, m, sd)), lowest, lastHeat(season) + sd)
  return { median, likelihood: likelihood(season, spreadOf(kind, median, sd)) }
}

const GOLDEN = (Math.sqrt(5) - 1) / 2

/** Where a function with one summit is highest between two places, by golden section. */
function highest(of: (x: number) => number, from: number, to: number): number {
  let [low, high] = [from, to]
  let a = high - GOLDEN * (high - low)
  let b = low + GOLDEN * (high - low)
  let [atA, atB] = [of(a), of(b)]
  for (let i = 0; i < 60 && high - low > 1e-6 * (to - from); i++) {
    if (atA < atB) {
      low = a
      ;[a, atA] = [b, atB]
      b = low + GOLDEN * (high - low)
      atB = of(b)
    } else {
      high = b
      ;[b, atB] = [a, atA]
      a = high - GOLDEN * (high - low)
      atA = of(a)
    }
  }
  return (low + high) / 2
}

/** How sharply a summit bends: minus the second derivative. */
const curvature = (of: (x: number) => number, at: number, step: number): number =>
  (2 * of(at) - of(at - step) - of(at + step)) / (step * step)

function dispersionOf(fitted: readonly { season: CatchSeason; median: number }[], kind: Kind, sd: number): number {
  let chi = 0
  let freedom = -1 - fitted.length
  for (const { season, median } of fitted) {
    const caught = season.checks.reduce((sum, { count }) => sum + count, 0)
    let [expected, observed] = [0, 0]
    shares(season, spreadOf(kind, median, sd)).forEach((p, i) => {
      expected += caught * p
      observed += season.checks[i]?.count ?? 0
      if (expected < LEAST_EXPECTED) return
      chi += (observed - expected) ** 2 / expected
      freedom++
      ;[expected, observed] = [0, 0]
    })
    freedom-- // the season's catches sum to what they sum to
  }
  return freedom > 0 ? Math.max(1, chi / freedom) : 1
}
