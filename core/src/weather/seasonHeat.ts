import { dailyHeat, degreeDays } from '../heat/degreeDays.js'
import type { DayExtremes, HeatRule } from '../heat/rule.js'
import { quantileSorted } from '../statistics/quantile.js'
import { drawn } from './draws.js'
import { LEAD_DAYS, openIndex, tailIndex, type SeasonTail, type SeasonWeather } from './seasonWeather.js'

/** One way the season may go: what was observed, a member of the forecast, then one past season's weather. */
export interface HeatMember {
  /** First day of the past season that continues this member; the season's own first day where none does, or a made one. */
  pastSeason: number
  /** °C·d from the start day through each day of the season, inclusive; 0 before the start. */
  cumulative: Float64Array
}

/**
 * A season's heat in the pieces that its members share: each is summed once, and `joinMembers` puts them together. Daily heat
 * in °C·d throughout. The last day before the past seasons' part is a seam: the double methods look at tomorrow's minimum, so
 * its heat depends on both sides.
 */
export interface HeatSegments {
  /** Index in the season of the first day that counts; negative where it lies before the season. */
  startIndex: number
  /** Days of the season. */
  length: number
  /** Days that all members share. */
  observed: Float64Array
  /** For each member of the forecast, the days after those, up to the seam; one empty member where there is no forecast. */
  forecast: readonly Float64Array[]
  /** Heat of the seam day by member of the forecast and past season; empty where there is no day before the past seasons. */
  seam: readonly Float64Array[]
  /** For each past season the days after the seam; one empty tail where none continues. */
  tails: readonly { pastSeason: number; made: boolean; heat: Float64Array }[]
}

/** A season's heat: observed to the midnight before today, then every member of the forecast with every past season. */
export interface SeasonHeat {
  firstDay: number
  /** Index of today in the season; equal to the season's length once it is over. */
  todayIndex: number
  /** Index of the first day that is not observed: today, or earlier where the station is late. */
  openIndex: number
  /** How many days of the curves can be relied on: the whole season, or up to where the forecast or today ends. */
  knownDays: number
  segments: HeatSegments
  /** Every member of the forecast with every past season, as often as it is drawn; in the order of `drawn`. */
  members: HeatMember[]
  /** Past seasons that they come from; 1 where none continues this one. */
  seasons: number
  /** Median over the members of the heat summed per member, day by day. */
  median: Float64Array
  /** Share of the observed sum's days that rests on filled readings, 0..1. */
  filledShare: number
  /** Days ahead, today included, that come from a forecast. */
  forecastDays: number
  /** Day numbers between start and today for which there is no weather, measured or filled. Nothing is summed then. */
  missingDays: number[]
}

/**
 * Heat over a season, counted from `startDay` (a biofix or calendar date, as a day number; at the earliest 120 days before the
 * season). Heat is summed per member and year, never from averaged temperatures.
 */
export function seasonHeat(weather: SeasonWeather, rule: HeatRule, startDay: number): SeasonHeat {
  const { firstDay, length, todayIndex, tails } = weather
  const startIndex = Math.min(Math.max(startDay - firstDay, -LEAD_DAYS), length)
  const open = openIndex(weather)
  const missingDays: number[] = []
  const observed: DayExtremes[] = []
  let filled = 0
  for (let i = startIndex; i < open; i++) {
    const day = weather.observed[i + LEAD_DAYS]
    if (day) observed.push(day)
    else missingDays.push(firstDay + i)
    filled += weather.filled[i + LEAD_DAYS] as number
  }
  const forecastDays = weather.forecast[0]?.length ?? 0
  const none: SeasonHeat = {
    firstDay,
    todayIndex,
    openIndex: open,
    knownDays: 0,
    segments: { startIndex, length, observed: new Float64Array(), forecast: [], seam: [], tails: [] },
    members: [],
    seasons: 1,
    median: new Float64Array(length),
    filledShare: 0,
    forecastDays: 0,
    missingDays,
  }
  if (missingDays.length > 0) return none
  const lastKnown = tailIndex(weather)
  // A site of which nothing is known, neither read nor normal.
  if (lastKnown <= 0 && tails.length === 0) return none

  const skippedAhead = Math.max(0, startIndex - open)
  const skippedPast = Math.max(0, startIndex - lastKnown)
  const segments = segmentsOf(
    observed,
    weather.forecast.map((days) => days.slice(skippedAhead)),
    tails.map((tail) => ({ ...tail, days: skippedPast > 0 ? tail.days.slice(skippedPast) : tail.days })),
    rule,
    { startIndex, length, firstDay },
  )
  const once = joinedOnce(segments)
  return {
    firstDay,
    todayIndex,
    openIndex: open,
    knownDays: tails.length > 0 || lastKnown >= length ? length : Math.max(0, lastKnown),
    segments,
    members: drawn(once, segments.forecast.length, segments.tails.length),
    seasons: segments.tails.length,
    median: medianCurve(once, length),
    filledShare: observed.length > 0 ? filled / observed.length : 0,
    forecastDays,
    missingDays,
  }
}

