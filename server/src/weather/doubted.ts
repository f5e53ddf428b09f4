import { MS_PER_MINUTE, standardHour } from '@bocado/core'
import type { StoredFix } from './fixStore.js'
import type { StationDays } from './history.js'

/** A reading that is doubted, with the reading itself, for people to judge. */
export interface DoubtedReading extends StoredFix {
  /** Hour of it in the station's standard time, counted from 1970-01-01. */
  hour: number
  /** As it was read, corrections laid over it; null where there is none. */
  reading: number | null
}

/** What is doubted of a station from one hour to the hour before another, by variable and hour. */
export function doubtedBetween(
  { fixes, raw }: StationDays,
  utcOffsetMinutes: number,
  fromHour: number,
  untilHour: number,
): DoubtedReading[] {
  return fixes
    .map((fix) => ({ ...fix, hour: standardHour(fix.minutes * MS_PER_MINUTE, utcOffsetMinutes) }))
    .filter(({ hour }) => hour >= fromHour && hour < untilHour)
    .map((fix): DoubtedReading => {
      const reading = raw.values[fix.variable][fix.hour - raw.firstHour]
      return { ...fix, reading: reading === undefined || Number.isNaN(reading) ? null : reading }
    })
    .sort((a, b) => a.variable.localeCompare(b.variable) || a.minutes - b.minutes)
}
