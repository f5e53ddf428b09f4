import { sameDayInYear, seasonLater, yearOf } from '../time/civilDays.js'
import { hasDay, type DailySeries } from '../weather/dailySeries.js'

/** Frosts of one season that starts on `season`: day numbers of the last before midsummer and the first after it. */
export interface SeasonFrosts {
  season: number
  lastSpring: number | null
  firstAutumn: number | null
  /** Whether enough days are known to say so: null then means that there was none. */
  springKnown: boolean
  autumnKnown: boolean
}

/** Days from a season's start to its midsummer: until then a frost is a spring frost. */
export const MIDSUMMER_DAYS = 196

/** Less than this share of the days known, and nothing is said of frost. */
const LEAST_KNOWN = 0.75

/**
 * Last spring and first autumn frost of a season, midsummer lying 196 days after its start; null where there was none, or where
 * a quarter or more of the days looked at are not known, which `springKnown` and `autumnKnown` tell apart.
 *
 * @param limit °C at or below which a day's minimum is a frost
 * @param until day number before which days can be known; the season's end without it
 */
export function frostsOf(series: DailySeries, season: number, limit = 0, until = Infinity): SeasonFrosts {
  const end = Math.min(until, seasonLater(season, 1))
  const middle = Math.min(end, season + MIDSUMMER_DAYS)
  const isFrost = (day: number): boolean => hasDay(series, day) && (series.min[day - series.firstDay] as number) <= limit
  const find = (days: readonly number[]): { day: number | null; known: boolean } => {
    const known = days.length > 0 && days.filter((day) => hasDay(series, day)).length >= LEAST_KNOWN * days.length
    return { day: known ? (days.find(isFrost) ?? null) : null, known }
  }
  const run = (from: number, to: number): number[] => Array.from({ length: Math.max(0, to - from) }, (_, i) => from + i)
  const [spring, autumn] = [find(run(season, middle).reverse()), find(run(middle, end))]
  return { season, lastSpring: spring.day, firstAutumn: autumn.day, springKnown: spring.known, autumnKnown: autumn.known }
}

/**
 * Share of the past seasons that still had a frost on or after the same day of the year, before their midsummer. A season without any
 * spring frost is one that had none.
 */
export function springFrostRisk(day: number, seasons: readonly SeasonFrosts[], season: number): number | null {
  const known = seasons.filter(({ springKnown }) => springKnown)
  if (known.length === 0) return null
  const late = known.filter(({ season: start, lastSpring }) => {
    const years = yearOf(start) - yearOf(season)
    return lastSpring !== null && lastSpring >= sameDayInYear(day, years)
  })
  return late.length / known.length
}

/** Frost of a season beside that of past ones. */
export interface FrostOfSeason extends SeasonFrosts {
  /** Share of past seasons that still had a frost after this day; null outside spring, or where no past season knows. */
  risk: number | null
  /** Past seasons that the risk rests on. */
  pastSeasons: number
}

/**
 * The frosts of a season up to today, and how likely another one still comes, by past seasons.
 *
 * @param filled the days of this season, gaps filled
 * @param pastYears by how many years the past seasons lie off, as `knownPastYears` gives them
 */
export function frostOfSeason(p: {
  series: DailySeries
  filled: DailySeries
  season: number
  today: number
  pastYears: readonly number[]
}): FrostOfSeason {
  const { season, today } = p
  const past = p.pastYears.map((years) => frostsOf(p.series, seasonLater(season, years)))
  return {
    ...frostsOf(p.filled, season, 0, Math.min(seasonLater(season, 1), today)),
    risk: today >= season && today < season + MIDSUMMER_DAYS ? springFrostRisk(today, past, season) : null,
    pastSeasons: past.filter(({ springKnown }) => springKnown).length,
  }
}
