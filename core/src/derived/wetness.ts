/** What tells whether leaves are wet, hour by hour; NaN: no reading. */
export interface WetnessReadings {
  /** mm in the hour. */
  rain: ArrayLike<number>
  /** Relative humidity in %. */
  humidity: ArrayLike<number>
  /** Share of the hour that a wetness sensor was wet, 0..1. */
  sensor?: ArrayLike<number>
}

const WET_FROM_HUMIDITY_PCT = 90
const WET_FROM_SHARE = 0.5

/**
 * Whether leaves are wet in each hour: 1 wet, 0 dry, NaN not known. A wetness sensor decides where it read; otherwise an hour
 * is wet with rain or from 90 % humidity, and dry only where both are known. Without humidity it is not known unless it rained.
 *
 * @example wetHours({ rain: [0.4, 0, 0], humidity: [70, 93, 60] }) // [1, 1, 0]
 */
export function wetHours({ rain, humidity, sensor }: WetnessReadings): Float64Array {
  const wet = new Float64Array(rain.length)
  for (let i = 0; i < wet.length; i++) {
    const share = sensor?.[i] ?? NaN
    const mm = rain[i] as number
    const rh = humidity[i] ?? NaN
    if (!Number.isNaN(share)) wet[i] = share >= WET_FROM_SHARE ? 1 : 0
    else if (mm > 0 || rh >= WET_FROM_HUMIDITY_PCT) wet[i] = 1
    else wet[i] = Number.isNaN(mm) || Number.isNaN(rh) ? NaN : 0
  }
  return wet
}

/** A time in which leaves were wet without rain, such as overhead watering; hours since 1970-01-01 in standard time. */
export interface WetEvent {
  from: number
  until: number
}

/** Lays wet events over wet hours: every hour that one touches is wet. The hours given are left as they are. */
export function withWetEvents(wet: Float64Array, firstHour: number, events: readonly WetEvent[]): Float64Array {
  const result = wet.slice()
  for (const { from, until } of events) {
    for (let hour = Math.max(firstHour, Math.floor(from)); hour < until && hour - firstHour < result.length; hour++)
      result[hour - firstHour] = 1
  }
  return result
}

/** Wet, dry and unknown hours of one day. */
export interface WetDay {
  wet: number
  unknown: number
}

/**
 * Counts the wet and the unknown hours from index `from` on over `hours`; hours beyond the series are unknown.
 *
 * @example countWet([1, 0, NaN, 1], 0, 4) // { wet: 2, unknown: 1 }
 */
export function countWet(wet: ArrayLike<number>, from: number, hours = 24): WetDay {
  const day: WetDay = { wet: 0, unknown: 0 }
  for (let i = from; i < from + hours; i++) {
    const value = i < 0 ? NaN : (wet[i] ?? NaN)
    if (Number.isNaN(value)) day.unknown++
    else day.wet += value
  }
  return day
}
