import { dailyHeat } from '../heat/degreeDays.js'
import type { DayExtremes, HeatRule } from '../heat/rule.js'
import { quantileSorted } from '../statistics/quantile.js'
import { sameDayInYear, seasonLater } from './calendar.js'
import { fillDays, hasDay, type DailySeries } from './dailySeries.js'

/** One way the season may go: what was observed, then one past season's weather. */
export interface HeatMember {
  /** First day of the past season that continues this member; the season's own first day where nothing is left to come. */
  pastSeason: number
  /** °C·d from the start day through each day of the season, inclusive; 0 before the start. */
  cumulative: Float64Array
}

/** A season's heat: observed to the midnight before today, then one continuation per past season. */
export interface SeasonHeat {
  firstDay: number
  /** Index of today in the season; equal to the season's length once it is over. */
  todayIndex: number
  /** How many days of the curves can be relied on: the whole season, or up to today where no past season continues it. */
  knownDays: number
  members: HeatMember[]
  /** Median over the members of the heat summed per member, day by day. */
  median: Float64Array
  /** Share of the observed sum's days that rests on filled readings, 0..1. */
  filledShare: number
  /** Day numbers between start and today for which there is no weather, measured or filled. Nothing is summed then. */
  missingDays: number[]
}

/**
 * Heat over the season that starts on `firstDay`, counted from `startDay` (a biofix or calendar date), both as day
 * numbers; `today` and later days are unknown and continued by every past season that is complete over them, aligned by
 * month and day. Heat is summed per member and year, never from averaged temperatures.
 *
 * @param series daily extremes in °C over all the years there are
 */
export function seasonHeat(p: { series: DailySeries; rule: HeatRule; firstDay: number; startDay: number; today: number }): SeasonHeat {
  const { series, rule, firstDay, startDay } = p
  const length = seasonLater(firstDay, 1) - firstDay
  const todayIndex = Math.min(Math.max(p.today - firstDay, 0), length)
  const observedFrom = Math.min(Math.max(startDay - firstDay, 0), length)
  const current = fillDays(series, startDay, p.today - 1)

  const missingDays: number[] = []
  let filled = 0
  for (let i = observedFrom; i < todayIndex; i++) {
    if (!hasDay(current, firstDay + i)) missingDays.push(firstDay + i)
    else filled += current.filled[firstDay + i - current.firstDay] as number
  }
  const none = { firstDay, todayIndex, knownDays: 0, members: [], median: new Float64Array(length), filledShare: 0, missingDays }
  if (missingDays.length > 0) return none

  const observed = extremesOf(current, firstDay + observedFrom, firstDay + todayIndex)
  const past = todayIndex === length ? [] : pastSegments(series, firstDay, Math.max(todayIndex, observedFrom), length)
  const segments: { pastSeason: number; days: DayExtremes[] }[] = past.length > 0 ? past : [{ pastSeason: firstDay, days: [] }]
  const members = segments.map(({ pastSeason, days }) => {
    const cumulative = new Float64Array(length)
    // The double methods look at tomorrow's minimum, so the seam day belongs to the member: sum over the joined days.
    const heat = dailyHeat([...observed, ...days], rule)
    let sum = 0
    for (let i = observedFrom; i < length; i++) {
      sum += heat[i - observedFrom] ?? 0
      cumulative[i] = sum
    }
    return { pastSeason, cumulative }
  })
  const observedDays = todayIndex - observedFrom
  return {
    firstDay,
    todayIndex,
    knownDays: past.length > 0 || todayIndex === length ? length : todayIndex,
    members,
    median: medianCurve(members, length),
    filledShare: observedDays > 0 ? filled / observedDays : 0,
    missingDays,
  }
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
function pastSegments(series: DailySeries, firstDay: number, from: number, length: number): { pastSeason: number; days: DayExtremes[] }[] {
  const segments: { pastSeason: number; days: DayExtremes[] }[] = []
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
