import { insideHumidity, type InsideHumidity } from '../derived/insideHumidity.js'
import { withWetEvents, wetHours } from '../derived/wetness.js'
import type { InfectionHours } from '../infection/spells.js'
import { offsetHours } from '../weather/placeOffset.js'
import type { PlaceRecord, SeasonAtPlace, Wetting } from './seasonAtPlace.js'

type HoursAhead = Omit<InfectionHours, 'firstHour'>

/** Under a cover without a logger humidity lies between two bounds: which of them is looked at. */
export type CoverSide = keyof InsideHumidity

/** What a place's leaves met, one value for each of its hours. */
export interface LeafHours {
  /** 1 wet, 0 dry, NaN not known; wet events among them. */
  wet: Float64Array
  humidity: Float64Array
  /** mm, what was watered from overhead among it. */
  rain: Float64Array
}

/** Wet hours, humidity and rain of a place; under a cover without a logger by one of the bounds of its humidity. */
export function leafHoursAt(
  { hours, inside }: Pick<PlaceRecord, 'hours' | 'inside'>,
  events: readonly Wetting[],
  side?: CoverSide,
): LeafHours {
  const estimated = side && inside?.[side]
  const humidity = estimated ?? hours.values.humidity
  // No rain falls under a cover, and that is known.
  const fallen = estimated ? new Float64Array(hours.length) : hours.values.rain
  const sensor = estimated ? {} : { sensor: hours.values.wetness }
  return {
    wet: withWetEvents(wetHours({ rain: fallen, humidity, ...sensor }), hours.firstHour, events),
    humidity,
    rain: withWater(fallen, hours.firstHour, events),
  }
}

/** Wet hours of a place, those of its wet events among them: 1 wet, 0 dry, NaN not known; one for each of its hours. */
export const wetHoursAt = (place: Pick<PlaceRecord, 'hours'>, events: readonly Wetting[]): Float64Array => leafHoursAt(place, events).wet

/** Rain with what was watered from overhead, which wets and splashes alike. */
function withWater(rain: Float64Array, firstHour: number, events: readonly Wetting[]): Float64Array {
  const watered = events.filter(({ waterMm }) => waterMm !== null && waterMm > 0)
  if (watered.length === 0) return rain
  const result = rain.slice()
  for (const { from, until, waterMm } of watered) {
    const [first, end] = [Math.max(0, Math.floor(from) - firstHour), Math.min(result.length, Math.ceil(until) - firstHour)]
    for (let i = first; i < end; i++) result[i] = (result[i] || 0) + (waterMm ?? 0) / (Math.ceil(until) - Math.floor(from))
  }
  return result
}

/** Hours of a place from one day to the midnight before another; hours that nobody read are not known. */
export function hoursOfDays(
  place: Pick<PlaceRecord, 'hours' | 'temperatures'>,
  leaf: LeafHours,
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
    wet: cut(leaf.wet, hours.firstHour),
    humidity: cut(leaf.humidity, hours.firstHour),
    rain: cut(leaf.rain, hours.firstHour),
  }
}

/** The hours ahead of each member of a weather forecast, as they are at a place, without those of the first `days` days. */
export function hoursAhead({ ahead, place }: Pick<SeasonAtPlace, 'ahead' | 'place'>, days: number, side?: CoverSide): HoursAhead[] {
  if (!ahead || !place) return []
  const cut = (values: Float64Array): Float64Array => values.subarray(days * 24)
  return ahead.hours.map(({ temperature, humidity, rain }) => {
    const insideC = offsetHours(ahead.firstHour, temperature, place.offset)
    const unknown = (): Float64Array => new Float64Array(temperature.length).fill(NaN)
    const under = side && place.covered ? insideHumidity({ tempC: temperature, humidityPct: humidity }, insideC)[side] : unknown()
    const air = place.covered ? { humidity: under, rain: side ? new Float64Array(temperature.length) : unknown() } : { humidity, rain }
    return { temperature: cut(insideC), humidity: cut(air.humidity), rain: cut(air.rain), wet: cut(wetHours(air)) }
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
