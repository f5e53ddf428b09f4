import { requireFinite } from '../guards.js'

const MS_PER_HOUR = 3_600_000
const MS_PER_MINUTE = 60_000
const MINUTES_PER_DAY = 1440

/**
 * The station's day of a moment, as a day number: that of its standard time, a fixed offset. In summer it ends an hour after midnight
 * by the clock on the wall, and until then yesterday is not over.
 *
 * @param instant milliseconds since 1970-01-01 UTC
 * @param utcOffsetMinutes minutes east of UTC; half hours are fine
 * @throws RangeError for an argument that is no finite number
 */
export function standardDay(instant: number, utcOffsetMinutes: number): number {
  requireFinite('instant', instant)
  requireFinite('utcOffsetMinutes', utcOffsetMinutes)
  return Math.floor((instant / MS_PER_MINUTE + utcOffsetMinutes) / MINUTES_PER_DAY)
}

/** The hour of a moment in a station's standard time, counted from 1970-01-01; as `standardDay`. */
export function standardHour(instant: number, utcOffsetMinutes: number): number {
  requireFinite('instant', instant)
  requireFinite('utcOffsetMinutes', utcOffsetMinutes)
  return Math.floor((instant + utcOffsetMinutes * MS_PER_MINUTE) / MS_PER_HOUR)
}

/** The moment at which an hour of a station's standard time begins, in milliseconds since 1970-01-01 UTC. */
export const instantOfHour = (hour: number, utcOffsetMinutes: number): number => hour * MS_PER_HOUR - utcOffsetMinutes * MS_PER_MINUTE
