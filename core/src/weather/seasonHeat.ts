import { dailyHeat, degreeDays } from '../heat/degreeDays.js'
import type { DayExtremes, HeatRule } from '../heat/rule.js'
import { quantileSorted } from '../statistics/quantile.js'
import { sameDayInYear, seasonLater } from './calendar.js'
import { fillDays, hasDay, type DailySeries } from './dailySeries.js'

/** One way the season may go: what was observed, a member of the forecast, then one past season's weather. */
export interface HeatMember {
  /** First day of the past season that continues this member; the season's own first day where none does. */
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
  /** Index in the season of the first day that counts. */
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
  tails: readonly { pastSeason: number; heat: Float64Array }[]
}

/** A season's heat: observed to the midnight before today, then every member of the forecast with every past season. */
export interface SeasonHeat {
  firstDay: number
  /** Index of today in the season; equal to the season's length once it is over. */
  todayIndex: number
  /** How many days of the curves can be relied on: the whole season, or up to where the forecast or today ends. */
  knownDays: number
  segments: HeatSegments
  /** Forecast-major: all past seasons of the first member of the forecast, then of the second. */
  members: HeatMember[]
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
 * Heat over the season that starts on `firstDay`, counted from `startDay` (a biofix or calendar date), both as day numbers.
 * `today` and the days of the forecast come from each of its members, later days from every past season that is complete over
 * them, aligned by month and day: the full cross of both. Heat is summed per member and year, never from averaged
 * temperatures.
 *
 * @param p.series daily extremes in °C over all the years there are
 * @param p.forecast for each member of a forecast its daily extremes from `today` on; all of one length
 */
export function seasonHeat(p: {
  series: DailySeries
  rule: HeatRule
  firstDay: number
  startDay: number
  today: number
  forecast?: readonly (readonly DayExtremes[])[]
}): SeasonHeat {
  const { series, rule, firstDay, startDay } = p
  const length = seasonLater(firstDay, 1) - firstDay
  const todayIndex = Math.min(Math.max(p.today - firstDay, 0), length)
  const startIndex = Math.min(Math.max(startDay - firstDay, 0), length)
  const current = fillDays(series, startDay, p.today - 1)

  const missingDays: number[] = []
  let filled = 0
  for (let i = startIndex; i < todayIndex; i++) {
    if (!hasDay(current, firstDay + i)) missingDays.push(firstDay + i)
    else filled += current.filled[firstDay + i - current.firstDay] as number
  }
  const empty: HeatSegments = { startIndex, length, observed: new Float64Array(), forecast: [], seam: [], tails: [] }
  const none = {
    firstDay,
    todayIndex,
    knownDays: 0,
    segments: empty,
    members: [],
    median: new Float64Array(length),
    filledShare: 0,
    forecastDays: 0,
    missingDays,
  }
  if (missingDays.length > 0) return none

  const observed = extremesOf(current, firstDay + startIndex, firstDay + todayIndex)
  const ahead = forecastAhead(p.forecast ?? [], todayIndex, startIndex, length)
  const lastKnown = todayIndex + ahead.days
  const past = lastKnown >= length ? [] : pastSegments(series, firstDay, Math.max(lastKnown, startIndex), length)
  const segments = segmentsOf(observed, ahead.members, past, rule, { startIndex, length, firstDay })
  const members = joinMembers(segments)
  const observedDays = todayIndex - startIndex
  return {
    firstDay,
    todayIndex,
    knownDays: past.length > 0 || lastKnown >= length ? length : lastKnown,
    segments,
    members,
    median: medianCurve(members, length),
    filledShare: observedDays > 0 ? filled / observedDays : 0,
    forecastDays: ahead.days,
    missingDays,
  }
}

/** The days of a forecast that lie in the season and count; one member without days where there is no forecast. */
function forecastAhead(
  forecast: readonly (readonly DayExtremes[])[],
  todayIndex: number,
  startIndex: number,
  length: number,
): { days: number; members: DayExtremes[][] } {
  const days = Math.min(forecast[0]?.length ?? 0, length - todayIndex)
  if (days <= 0) return { days: 0, members: [[]] }
  const skipped = Math.max(0, startIndex - todayIndex)
  return { days, members: forecast.map((member) => member.slice(skipped, days)) }
}

interface PastSegment {
  pastSeason: number
  days: DayExtremes[]
}

function segmentsOf(
  observed: readonly DayExtremes[],
  forecast: readonly (readonly DayExtremes[])[],
  past: readonly PastSegment[],
  rule: HeatRule,
  season: { startIndex: number; length: number; firstDay: number },
): HeatSegments {
  const { startIndex, length } = season
  const tails = past.length > 0 ? past : [{ pastSeason: season.firstDay, days: [] }]
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
    tails: tails.map(({ pastSeason, days }) => ({ pastSeason, heat: dailyHeat(days, rule) })),
  }
}

/** Puts the pieces of a season together: every member of the forecast with every past season, forecast-major. */
export function joinMembers({ startIndex, length, observed, forecast, seam, tails }: HeatSegments): HeatMember[] {
  return forecast.flatMap((ahead, f) =>
    tails.map(({ pastSeason, heat }, y) => {
      const cumulative = new Float64Array(length)
      let sum = 0
      let i = startIndex
      const add = (days: ArrayLike<number>): void => {
        for (let k = 0; k < days.length && i < length; k++) cumulative[i++] = sum += days[k] as number
      }
      add(observed)
      add(ahead)
      const seamHeat = seam[f]?.[y]
      if (seamHeat !== undefined) add([seamHeat])
      add(heat)
      cumulative.fill(sum, i)
      return { pastSeason, cumulative }
    }),
  )
}

function extremesOf(series: DailySeries, from: number, to: number): DayExtremes[] {
  const days: DayExtremes[] = []
  for (let day = from; day < to; day++) {
    const i = day - series.firstDay
    days.push({ min: series.min[i] as number, max: series.max[i] as number })
  }
  return days
}

/** Past seasons that are complete, measured or filled, from season day `from` to the season's end. */
function pastSegments(series: DailySeries, firstDay: number, from: number, length: number): PastSegment[] {
  const segments: PastSegment[] = []
  for (let years = -60; years < 0; years++) {
    const pastSeason = seasonLater(firstDay, years)
    if (pastSeason < series.firstDay - 366) continue
    const complete = fillDays(series, pastSeason, seasonLater(firstDay, years + 1) - 1)
    const days: DayExtremes[] = []
    for (let i = from; i < length; i++) {
      const day = sameDayInYear(firstDay + i, years)
      if (!hasDay(complete, day)) break
      days.push(...extremesOf(complete, day, day + 1))
    }
    // A season mostly made of climatology would pretend to be a year of its own.
    if (days.length === length - from && measuredShare(series, pastSeason, pastSeason + length) >= 0.8) segments.push({ pastSeason, days })
  }
  return segments
}

function measuredShare(series: DailySeries, from: number, to: number): number {
  let measured = 0
  for (let day = from; day < to; day++) if (hasDay(series, day)) measured++
  return measured / (to - from)
}

function medianCurve(members: readonly HeatMember[], length: number): Float64Array {
  const median = new Float64Array(length)
  const column = new Float64Array(members.length)
  for (let i = 0; i < length; i++) {
    members.forEach(({ cumulative }, m) => (column[m] = cumulative[i] as number))
    median[i] = quantileSorted(column.slice().sort(), 0.5)
  }
  return median
}
