import { hoursFromExtremes } from '../derived/hoursFromExtremes.js'
import type { Position } from '../derived/sun.js'
import { dailyFromHours, hasDay, withDailyExtremes, type DailySeries } from './dailySeries.js'
import type { HourlySeries } from './fillHours.js'

/** Hours of a station that are believed, in standard time; NaN: not known. */
export interface BelievedHours {
  firstHour: number
  length: number
  values: { temperature: Float64Array; rain: Float64Array }
  /** 1 where the temperature was filled. */
  filled: Uint8Array
}

/** A day of which the extremes in °C are known by themselves, from a file of days or typed, and its rain in mm where that is. */
export interface TypedDay {
  /** Day number. */
  day: number
  min: number
  max: number
  rain: number | null
  /** Typed by somebody: it holds against what a station read of that day. */
  byHand?: boolean
}

/** A station day by day, with its hours as far as there are any. */
export interface StationDays {
  series: DailySeries
  /** Rain in mm per day, by day number; a day with an unknown hour of rain has none. */
  rain: Map<number, number>
  /**
   * Hourly temperatures without a gap where the days allow it: days of which only extremes are known, read or typed, have hours made
   * from these. `made` marks them.
   */
  temperatures: HourlySeries & { made: Uint8Array }
}

/**
 * Days of a station from its hours and from what is known of whole days: extremes and rain of each day, and hours for days without any.
 * What was typed by hand wins over hours, and its hours are then made from its extremes; days of a file stand only where hours say
 * nothing.
 *
 * @param position where it stands; undefined where nobody said, and no hours are then made
 */
export function stationDays(
  hours: BelievedHours,
  typed: readonly TypedDay[],
  position: Position | undefined,
  utcOffsetMinutes: number,
): StationDays {
  const series = withDailyExtremes(
    dailyFromHours({ firstHour: hours.firstHour, tempsC: hours.values.temperature, filled: hours.filled }),
    typed.map(({ day, min, max, byHand }) => ({ day, min, max, ...(byHand ? { overHours: true } : {}) })),
  )
  const rain = dailyRain(hours)
  for (const { day, rain: mm, byHand } of typed) if (mm !== null && (byHand || !rain.has(day))) rain.set(day, mm)
  const typedOver = new Set(typed.flatMap(({ day, byHand }) => (byHand ? [day] : [])))
  return { series, rain, temperatures: withMadeHours(hours, series, typedOver, position, utcOffsetMinutes) }
}

/** Rain of each whole day in mm; none for a day with an unknown hour. */
export function dailyRain({ firstHour, length, values }: Pick<BelievedHours, 'firstHour' | 'length' | 'values'>): Map<number, number> {
  const rain = new Map<number, number>()
  for (let i = (24 - (((firstHour % 24) + 24) % 24)) % 24; i + 24 <= length; i += 24) {
    let sum = 0
    for (let k = i; k < i + 24; k++) sum += values.rain[k] as number
    if (!Number.isNaN(sum)) rain.set((firstHour + i) / 24, sum)
  }
  return rain
}

/** Hours read, and hours made from extremes for the runs of days that have no hours of their own, or none that hold. */
function withMadeHours(
  hours: BelievedHours,
  series: DailySeries,
  typedOver: ReadonlySet<number>,
  position: Position | undefined,
  utcOffsetMinutes: number,
): StationDays['temperatures'] {
  const read = hours.values.temperature
  if (!position || series.min.length === 0) return { firstHour: hours.firstHour, values: read, made: new Uint8Array(read.length) }
  const firstHour = series.firstDay * 24
  const values = new Float64Array(series.min.length * 24).fill(NaN)
  const made = new Uint8Array(values.length)
  for (let i = 0; i < read.length; i++) {
    const k = hours.firstHour + i - firstHour
    if (k >= 0 && k < values.length) values[k] = read[i] as number
  }
  const withoutHours = (d: number): boolean => {
    if (!hasDay(series, series.firstDay + d)) return false
    if (typedOver.has(series.firstDay + d)) return true
    for (let k = d * 24; k < d * 24 + 24; k++) if (!Number.isNaN(values[k])) return false
    return true
  }
  for (let d = 0; d < series.min.length; d++) {
    let end = d
    while (end < series.min.length && withoutHours(end)) end++
    if (end === d) continue
    const days = Array.from({ length: end - d }, (_, i) => ({ min: series.min[d + i] as number, max: series.max[d + i] as number }))
    values.set(hoursFromExtremes(days, series.firstDay + d, position, utcOffsetMinutes), d * 24)
    made.fill(1, d * 24, end * 24)
    d = end
  }
  return { firstHour, values, made }
}
