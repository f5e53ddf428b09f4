import { hasDay, type DailySeries } from './dailySeries.js'
import type { HourlySeries } from './fillHours.js'

/** A station that has been silent for longer is no longer only late: its days are filled, and said to be. */
const LATEST_DAYS = 10
/** A day of which at least half was read is completed rather than thrown away. */
const LEAST_HOURS = 12

/**
 * First day that is not yet complete, up to today: where the last readings have not come the days are not over, and what is expected of
 * today is expected of them. A station that has been silent for more than ten days has a gap instead.
 *
 * @param today the station's day
 */
export function firstOpenDay(series: DailySeries, today: number): number {
  let open = today
  while (open > today - LATEST_DAYS && !hasDay(series, open - 1)) open--
  return hasDay(series, open - 1) ? open : today
}

/**
 * Days that are over but for hours that nobody sent, completed from the hours there are: each missing hour is that of the day before,
 * moved by as much as the last known hour stands off it. Days with fewer than twelve hours, and all after them, stay as they are.
 *
 * @param from first day that is not complete
 * @param today the station's day; its own hours are left alone
 * @returns the series with those days, marked by the share of them that was not read
 */
export function completeLateDays(series: DailySeries, hours: HourlySeries, from: number, today: number): DailySeries {
  const at = (hour: number): number => hours.values[hour - hours.firstHour] ?? NaN
  const completed = new Map<number, Float64Array>()
  const valueAt = (hour: number): number => {
    const made = completed.get(Math.floor(hour / 24))?.[((hour % 24) + 24) % 24]
    return made ?? at(hour)
  }
  let result = series
  for (let day = from; day < today; day++) {
    const read = Float64Array.from({ length: 24 }, (_, h) => at(day * 24 + h))
    const known = read.filter((value) => !Number.isNaN(value)).length
    if (known < LEAST_HOURS) break
    let off = NaN
    const whole = read.map((value, h) => {
      const before = valueAt((day - 1) * 24 + h)
      if (!Number.isNaN(value)) {
        off = value - before
        return value
      }
      return before + off
    })
    if (whole.some(Number.isNaN)) break
    completed.set(day, whole)
    result = withDay(result, day, Math.min(...whole), Math.max(...whole), (24 - known) / 24)
  }
  return result
}

function withDay(series: DailySeries, day: number, min: number, max: number, filled: number): DailySeries {
  const length = Math.max(series.min.length, day - series.firstDay + 1)
  const longer = (values: Float64Array, rest: number): Float64Array => {
    const result = new Float64Array(length).fill(rest)
    result.set(values)
    return result
  }
  const result = { firstDay: series.firstDay, min: longer(series.min, NaN), max: longer(series.max, NaN), filled: longer(series.filled, 0) }
  const i = day - series.firstDay
  result.min[i] = min
  result.max[i] = max
  result.filled[i] = filled
  return result
}
