import { sameDayInYear } from '../time/civilDays.js'

/**
 * Hourly temperatures in °C; hour i begins `firstHour + i` hours after 1970-01-01 in standard time. NaN: no reading.
 * `filled` marks, with 1, the hours that hold a value in place of a reading.
 */
export interface HourlyTemperatures {
  firstHour: number
  tempsC: Float64Array
  filled?: Uint8Array
}

/**
 * Daily extremes in °C; entry i is day `firstDay + i`. A day without extremes holds NaN in both. `filled` is the share of
 * each day, 0..1, that rests on filled readings, so that every sum can say how far it is measured.
 */
export interface DailySeries {
  firstDay: number
  min: Float64Array
  max: Float64Array
  filled: Float64Array
}

const LONGEST_INTERPOLATED_GAP_HOURS = 3
const LONGEST_BRIDGED_GAP_DAYS = 3
const CLIMATOLOGY_HALF_WIDTH_DAYS = 3
const CLIMATOLOGY_LEAST_YEARS = 3

/** An empty series of `length` days. */
function emptySeries(firstDay: number, length: number): DailySeries {
  return { firstDay, min: new Float64Array(length).fill(NaN), max: new Float64Array(length).fill(NaN), filled: new Float64Array(length) }
}

/** Whether the series holds extremes for a day number. */
export function hasDay(series: DailySeries, day: number): boolean {
  const i = day - series.firstDay
  return i >= 0 && i < series.min.length && !Number.isNaN(series.min[i])
}

/** Gaps of at most three hours between readings become straight lines; returns the new values and where they are. */
function interpolateShortGaps(temps: Float64Array): { temps: Float64Array; interpolated: Uint8Array } {
  const result = Float64Array.from(temps)
  const interpolated = new Uint8Array(temps.length)
  let last = -1
  for (let i = 0; i < temps.length; i++) {
    if (Number.isNaN(temps[i])) continue
    const gap = i - last - 1
    if (last >= 0 && gap > 0 && gap <= LONGEST_INTERPOLATED_GAP_HOURS) {
      const from = temps[last] as number
      const step = ((temps[i] as number) - from) / (gap + 1)
      for (let k = 1; k <= gap; k++) {
        result[last + k] = from + step * k
        interpolated[last + k] = 1
      }
    }
    last = i
  }
  return { temps: result, interpolated }
}

/**
 * Daily extremes from hourly temperatures. Gaps of up to three hours are interpolated and counted as filled; a day that
 * still lacks hours has no extremes, because its minimum or maximum may lie in the gap.
 */
export function dailyFromHours(hours: HourlyTemperatures): DailySeries {
  const { temps, interpolated } = interpolateShortGaps(hours.tempsC)
  const firstDay = Math.floor(hours.firstHour / 24)
  const lastDay = Math.floor((hours.firstHour + temps.length - 1) / 24)
  const series = emptySeries(firstDay, temps.length === 0 ? 0 : lastDay - firstDay + 1)
  for (let d = 0; d < series.min.length; d++) {
    const start = (firstDay + d) * 24 - hours.firstHour
    if (start < 0 || start + 24 > temps.length) continue
    let min = Infinity
    let max = -Infinity
    let filled = 0
    for (let i = start; i < start + 24; i++) {
      const t = temps[i] as number
      if (Number.isNaN(t)) {
        min = NaN
        break
      }
      if (t < min) min = t
      if (t > max) max = t
      filled += (interpolated[i] as number) | (hours.filled?.[i] ?? 0)
    }
    if (Number.isNaN(min)) continue
    series.min[d] = min
    series.max[d] = max
    series.filled[d] = filled / 24
  }
  return series
}

/**
 * Lays measured daily extremes under a series made from hours: a day complete in hours keeps them, unless they are to lie over its hours;
 * any other day takes the extremes that were read or typed for it.
 */
export function withDailyExtremes(
  series: DailySeries,
  extremes: readonly { day: number; min: number; max: number; overHours?: boolean }[],
): DailySeries {
  if (extremes.length === 0) return series
  const days = extremes.map(({ day }) => day)
  const hasHours = series.min.length > 0
  const first = days.reduce((a, b) => Math.min(a, b), hasHours ? series.firstDay : Infinity)
  const last = days.reduce((a, b) => Math.max(a, b), hasHours ? series.firstDay + series.min.length - 1 : -Infinity)
  const result = emptySeries(first, last - first + 1)
  if (hasHours) {
    result.min.set(series.min, series.firstDay - first)
    result.max.set(series.max, series.firstDay - first)
    result.filled.set(series.filled, series.firstDay - first)
  }
  for (const { day, min, max, overHours } of extremes) {
    if (min > max) throw new RangeError(`extremes[${day}].min must not be above max, got ${min} and ${max}`)
    if (hasDay(result, day) && !overHours) continue
    result.min[day - first] = min
    result.max[day - first] = max
    result.filled[day - first] = 0
  }
  return result
}

/**
 * Fills the missing days from `from` to `to` (day numbers, inclusive) so that heat can be summed over them, and marks them
 * as filled: gaps of up to three days by a straight line between the neighbouring days' extremes, longer ones by the mean
 * of the same days (± 3) of at least three other years. Days that neither reaches stay missing; nothing outside the range
 * is touched.
 */
export function fillDays(series: DailySeries, from: number, to: number): DailySeries {
  const { firstDay } = series
  const result: DailySeries = { firstDay, min: series.min.slice(), max: series.max.slice(), filled: series.filled.slice() }
  const last = firstDay + series.min.length - 1
  for (let day = Math.max(from, firstDay); day <= Math.min(to, last); day++) {
    if (hasDay(series, day)) continue
    let end = day
    while (end < last && !hasDay(series, end + 1)) end++
    const gap = end - day + 1
    const bridged = gap <= LONGEST_BRIDGED_GAP_DAYS && hasDay(series, day - 1) && hasDay(series, end + 1)
    for (let d = day; d <= Math.min(end, to); d++) {
      const extremes = bridged ? between(series, day - 1, end + 1, d) : climatology(series, d)
      if (!extremes) continue
      result.min[d - firstDay] = extremes.min
      result.max[d - firstDay] = extremes.max
      result.filled[d - firstDay] = 1
    }
    day = end
  }
  return result
}

function between(series: DailySeries, before: number, after: number, day: number): { min: number; max: number } {
  const weight = (day - before) / (after - before)
  const mix = (values: Float64Array): number =>
    (values[before - series.firstDay] as number) * (1 - weight) + (values[after - series.firstDay] as number) * weight
  return { min: mix(series.min), max: mix(series.max) }
}

function climatology(series: DailySeries, day: number): { min: number; max: number } | undefined {
  let years = 0
  let min = 0
  let max = 0
  for (let offset = -60; offset <= 60; offset++) {
    if (offset === 0) continue
    const centre = sameDayInYear(day, offset)
    let n = 0
    let low = 0
    let high = 0
    for (let d = centre - CLIMATOLOGY_HALF_WIDTH_DAYS; d <= centre + CLIMATOLOGY_HALF_WIDTH_DAYS; d++) {
      if (!hasDay(series, d)) continue
      n++
      low += series.min[d - series.firstDay] as number
      high += series.max[d - series.firstDay] as number
    }
    if (n === 0) continue
    years++
    min += low / n
    max += high / n
  }
  return years >= CLIMATOLOGY_LEAST_YEARS ? { min: min / years, max: max / years } : undefined
}
