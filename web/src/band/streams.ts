import type { WatchForecast } from '@bocado/contract'
import {
  BEGUN_SHARE,
  datesOf,
  joinMembers,
  probabilityBy,
  shareReached,
  stageShareBounds,
  stageShares,
  type Bounds,
  type Ensemble,
  type HeatMember,
} from '@bocado/core'

/** One stage of one generation over the season: bottom and top of its stream on each day, 0 to 1. */
export interface Stream {
  eventId: string
  stage: string
  generation: string
  bottom: number[]
  top: number[]
}

const weightsOf = ({ events }: WatchForecast): number[] => events.map(({ weight }) => weight)

/**
 * Streams of a watch along its median heat. Later stages lie below earlier ones, so that the line above a stage is the
 * share of the population that has reached it.
 */
export function streamsOf(forecast: WatchForecast): Stream[] {
  const spreads = forecast.events.map(({ spread }) => spread)
  const weights = weightsOf(forecast)
  const shares = forecast.heat.median.map((heat, day) => (day < forecast.heat.biofixIndex ? null : stageShares(heat, spreads, weights)))
  return forecast.events.map(({ id, stage, generation }, i) => {
    const bottom: number[] = []
    const top: number[] = []
    for (const day of shares) {
      const below = day ? day.slice(i + 2).reduce((a, b) => a + b, 0) : 0
      bottom.push(below)
      top.push(below + (day?.[i + 1] ?? 0))
    }
    return { eventId: id, stage, generation, bottom, top }
  })
}

function byStage<T>(forecast: WatchForecast, ofEvent: (index: number) => T, add: (a: T, b: T) => T): { stage: string; share: T }[] {
  const found = new Map<string, T>()
  forecast.events.forEach(({ stage }, i) => {
    const before = found.get(stage)
    found.set(stage, before === undefined ? ofEvent(i) : add(before, ofEvent(i)))
  })
  return [...found].map(([stage, share]) => ({ stage, share }))
}

/** Share of the population in each stage, by name, at a heat. */
export function stageSharesAt(forecast: WatchForecast, heat: number): { stage: string; share: number }[] {
  const shares = stageShares(
    heat,
    forecast.events.map(({ spread }) => spread),
    weightsOf(forecast),
  )
  return byStage(
    forecast,
    (i) => shares[i + 1] ?? 0,
    (a, b) => a + b,
  )
}

/** The same on a day of the season, with its predictive bounds: the figures' error, and after today the weather's too. */
export const stageBoundsOn = (forecast: WatchForecast, dayIndex: number): { stage: string; share: Bounds }[] =>
  stageShareBounds(forecast.events, weightsOf(forecast), ensembleOf(forecast), dayIndex)

/** How likely each event has begun by the end of a day of the season. */
export function chancesBy(forecast: WatchForecast, dayIndex: number): Map<string, number> {
  const ensemble = ensembleOf(forecast)
  const { members, scores } = ensemble
  return new Map(
    forecast.events.map((event) => [event.id, probabilityBy(datesOf(event, BEGUN_SHARE, members, scores), dayIndex, ensemble)]),
  )
}

/** How the season of a watch may go, put together from the pieces that were sent. */
export function ensembleOf(forecast: Pick<WatchForecast, 'heat'>): Ensemble {
  const { scores, openIndex, segments } = forecast.heat
  return { members: membersOf(forecast), scores, seasons: Math.max(1, segments.tails.length), openIndex }
}

const joined = new WeakMap<WatchForecast['heat'], HeatMember[]>()

/** The members of a forecast, put together from the pieces that were sent; made once. */
export function membersOf({ heat: ofWatch }: Pick<WatchForecast, 'heat'>): HeatMember[] {
  let members = joined.get(ofWatch)
  if (!members) {
    const { observed, forecast: ahead, seam, tails, ...season } = ofWatch.segments
    members = joinMembers({
      ...season,
      observed: Float64Array.from(observed),
      forecast: ahead.map((days) => Float64Array.from(days)),
      seam: seam.map((days) => Float64Array.from(days)),
      tails: tails.map(({ pastSeason, made, heat }) => ({ pastSeason, made, heat: Float64Array.from(heat) })),
    })
    joined.set(ofWatch, members)
  }
  return members
}

/** The member of the weather forecast with the middle sum: with it each past season is drawn once. */
function middleForecast({ forecast, seam }: WatchForecast['heat']['segments']): number {
  const sums = forecast.map((days, f) => ({ f, sum: days.reduce((a, b) => a + b, 0) + (seam[f]?.[0] ?? 0) })).sort((a, b) => a.sum - b.sum)
  return sums[sums.length >> 1]?.f ?? 0
}

/** The line above a stage over days from `from` on: share that has reached the event, day by day. */
export interface ReachedLine {
  key: string
  from: number
  reached: number[]
}

/** The events at which a watch's stages come into reach or go out of it. */
function edgeEvents(forecast: WatchForecast): WatchForecast['events'] {
  const reachable = new Set(forecast.generations.flatMap(({ reachableStages }) => reachableStages))
  return forecast.events.filter(({ stage }, i) => reachable.has(stage) !== reachable.has(forecast.events[i - 1]?.stage ?? ''))
}

/** What has come into reach and gone out of it, continued by each past season from today on. */
export function continuations(forecast: WatchForecast): ReachedLine[] {
  if (forecast.heat.pastSeasons === 0) return []
  const from = Math.max(forecast.heat.todayIndex - 1, forecast.heat.biofixIndex, 0)
  const years = forecast.heat.segments.tails.length
  const first = middleForecast(forecast.heat.segments) * years
  const members = membersOf(forecast).slice(first, first + years)
  return edgeEvents(forecast).flatMap(({ id, spread, weight }) =>
    members.map(({ pastSeason, cumulative }) => ({
      key: `${id} ${pastSeason}`,
      from,
      reached: Array.from(cumulative.slice(from), (heat) => weight * shareReached(heat, spread)),
    })),
  )
}

/** The same lines as past seasons had them from the same biofix on, by their own weather. */
export function ghosts(forecast: WatchForecast, past: readonly { season: string; cumulative: readonly number[] }[]): ReachedLine[] {
  const from = Math.max(0, forecast.heat.biofixIndex)
  return edgeEvents(forecast).flatMap(({ id, spread, weight }) =>
    past.map(({ season, cumulative }) => ({
      key: `${id} ${season}`,
      from,
      reached: cumulative.slice(from).map((heat) => weight * shareReached(heat, spread)),
    })),
  )
}