function segmentsOf(
  observed: readonly DayExtremes[],
  forecast: readonly (readonly DayExtremes[])[],
  past: readonly SeasonTail[],
  rule: HeatRule,
  season: { startIndex: number; length: number; firstDay: number },
): HeatSegments {
  const { startIndex, length } = season
  const tails = past.length > 0 ? past : [{ pastSeason: season.firstDay, made: false, days: [] }]
  const lastObserved = observed.at(-1)
  // The last observed day looks at the first day of the forecast, so each member of the forecast sums it itself.
  const joined = forecast.map((days) => (lastObserved ? [lastObserved, ...days] : [...days]))
  const seamDays = joined.map((days) => days.at(-1))
  return {
    startIndex,
    length,
    observed: dailyHeat(observed, rule).slice(0, Math.max(0, observed.length - 1)),
    forecast: joined.map((days) => dailyHeat(days, rule).slice(0, Math.max(0, days.length - 1))),
    seam: seamDays.map((day) => Float64Array.from(day ? tails.map(({ days }) => degreeDays(day, rule, days[0]?.min)) : [])),
    tails: tails.map(({ pastSeason, made, days }) => ({ pastSeason, made, heat: dailyHeat(days, rule) })),
  }
}

/**
 * Puts the pieces of a season together: every member of the forecast with every past season, drawn as often as `drawsPerSeason` says
 * and in the order of `drawn`.
 */
export const joinMembers = (segments: HeatSegments): HeatMember[] =>
  drawn(joinedOnce(segments), segments.forecast.length, segments.tails.length)

function joinedOnce({ startIndex, length, observed, forecast, seam, tails }: HeatSegments): HeatMember[] {
  return forecast.flatMap((ahead, f) => {
    // What all past seasons share of this member is summed once.
    const shared = new Float64Array(length)
    let sharedSum = 0
    let from = startIndex
    for (const days of [observed, ahead])
      for (let k = 0; k < days.length && from < length; k++, from++) {
        sharedSum += days[k] as number
        if (from >= 0) shared[from] = sharedSum
      }
    return tails.map(({ pastSeason, heat }, y) => {
      const cumulative = shared.slice()
      let sum = sharedSum
      let i = from
      const seamHeat = seam[f]?.[y]
      if (seamHeat !== undefined && i < length) {
        sum += seamHeat
        if (i >= 0) cumulative[i] = sum
        i++
      }
      for (let k = 0; k < heat.length && i < length; k++, i++) {
        sum += heat[k] as number
        if (i >= 0) cumulative[i] = sum
      }
      cumulative.fill(sum, Math.max(0, i))
      return { pastSeason, cumulative }
    })
  })
}

function medianCurve(members: readonly HeatMember[], length: number): Float64Array {
  const median = new Float64Array(length)
  const column = new Float64Array(members.length)
  for (let i = 0; i < length; i++) {
    let differ = false
    members.forEach(({ cumulative }, m) => {
      column[m] = cumulative[i] as number
      differ ||= column[m] !== column[0]
    })
    // Days that were observed are the same for all.
    median[i] = differ ? quantileSorted(column.sort(), 0.5) : (column[0] as number)
  }
  return median
}
