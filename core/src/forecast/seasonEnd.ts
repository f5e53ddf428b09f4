import { MIDSUMMER_DAYS } from '../derived/frost.js'
import { sunTimes } from '../derived/sun.js'
import { boundsOfDates, type Ensemble } from '../phenology/ensemble.js'
import type { SeasonEndModel } from '../phenology/model.js'
import type { Bounds } from '../statistics/quantile.js'
import { drawn } from '../weather/draws.js'
import { LEAD_DAYS, openIndex, tailIndex, type SeasonDay, type SeasonTail } from '../weather/seasonWeather.js'
import type { SeasonAtPlace } from './seasonAtPlace.js'

/** The end of a season over an ensemble. */
export interface SeasonEnd {
  by: SeasonEndModel['by']
  date: Bounds
}

/**
 * For each draw the day of the season on which the first of its ends comes; Infinity where none does. Draws are those of the heat
 * members, in their order.
 */
export function endDays(
  ends: readonly SeasonEndModel[],
  { weather, position, utcOffsetMinutes }: Pick<SeasonAtPlace, 'weather' | 'position' | 'utcOffsetMinutes'>,
): { by: SeasonEndModel['by']; days: number[] }[] {
  return ends.map((end) => ({
    by: end.by,
    days:
      end.by === 'frost'
        ? frostDays(end.limit, weather)
        : drawnAlike(
            position ? shortDay(end.limit, weather, (day) => sunTimes(day, position, utcOffsetMinutes).dayLength) : Infinity,
            weather,
          ),
  }))
}

/** The first end of each draw. */
export const firstEnds = (ends: readonly { days: readonly number[] }[]): number[] =>
  (ends[0]?.days ?? []).map((_, m) => Math.min(...ends.map(({ days }) => days[m] ?? Infinity)))

/** When a season ends, and by what it mostly does; null where nothing ends it, or no weather is known to its end. */
export function seasonEnd(ends: readonly { by: SeasonEndModel['by']; days: readonly number[] }[], ensemble: Ensemble): SeasonEnd | null {
  const first = firstEnds(ends)
  if (first.length === 0 || first.length !== ensemble.members.length) return null
  const wins = ends.map(({ by, days }) => ({ by, n: days.filter((day, m) => day === first[m]).length })).sort((a, b) => b.n - a.n)
  return { by: wins[0]?.by ?? 'frost', date: boundsOfDates(first, ensemble) }
}

type Weather = SeasonAtPlace['weather']

/** The first night after midsummer at or below a limit, draw by draw. */
function frostDays(limit: number, weather: Weather): number[] {
  const { observed, forecast, tails } = weather
  const firstIn = (days: readonly (SeasonDay | undefined)[], from: number): number => {
    const i = days.findIndex((day, k) => from + k >= MIDSUMMER_DAYS && day !== undefined && day.min <= limit)
    return i < 0 ? Infinity : from + i
  }
  const seen = firstIn(observed.slice(LEAD_DAYS), 0)
  const continued: readonly Pick<SeasonTail, 'days'>[] = tails.length > 0 ? tails : [{ days: [] }]
  const joined = forecast.flatMap((member) => {
    const ahead = Math.min(seen, firstIn(member, openIndex(weather)))
    return continued.map(({ days }) => Math.min(ahead, firstIn(days, tailIndex(weather))))
  })
  return drawn(joined, forecast.length, continued.length)
}

/** From then to midwinter days grow shorter. */
const SHORTENING_DAYS = 158

/** The first day after midsummer that is shorter: until midwinter each day is shorter than the one before, so halves tell. */
function shortDay(hours: number, { firstDay, length }: Weather, dayLength: (day: number) => number): number {
  const isShort = (i: number): boolean => dayLength(firstDay + i) < hours
  let low = MIDSUMMER_DAYS
  let high = Math.min(length, MIDSUMMER_DAYS + SHORTENING_DAYS) - 1
  if (high < low || !isShort(high)) return Infinity
  while (low < high) {
    const middle = Math.floor((low + high) / 2)
    if (isShort(middle)) high = middle
    else low = middle + 1
  }
  return low
}

const drawnAlike = (day: number, { forecast, tails }: Weather): number[] =>
  drawn(new Array<number>(forecast.length * Math.max(1, tails.length)).fill(day), forecast.length, Math.max(1, tails.length))
