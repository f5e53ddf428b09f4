import type { Block, Site } from '@bocado/contract'
import {
  insideHumidity,
  offsetHours,
  offsetSeries,
  type DailySeries,
  type InsideHumidity,
  type PlaceOffset,
  type Position,
} from '@bocado/core'
import distance from '@turf/distance'
import type { Deps } from '../http/route.js'
import type { StationDays } from './history.js'
import type { HourVariable } from './readingStore.js'
import type { StoredStation } from './store.js'

/** The site's position, as far as it is known. */
type Located = Pick<Site, 'latitude' | 'longitude'>

const positionOf = ({ latitude, longitude }: Located): Position | undefined =>
  latitude === null || longitude === null ? undefined : { latitude, longitude }

/** Where a station stands: its own position, otherwise its site's. */
export const stationPosition = (station: StoredStation, site: Located): Position | undefined => positionOf(station) ?? positionOf(site)

/** The station that a place follows, and how it was found. */
export interface Followed {
  station: StoredStation
  how: 'chosen' | 'nearest' | 'first'
  km: number | null
}

/**
 * The station that a block follows: the one that was chosen, otherwise the nearest outside, otherwise the site's first. `block` is
 * null for the site as a whole.
 */
export function followedStation(
  stations: readonly StoredStation[],
  block: Pick<Block, 'stationId' | 'latitude' | 'longitude'> | null,
  site: Located,
): Followed | undefined {
  const chosen = stations.find(({ id }) => id === block?.stationId)
  const own = (block && positionOf(block)) ?? positionOf(site)
  const km = (station: StoredStation): number | null => {
    const there = positionOf(station)
    return own && there ? distance([own.longitude, own.latitude], [there.longitude, there.latitude], { units: 'kilometers' }) : null
  }
  if (chosen) return { station: chosen, how: 'chosen', km: km(chosen) }
  const outside = stations.filter(({ underCover }) => !underCover)
  const nearest = outside
    .map((station) => ({ station, km: km(station) }))
    .filter((s): s is { station: StoredStation; km: number } => s.km !== null)
    .sort((a, b) => a.km - b.km)[0]
  if (nearest) return { ...nearest, how: 'nearest' }
  const first = outside[0] ?? stations[0]
  return first && { station: first, how: 'first', km: null }
}

/** Weather as it is at a place: a station's, or a block's that differs from it. */
export interface PlaceDays {
  series: DailySeries
  rain: ReadonlyMap<number, number>
  temperatures: StationDays['temperatures']
  hours: StationDays['hours']
  offset: PlaceOffset
  /** Under a cover with the station outside: no rain falls on it, and the station's humidity is not its own. */
  covered: boolean
  /** What humidity under it lies between, by the dew point outside. */
  inside: InsideHumidity | undefined
  /** Everything that these days rest on, for keys of what is made from them. */
  key: string
  /** The same of what lies before a day number: it outlives new hours of that day. */
  keyBefore: (day: number) => string
}

/** The days of a station as they are at a block, or at the station itself. */
export async function placeDays(
  deps: Deps,
  site: Located,
  station: StoredStation,
  block: Pick<Block, 'id' | 'kind' | 'offsetMin' | 'offsetMax'> | null,
): Promise<PlaceDays> {
  const position = stationPosition(station, site)
  const days = await deps.history.daysOf(deps.db, station, position)
  const offset = { min: block?.offsetMin ?? 0, max: block?.offsetMax ?? 0 }
  const covered = block?.kind === 'tunnel' && !station.underCover
  const { latitude, longitude } = position ?? {}
  const where = `${station.utcOffsetMinutes} ${latitude},${longitude} ${offset.min},${offset.max} ${covered}`
  const key = `${station.id}@${station.historyVersion} ${where}`
  return deps.memo.get(`place ${key}`, () => ({
    series: offsetSeries(days.series, offset),
    rain: covered ? new Map<number, number>() : days.rain,
    temperatures: { ...days.temperatures, values: offsetHours(days.temperatures.firstHour, days.temperatures.values, offset) },
    hours: covered ? withoutOutside(days.hours) : days.hours,
    offset,
    covered,
    inside: covered ? insideOf(days.hours, offset) : undefined,
    key,
    keyBefore: (day) => `${station.id} ${days.contentBefore(day)} ${where}`,
  }))
}

/** What humidity lies between under a cover that a station outside stands for. */
const insideOf = ({ firstHour, values }: StationDays['hours'], offset: PlaceOffset): InsideHumidity =>
  insideHumidity({ tempC: values.temperature, humidityPct: values.humidity }, offsetHours(firstHour, values.temperature, offset))

/** What a station outside cannot tell of the inside is not known there. */
function withoutOutside(hours: StationDays['hours']): StationDays['hours'] {
  const unknown = new Float64Array(hours.length).fill(NaN)
  const values = { ...hours.values }
  for (const variable of ['humidity', 'rain', 'wind', 'wetness', 'soil', 'direction'] satisfies HourVariable[]) values[variable] = unknown
  return { ...hours, values }
}
