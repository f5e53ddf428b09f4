import type { Position } from '../derived/sun.js'
import type { InsideHumidity } from '../derived/insideHumidity.js'
import type { WetEvent } from '../derived/wetness.js'
import type { Hemisphere } from '../time/civilDays.js'
import type { DailySeries } from '../weather/dailySeries.js'
import type { HourlySeries } from '../weather/fillHours.js'
import type { PlaceOffset } from '../weather/placeOffset.js'
import type { SeasonWeather } from '../weather/seasonWeather.js'

/** Hours of a place by variable, in standard time; NaN: not known there. °C, %, mm, share of the hour that was wet. */
export interface PlaceHours {
  firstHour: number
  length: number
  values: Record<'temperature' | 'humidity' | 'rain' | 'wetness' | 'soil', Float64Array>
}

/** What is known of a place over all years: a station's days and hours, moved by how much the place differs from it. */
export interface PlaceRecord {
  series: DailySeries
  /** Rain in mm per day, by day number; a day that is not there is not known. */
  rain: ReadonlyMap<number, number>
  /** Hourly temperatures; those of days of which only extremes are known are made from these. */
  temperatures: HourlySeries
  hours: PlaceHours
  offset: PlaceOffset
  /** Under a cover with the station outside: no rain falls on it, and the station's humidity is not its own. */
  covered: boolean
  /** What its humidity lies between, hour by hour as in `hours`, by the dew point outside; undefined where it needs no estimate. */
  inside?: InsideHumidity | undefined
}

/** Hours of one member of a weather forecast: °C, %, mm; NaN where it holds none. */
export interface MemberHours {
  temperature: Float64Array
  humidity: Float64Array
  rain: Float64Array
}

/** What a season's weather rests on. */
export type WeatherBasis = 'station' | 'station-and-normals' | 'past-seasons' | 'normals' | 'none'

/** What the weather of a season rests on: readings, past seasons, or what normals make of them. */
export function weatherBasis(weather: Pick<SeasonWeather, 'observed' | 'tails'>): WeatherBasis {
  const made = weather.tails.some((tail) => tail.made)
  if (weather.observed.some((day) => day !== undefined)) return made ? 'station-and-normals' : 'station'
  if (weather.tails.some((tail) => !tail.made)) return 'past-seasons'
  return made ? 'normals' : 'none'
}

/** A season at a place as plain values: everything of its weather that a forecast is made from. */
export interface SeasonAtPlace {
  weather: SeasonWeather
  basis: WeatherBasis
  hemisphere: Hemisphere
  position: Position | undefined
  /** Minutes east of UTC of the standard time in which hours are counted. */
  utcOffsetMinutes: number
  /** Undefined where no station is followed. */
  place: PlaceRecord | undefined
  /** Hours ahead of each member of the weather forecast, from the midnight of the first day that is not observed. */
  ahead: { firstHour: number; hours: readonly MemberHours[] } | undefined
}

/** What wetted a place beside rain: its wet hours, and the water that reached the soil. */
export interface Wetting extends WetEvent {
  /** mm; null where none reached the soil. */
  waterMm: number | null
}
