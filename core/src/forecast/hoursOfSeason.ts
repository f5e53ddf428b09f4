import { withWetEvents, wetHours } from '../derived/wetness.js'
import type { InfectionHours } from '../infection/spells.js'
import type { WetEvent } from '../derived/wetness.js'
import { offsetHours } from '../weather/placeOffset.js'
import type { PlaceRecord, SeasonAtPlace } from './seasonAtPlace.js'

type HoursAhead = Omit<InfectionHours, 'firstHour'>

/** Wet hours of a place, those of its wet events among them: 1 wet, 0 dry, NaN not known; one for each of its hours. */
export function wetHoursAt({ hours }: Pick<PlaceRecord, 'hours'>, events: readonly WetEvent[]): Float64Array {
  const { rain, humidity, wetness } = hours.values
  return withWetEvents(wetHours({ rain, humidity, sensor: wetness }), hours.firstHour, events)
}

/** Hours of a place from one day to the midnight before another; hours that nobody read are not known. */
export function hoursOfDays(
  place: Pick<PlaceRecord, 'hours' | 'temperatures'>,
  wet: Float64Array,
  from: number,
  until: number,
): InfectionHours {
  const firstHour = from * 24
  const length = Math.max(0, (until - from) * 24)
  const cut = (values: Float64Array, start: number): Float64Array => {
    const result = new Float64Array(length).fill(NaN)
    const skip = Math.max(0, start - firstHour)
    const inside = values.subarray(Math.max(0, firstHour - start), Math.max(0, firstHour - start) + length - skip)
    if (skip < length) result.set(inside, skip)
    return result
  }
  const { hours, temperatures } = place
  return {
    firstHour,
    temperature: cut(temperatures.values, temperatures.firstHour),
    wet: cut(wet, hours.firstHour),
    humidity: cut(hours.values.humidity, hours.firstHour),
    rain: cut(hours.values.rain, hours.firstHour),
  }
}

/** The hours ahead of each member of a weather forecast, as they are at a place, without those of the first `days` days. */
export function hoursAhead({ ahead, place }: Pick<SeasonAtPlace, 'ahead' | 'place'>, days: number): HoursAhead[] {
  if (!ahead || !place) return []
  const cut = (values: Float64Array): Float64Array => values.subarray(days * 24)
  return ahead.hours.map(({ temperature, humidity, rain }) => {
    const unknown = new Float64Array(temperature.length).fill(NaN)
    const inside = place.covered ? { humidity: unknown, rain: unknown } : { humidity, rain }
    return {
      temperature: cut(offsetHours(ahead.firstHour, temperature, place.offset)),
      humidity: cut(inside.humidity),
      rain: cut(inside.rain),
      wet: cut(wetHours(inside)),
    }
  })
}

/** Hours with others that follow them, as one stretch. */
export function followedBy(a: InfectionHours, b: HoursAhead): InfectionHours {
  const both = (x: Float64Array, y: Float64Array): Float64Array => {
    const result = new Float64Array(x.length + y.length)
    result.set(x)
    result.set(y, x.length)
    return result
  }
  return {
    firstHour: a.firstHour,
    temperature: both(a.temperature, b.temperature),
    wet: both(a.wet, b.wet),
    humidity: both(a.humidity, b.humidity),
    rain: both(a.rain, b.rain),
  }
}
