import { getTimes } from 'suncalc'
import { requireWithin } from '../guards.js'
import { hoursBetween } from '../time/durations.js'
import { instantOfDay } from '../time/stationTime.js'

/** Where the sun is looked at from; degrees north and east. */
export interface Position {
  latitude: number
  longitude: number
}

/**
 * The sun's times of one day, in hours after the midnight that begins it in standard time. null where it does not happen: a
 * day without sunset, a night without dusk.
 */
export interface SunTimes {
  sunrise: number | null
  sunset: number | null
  /** Civil dawn and dusk: the sun 6° below the horizon. */
  dawn: number | null
  dusk: number | null
  /** Hours from sunrise to sunset; 24 where the sun does not set, 0 where it does not rise. */
  dayLength: number
}

/**
 * Sunrise, sunset, civil dawn and dusk and the length of the day.
 *
 * @param day number of the civil day
 * @param utcOffsetMinutes standard time of the place, minutes east of UTC
 * @throws RangeError for a latitude outside −90..90 or a longitude outside −180..180
 */
export function sunTimes(day: number, place: Position, utcOffsetMinutes: number): SunTimes {
  requireWithin('place.latitude', place.latitude, -90, 90)
  requireWithin('place.longitude', place.longitude, -180, 180)
  const midnight = instantOfDay(day, utcOffsetMinutes)
  const times = getTimes(new Date(midnight + 43_200_000), place.latitude, place.longitude)
  const hours = (moment: Date | null): number | null => (moment ? hoursBetween(midnight, moment.getTime()) : null)
  const [sunrise, sunset] = [hours(times.sunrise), hours(times.sunset)]
  const dayLength = times.alwaysUp ? 24 : sunrise === null || sunset === null ? 0 : sunset - sunrise
  return { sunrise, sunset, dawn: hours(times.dawn), dusk: hours(times.dusk), dayLength }
}
