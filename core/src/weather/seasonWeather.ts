import type { DayExtremes } from '../heat/rule.js'
import { sameDayInYear, seasonLater } from '../time/civilDays.js'
import { fillDays, hasDay, type DailySeries } from './dailySeries.js'

/** A member's weather begins this many days before its season: chill and winter annuals need them. */
export const LEAD_DAYS = 120

/** With fewer past seasons dates are given, and called wide: they hardly show how seasons differ. */
export const LEAST_PAST_SEASONS = 5

/** Seasons made from normals count as so many, however many are made: they know nothing of how years differ. */
const MADE_SEASONS = 4

/** Weather of one day: extremes in °C and rain in mm; NaN where rain is not known. */
export interface SeasonDay extends DayExtremes {
  rain: number
}

/** A past season, or one made from monthly normals, from the day after the forecast on. */
export interface SeasonTail {
  /** First day of the past season; for a made one the season's own first day. */
  pastSeason: number
  /** Whether it was made from monthly normals and never measured. */
  made: boolean
  days: SeasonDay[]
}

/**
 * Weather of a season in the pieces that its members share: days observed, then each member of the forecast, then each past
 * season. Days are counted from the season's first, which is 0; the 120 days before it are negative.
 */
export interface SeasonWeather {
  firstDay: number
  length: number
  /** Today; the season's length once it is over. */
  todayIndex: number
  /** Observed or filled days from −120 on; undefined where there is no weather. Empty where a site only has normals. */
  observed: (SeasonDay | undefined)[]
  /** Share of each of these days that rests on filled readings. */
  filled: number[]
  /** For each member of the forecast its days after the observed ones; one member without days where there is no forecast. */
  forecast: SeasonDay[][]
  /** Past seasons after those; empty where too few are known, and the forecast then ends. */
  tails: SeasonTail[]
}

/** First day that is not observed. */
export const openIndex = (weather: Pick<SeasonWeather, 'observed'>): number => weather.observed.length - LEAD_DAYS

/** First day that comes from past seasons. */
export const tailIndex = (weather: Pick<SeasonWeather, 'observed' | 'forecast'>): number =>
  openIndex(weather) + (weather.forecast[0]?.length ?? 0)

/**
 * The weather of the season that starts on `firstDay`: observed to the midnight before today, today and the days ahead from each
 * member of the forecast, later days from every past season that is complete over them, aligned by month and day (29 February
 * repeats the 28th). With fewer than five past seasons, seasons made from monthly normals join them; where there are neither the weather
 * ends with the forecast. Where nothing of this season was read, past seasons can stand for all of it.
 *
 * @param p.series daily extremes in °C over all the years there are
 * @param p.rain mm by day number; a day that is not there is not known
 * @param p.open first day that is not complete, where the station is late; today without it
 * @param p.forecast for each member its days from `open` on; all of one length
 * @param p.alone whether past seasons may stand for a season that is not over and of which nothing was read
 * @param p.made seasons made from normals, one entry a day from 120 days before `firstDay` to its end
 */
export function seasonWeather(p: {
  series: DailySeries
  firstDay: number
  today: number
  open?: number | undefined
  rain?: ReadonlyMap<number, number> | undefined
  forecast?: readonly (readonly (DayExtremes & { rain?: number })[])[] | undefined
  made?: readonly (readonly (DayExtremes & { rain?: number })[])[] | undefined
  alone?: boolean
}): SeasonWeather {
  const { series, firstDay } = p
  const rainOn = (day: number): number => p.rain?.get(day) ?? NaN
  const withRain = (day: DayExtremes & { rain?: number }): SeasonDay => ({ ...day, rain: day.rain ?? NaN })
  const length = seasonLater(firstDay, 1) - firstDay
  const todayIndex = Math.min(Math.max(p.today - firstDay, 0), length)
  const from = firstDay - LEAD_DAYS
  const alone = p.alone === true && todayIndex < length && !knowsAnyOf(series, firstDay, firstDay + todayIndex)
  const nothingRead = series.min.length === 0 || alone
  const open = Math.min(firstDay + todayIndex, p.open ?? Infinity)
  const current = fillDays(series, from, open - 1)
  const observed: (SeasonDay | undefined)[] = []
  const filled: number[] = []
  for (let day = from; !nothingRead && day < open; day++) {
    const i = day - current.firstDay
    observed.push(hasDay(current, day) ? { min: current.min[i] as number, max: current.max[i] as number, rain: rainOn(day) } : undefined)
    filled.push(hasDay(current, day) ? (current.filled[i] as number) : 0)
  }
  const ahead = nothingRead ? 0 : Math.min(p.forecast?.[0]?.length ?? 0, length - (open - firstDay))
  const forecast = ahead > 0 && p.forecast ? p.forecast.map((member) => member.slice(0, ahead).map(withRain)) : [[]]
  const tailFrom = tailIndex({ observed, forecast })
  const past = tailFrom >= length ? [] : pastTails(series, rainOn, firstDay, tailFrom, length)
  const made = tailFrom < length && past.length < LEAST_PAST_SEASONS ? (p.made ?? []).slice(0, MADE_SEASONS) : []
  const tails = [
    ...past,
    ...made.map((days): SeasonTail => ({ pastSeason: firstDay, made: true, days: days.slice(tailFrom + LEAD_DAYS).map(withRain) })),
  ]
  return { firstDay, length, todayIndex, observed, filled, forecast, tails }
}

/** Whether any day from one to the day before another was read. */
function knowsAnyOf(series: DailySeries, from: number, until: number): boolean {
  for (let day = from; day < until; day++) if (hasDay(series, day)) return true
  return false
}

/** Past seasons that are complete, measured or filled, from season day `from` to the season's end. */
function pastTails(series: DailySeries, rainOn: (day: number) => number, firstDay: number, from: number, length: number): SeasonTail[] {
  const tails: SeasonTail[] = []
  for (let years = -60; years < 0; years++) {
    const pastSeason = seasonLater(firstDay, years)
    if (pastSeason < series.firstDay - 366) continue
    const complete = fillDays(series, pastSeason + Math.min(0, from), seasonLater(firstDay, years + 1) - 1)
    const days: SeasonDay[] = []
    for (let i = from; i < length; i++) {
      const own = sameDayInYear(firstDay + i, years)
      // Days before a season that nobody read are taken from its own end: they only count for chill and winter annuals.
      const day = i < 0 && !hasDay(complete, own) ? sameDayInYear(own, 1) : own
      if (!hasDay(complete, day)) break
      const k = day - complete.firstDay
      days.push({ min: complete.min[k] as number, max: complete.max[k] as number, rain: rainOn(day) })
    }
    // A season mostly made of climatology would pretend to be a year of its own.
    if (days.length === length - from && measuredShare(series, pastSeason, pastSeason + length) >= 0.8)
      tails.push({ pastSeason, made: false, days })
  }
  return tails
}

function measuredShare(series: DailySeries, from: number, to: number): number {
  let measured = 0
  for (let day = from; day < to; day++) if (hasDay(series, day)) measured++
  return measured / (to - from)
}
