import { sunTimes, type Position } from './sun.js'

/** Extremes of one day in °C. */
interface Extremes {
  min: number
  max: number
}

/** A night this short is a straight line from sunset to sunrise. */
const SHORT_NIGHT_HOURS = 1
const MIDDAY_PLUS_HOURS = 4

/**
 * Hourly temperatures in °C from daily extremes (Linvill 1990): by day half a sine wave that reaches the maximum after noon, by
 * night a logarithmic fall to the next day's minimum at sunrise. Each value is that of the middle of its hour. Before the first
 * sunrise the first day stands in for the day before it, after the last sunset the last day's minimum for tomorrow's.
 *
 * @param days one entry a day from `firstDay` on
 * @param place degrees; the length of the day follows from it
 * @param utcOffsetMinutes standard time, minutes east of UTC
 * @returns 24 values a day
 * @throws RangeError naming the day for a minimum above the maximum or a value that is not finite
 */
export function hoursFromExtremes(days: readonly Extremes[], firstDay: number, place: Position, utcOffsetMinutes: number): Float64Array {
  const result = new Float64Array(days.length * 24)
  days.forEach(({ min, max }, d) => {
    if (!Number.isFinite(min) || !Number.isFinite(max) || min > max)
      throw new RangeError(`days[${d}].min must not be above max, got ${min} and ${max}`)
  })
  const shapes = days.map((_, d) => {
    const sun = sunTimes(firstDay + d, place, utcOffsetMinutes)
    // Around the pole the day has no sunrise of its own: it is taken around noon.
    const sunrise = sun.sunrise ?? 12 - sun.dayLength / 2
    return { sunrise, dayLength: sun.dayLength }
  })
  for (let i = 0; i < result.length; i++) {
    const d = Math.floor(i / 24)
    const hour = (i % 24) + 0.5
    const { sunrise } = shapes[d] as (typeof shapes)[number]
    const before = hour < sunrise
    const day = before ? Math.max(0, d - 1) : d
    const since = hour - sunrise + (before ? 24 : 0)
    const next = days[before ? d : d + 1] ?? days[day]
    result[i] = temperatureSince(since, days[day] as Extremes, next as Extremes, (shapes[day] as (typeof shapes)[number]).dayLength)
  }
  return result
}

/** Temperature `since` hours after sunrise. */
function temperatureSince(since: number, { min, max }: Extremes, next: Extremes, dayLength: number): number {
  const byDay = (t: number): number => (max - min) * Math.sin((Math.PI * t) / (dayLength + MIDDAY_PLUS_HOURS)) + min
  if (since <= dayLength) return byDay(since)
  const sunset = byDay(dayLength)
  const night = 24 - dayLength
  const t = since - dayLength
  if (night <= SHORT_NIGHT_HOURS) return sunset + ((next.min - sunset) * t) / night
  if (t < 1) return sunset
  return sunset - ((sunset - next.min) / Math.log(night)) * Math.log(Math.min(t, night))
}
