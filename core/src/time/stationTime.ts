import { requireFinite } from '../guards.js'
import { MS_PER_DAY, MS_PER_HOUR, MS_PER_MINUTE } from './durations.js'

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
  return Math.floor((instant + utcOffsetMinutes * MS_PER_MINUTE) / MS_PER_DAY)
}

/** The hour of a moment in a station's standard time, counted from 1970-01-01; as `standardDay`. */
export function standardHour(instant: number, utcOffsetMinutes: number): number {
  requireFinite('instant', instant)
  requireFinite('utcOffsetMinutes', utcOffsetMinutes)
  return Math.floor((instant + utcOffsetMinutes * MS_PER_MINUTE) / MS_PER_HOUR)
}

/** The moment at which an hour of a station's standard time begins, in milliseconds since 1970-01-01 UTC. */
export const instantOfHour = (hour: number, utcOffsetMinutes: number): number => hour * MS_PER_HOUR - utcOffsetMinutes * MS_PER_MINUTE

/** The moment at which a day of a station's standard time begins, in milliseconds since 1970-01-01 UTC. */
export const instantOfDay = (day: number, utcOffsetMinutes: number): number => day * MS_PER_DAY - utcOffsetMinutes * MS_PER_MINUTE

/** Place of a moment on the hour axis of a station's standard time, fractions kept: `standardHour` is its floor. */
export const onHourAxis = (instant: number, utcOffsetMinutes: number): number => shownAt(instant, utcOffsetMinutes) / MS_PER_HOUR

/** A moment in milliseconds as a clock of this offset shows it: what `toISOString` of the result says, less its Z. */
export const shownAt = (instant: number, utcOffsetMinutes: number): number => instant + utcOffsetMinutes * MS_PER_MINUTE

/** The moment, in milliseconds, that a clock of this offset shows as `local`; the inverse of `shownAt`. */
export const instantShown = (local: number, utcOffsetMinutes: number): number => local - utcOffsetMinutes * MS_PER_MINUTE

/** A moment in milliseconds as ISO 8601 in UTC, to the second. */
export const isoInstant = (instant: number): string => new Date(instant).toISOString().replace('.000Z', 'Z')
