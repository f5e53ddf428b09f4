import type { WatchForecast } from '@bocado/contract'
import { joinMembers, shareReached, stageShares, type HeatMember } from '@bocado/core'

/** One stage of one generation over the season: bottom and top of its stream on each day, 0 to 1. */
export interface Stream {
  eventId: string
  stage: string
  generation: string
  bottom: number[]
  top: number[]
}

/**
 * Streams of a watch along its median heat. Later stages lie below earlier ones, so that the line above a stage is the
 * share of the population that has reached it.
 */
export function streamsOf(forecast: WatchForecast): Stream[] {
  const spreads = forecast.events.map(({ spread }) => spread)
  const shares = forecast.heat.median.map((heat, day) => (day < forecast.heat.biofixIndex ? null : stageShares(heat, spreads)))
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

/** Share of the population in each stage, by name, at a heat. */
export function stageSharesAt(forecast: WatchForecast, heat: number): { stage: string; share: number }[] {
  const shares = stageShares(
    heat,
    forecast.events.map(({ spread }) => spread),
  )
  const byStage = new Map<string, number>()
  forecast.events.forEach(({ stage }, i) => byStage.set(stage, (byStage.get(stage) ?? 0) + (shares[i + 1] ?? 0)))
  return [...byStage].map(([stage, share]) => ({ stage, share }))
}

const joined = new WeakMap<WatchForecast, HeatMember[]>()

/** The members of a forecast, put together from the pieces that were sent; made once. */
export function membersOf(forecast: WatchForecast): HeatMember[] {
  let members = joined.get(forecast)
  if (!members) {
    const { observed, forecast: ahead, seam, tails, ...season } = forecast.heat.segments
    members = joinMembers({
      ...season,
      observed: Float64Array.from(observed),
      forecast: ahead.map((days) => Float64Array.from(days)),
      seam: seam.map((days) => Float64Array.from(days)),
      tails: tails.map(({ pastSeason, made, heat }) => ({ pastSeason, made, heat: Float64Array.from(heat) })),
    })
    joined.set(forecast, members)
  }
  return members
}

/** The member of the weather forecast with the middle sum: with it each past season is drawn once. */
function middleForecast({ forecast, seam }: WatchForecast['heat']['segments']): number {
  const sums = forecast.map((days, f) => ({ f, sum: days.reduce((a, b) => a + b, 0) + (seam[f]?.[0] ?? 0) })).sort((a, b) => a.sum - b.sum)
  return sums[sums.length >> 1]?.f ?? 0
}

/** The line above a stage, continued by each past season from today on: share that has reached the event, day by day. */
export function continuations(forecast: WatchForecast, eventId: string): { season: number; from: number; reached: number[] }[] {
  const event = forecast.events.find(({ id }) => id === eventId)
  if (!event || forecast.heat.pastSeasons === 0) return []
  const from = Math.max(forecast.heat.todayIndex - 1, forecast.heat.biofixIndex)
  const years = forecast.heat.segments.tails.length
  const first = middleForecast(forecast.heat.segments) * years
  return membersOf(forecast)
    .slice(first, first + years)
    .map(({ pastSeason, cumulative }) => ({
      season: pastSeason,
      from,
      reached: Array.from(cumulative.slice(from), (heat) => shareReached(heat, event.spread)),
    }))
}
