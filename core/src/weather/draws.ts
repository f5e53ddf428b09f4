import { normalQuantile } from '../statistics/normal.js'
import { RANKS } from '../statistics/predictive.js'
import { shuffled, type Random } from '../statistics/random.js'

/**
 * How often each season is drawn: once for each member of the forecast, and at least as often as a figure's error has strata, so that
 * every season meets all of them.
 */
export const drawsPerSeason = (forecastMembers: number): number => Math.max(RANKS, forecastMembers)

/**
 * What stands once for each member of the forecast and each season, as often as it is drawn: draw-major, all seasons of the first
 * draw, then of the second. Where a draw comes again its value is the same object.
 *
 * @param joined forecast-major
 */
export function drawn<T>(joined: readonly T[], forecastMembers: number, seasons: number): T[] {
  if (forecastMembers === 0) return []
  return Array.from({ length: drawsPerSeason(forecastMembers) * seasons }, (_, i) => {
    const draw = Math.floor(i / seasons)
    return joined[(draw % forecastMembers) * seasons + (i % seasons)] as T
  })
}

/** Middles of twelve equal strata of the standard normal distribution. */
const STRATA = Array.from({ length: RANKS }, (_, i) => normalQuantile((i + 0.5) / RANKS))

/**
 * A standard score for each draw of each season, in the order of `drawn`: twelve strata of the normal distribution, permuted for each
 * season by itself, so that an uncertain figure is drawn evenly within every one of them.
 */
export function drawScores(draws: number, seasons: number, random: Random): number[] {
  const bySeason = Array.from({ length: seasons }, () => shuffled(STRATA, random))
  return Array.from({ length: draws * seasons }, (_, i) => bySeason[i % seasons]?.[Math.floor(i / seasons) % RANKS] as number)
}

/** Values of draws, in the order of `drawn`, season by season. */
export function seasonBySeason(values: readonly number[], seasons: number): number[][] {
  const found = Array.from({ length: seasons }, (): number[] => [])
  values.forEach((value, i) => (found[i % seasons] as number[]).push(value))
  return found
}
