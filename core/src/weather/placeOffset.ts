import { requireWithin } from '../guards.js'
import type { DayExtremes } from '../heat/rule.js'
import type { DailySeries } from './dailySeries.js'

/**
 * By how much a place differs from the station it follows, in °C: nights in a cold hollow, days under a cover. `min` shifts the
 * day's minimum, `max` its maximum, hours in between in proportion.
 */
export interface PlaceOffset {
  min: number
  max: number
}

/** A day's extremes at the place. Where the offsets would cross them, both are their mean. */
export function offsetDay({ min, max }: DayExtremes, offset: PlaceOffset): DayExtremes {
  const low = min + offset.min
  const high = max + offset.max
  return low <= high ? { min: low, max: high } : { min: (low + high) / 2, max: (low + high) / 2 }
}

/**
 * The days of a station as they are at a place.
 *
 * @throws RangeError for an offset beyond 25 °C
 */
export function offsetSeries(series: DailySeries, offset: PlaceOffset): DailySeries {
  requireWithin('offset.min', offset.min, -25, 25)
  requireWithin('offset.max', offset.max, -25, 25)
  if (offset.min === 0 && offset.max === 0) return series
  const min = series.min.slice()
  const max = series.max.slice()
  for (let i = 0; i < min.length; i++) {
    if (Number.isNaN(min[i])) continue
    const day = offsetDay({ min: min[i] as number, max: max[i] as number }, offset)
    min[i] = day.min
    max[i] = day.max
  }
  return { ...series, min, max }
}

/**
 * The hours of a station as they are at a place: each is shifted by the share of the way that it lies between its day's extremes.
 * Hours of a day of which only some are known are shifted by the extremes of those.
 */
export function offsetHours(firstHour: number, tempsC: Float64Array, offset: PlaceOffset): Float64Array {
  if (offset.min === 0 && offset.max === 0) return tempsC
  const result = tempsC.slice()
  const lead = ((firstHour % 24) + 24) % 24
  for (let start = -lead; start < tempsC.length; start += 24) {
    const from = Math.max(0, start)
    const until = Math.min(tempsC.length, start + 24)
    let low = Infinity
    let high = -Infinity
    for (let i = from; i < until; i++) {
      const t = tempsC[i] as number
      if (t < low) low = t
      if (t > high) high = t
    }
    for (let i = from; i < until; i++) {
      const share = high > low ? ((tempsC[i] as number) - low) / (high - low) : 0.5
      result[i] = (tempsC[i] as number) + offset.min + share * (offset.max - offset.min)
    }
  }
  return result
}
