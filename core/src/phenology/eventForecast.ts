import { bounds, type Bounds } from '../statistics/quantile.js'
import type { HeatMember } from '../weather/seasonHeat.js'
import { dayOfHeat } from './eventDates.js'
import type { ResolvedEvent } from './model.js'
import { heatAtShare } from './spread.js'
import { stageShares } from './stageShares.js'

/**
 * The day of the season, fraction included, on which each member brings `share` of the population to an event; Infinity where it
 * does not. `scores` move the figure by that many of its standard errors, one a member.
 */
export function datesOf(event: ResolvedEvent, share: number, members: readonly HeatMember[], scores: readonly number[]): number[] {
  const heat = heatAtShare(share, event.spread)
  return members.map(({ cumulative }, m) => dayOfHeat(cumulative, heat + (scores[m] ?? 0) * event.heatSe))
}

/** Share of the members in which a date has come by the end of a day: the probability of the event by then. */
export function probabilityBy(dates: readonly number[], dayIndex: number): number {
  return dates.length === 0 ? 0 : dates.filter((date) => date < dayIndex + 1).length / dates.length
}

/**
 * Shares of the population in each stage at the end of a day with their bounds over the members: stage i lies between event i − 1
 * and event i, as in `stageShares`.
 */
export function stageShareBounds(
  events: readonly ResolvedEvent[],
  weights: readonly number[],
  members: readonly HeatMember[],
  scores: readonly number[],
  dayIndex: number,
): Bounds[] {
  const byMember = members.map(({ cumulative }, m) => {
    const heat = cumulative[dayIndex] ?? 0
    const moved = events.map(({ spread, heatSe }) => {
      const by = (scores[m] ?? 0) * heatSe
      const median = spread.kind === 'lognormal' ? Math.max(1e-3, spread.median + by) : spread.median + by
      return spread.kind === 'weibull' ? { ...spread, median, onset: spread.onset + by } : { ...spread, median }
    })
    return stageShares(heat, moved, weights)
  })
  return Array.from({ length: events.length + 1 }, (_, i) => bounds(byMember.map((shares) => shares[i] as number)))
}
