import type { Bounds } from '../statistics/quantile.js'
import type { HeatMember } from '../weather/seasonHeat.js'
import { boundsOfDates, boundsOfShares, FEW_SEASONS_DAYS, notBefore, type Ensemble } from './ensemble.js'
import { dayOfHeat } from './eventDates.js'
import type { ResolvedEvent } from './model.js'
import { heatAtShare, type Spread } from './spread.js'
import { stageShares } from './stageShares.js'

/**
 * The day of the season, fraction included, on which each draw brings `share` of the population to an event; Infinity where it
 * does not. `scores` move the figure by that many of its standard errors, one a draw.
 */
export function datesOf(event: ResolvedEvent, share: number, members: readonly HeatMember[], scores: readonly number[]): number[] {
  const heat = heatAtShare(share, event.spread)
  return members.map(({ cumulative }, m) => dayOfHeat(cumulative, heat + (scores[m] ?? 0) * event.heatSe))
}

/**
 * Predictive bounds of the day on which `share` of the population has reached each event. In a generation no event lies before the
 * one that it follows, at any percentile.
 *
 * @param events of all generations, each generation's in their order
 */
export function eventBounds(events: readonly ResolvedEvent[], share: number, ensemble: Ensemble): Bounds[] {
  const last = new Map<string, Bounds>()
  return events.map((event) => {
    const own = boundsOfDates(datesOf(event, share, ensemble.members, ensemble.scores), ensemble)
    const before = last.get(event.generation)
    const placed = before ? notBefore(before, own) : own
    last.set(event.generation, placed)
    return placed
  })
}

/** A spread whose figure lies off by a number of its standard errors. */
function movedSpread({ spread, heatSe }: ResolvedEvent, score: number): Spread {
  const by = score * heatSe
  const median = spread.kind === 'lognormal' ? Math.max(1e-3, spread.median + by) : spread.median + by
  return spread.kind === 'weibull' ? { ...spread, median, onset: spread.onset + by } : { ...spread, median }
}

/** Shares by stage, those of several generations in one stage added up: the first entry is what stands before the first event. */
function sharesByStage(heat: number, events: readonly ResolvedEvent[], weights: readonly number[], score: number): Map<string, number> {
  const shares = stageShares(
    heat,
    events.map((event) => movedSpread(event, score)),
    weights,
  )
  const found = new Map<string, number>()
  events.forEach(({ stage }, i) => found.set(stage, (found.get(stage) ?? 0) + (shares[i + 1] as number)))
  return found
}

/**
 * Shares of the population in each stage at the end of a day with their predictive bounds. Stage i lies between event i and event
 * i + 1, as in `stageShares`; the shares of one draw are added over the generations first, bounds are taken then.
 *
 * @param weights for each event the share of the population that goes through it at all
 */
export function stageShareBounds(
  events: readonly ResolvedEvent[],
  weights: readonly number[],
  ensemble: Ensemble,
  dayIndex: number,
): { stage: string; share: Bounds }[] {
  const { members, scores, openIndex } = ensemble
  const byDraw = members.map(({ cumulative }, m) => sharesByStage(cumulative[dayIndex] ?? 0, events, weights, scores[m] ?? 0))
  const stages = [...new Set(events.map(({ stage }) => stage))]
  const curve = members[members.length >> 1]?.cumulative
  const aside = (days: number): Map<string, number> =>
    sharesByStage(curve?.[Math.min(curve.length - 1, Math.max(0, dayIndex + days))] ?? 0, events, weights, 0)
  const [before, now, after] = [-FEW_SEASONS_DAYS, 0, FEW_SEASONS_DAYS].map(aside) as [
    Map<string, number>,
    Map<string, number>,
    Map<string, number>,
  ]
  return stages.map((stage) => {
    const at = (found: Map<string, number>): number => found.get(stage) ?? 0
    // A day that was observed was the same in every season's draw.
    const between = dayIndex < openIndex ? 0 : Math.max(Math.abs(at(after) - at(now)), Math.abs(at(before) - at(now)))
    return { stage, share: boundsOfShares(byDraw.map(at), ensemble, between) }
  })
}
