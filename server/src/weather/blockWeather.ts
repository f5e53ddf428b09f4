import type { Block, Site } from '@bocado/contract'
import { dayNumber, offsetDay, seasonWeather, type DailySeries, type Position, type SeasonDay, type SeasonWeather } from '@bocado/core'
import { daysAhead, type DayAhead, type DaysAhead } from '../forecasts/service.js'
import type { Deps } from '../http/route.js'
import { findNormals, madeSeasons } from './normals.js'
import { followedStation, placeDays, stationPosition, type Followed, type PlaceDays } from './place.js'
import { listStations, type StoredStation } from './store.js'

/** What a season's weather rests on. */
export type WeatherBasis = 'station' | 'station-and-normals' | 'past-seasons' | 'normals' | 'none'

/** The weather of a season at a block, or at the site as a whole. */
export interface BlockWeather {
  followed: Followed | undefined
  place: PlaceDays | undefined
  position: Position | undefined
  ahead: DaysAhead | undefined
  weather: SeasonWeather
  basis: WeatherBasis
  /** Everything that it rests on, for keys of what is made from it. */
  key: string
}

const NOTHING: DailySeries = { firstDay: 0, min: new Float64Array(), max: new Float64Array(), filled: new Float64Array() }

type Place = Pick<Block, 'id' | 'kind' | 'stationId' | 'latitude' | 'longitude' | 'offsetMin' | 'offsetMax'>

/** A day of the forecast as it is at a place. */
export const dayAt = ({ rain, ...day }: DayAhead, { offset, covered }: PlaceDays): SeasonDay => ({
  ...offsetDay(day, offset),
  rain: covered ? NaN : rain,
})

/** A moment from which a season is looked at: what was observed by then, and the forecast as it stood at another. */
export interface SeenFrom {
  today: string
  /** The day and moment of the forecast; days of it that have passed since are left out. */
  forecast: { today: string; at: Date }
}

/**
 * The weather of a site's blocks in a season; null asks for the site as a whole. This is the one way in which a forecast gets its
 * weather: station and offset, days ahead, past seasons, and seasons made from normals where those are too few.
 *
 * @param seen from when it is looked at; from now where it is not given
 */
export async function weatherOfBlocks(
  deps: Deps,
  site: Site,
  season: string,
  seen?: SeenFrom,
): Promise<(block: Place | null) => Promise<BlockWeather>> {
  const [stations, normals] = await Promise.all([listStations(deps.db, site.id), findNormals(deps.db, site.id)])
  const firstDay = dayNumber(season)
  const today = dayNumber(seen?.today ?? site.today)
  const issuedOn = seen?.forecast.today ?? site.today
  // Blocks that follow the same station ask for its days ahead once.
  const aheadOf = new Map<string, Promise<DaysAhead | undefined>>()
  const stationAhead = async (station: StoredStation, position: Position | undefined): Promise<DaysAhead | undefined> => {
    const asked = aheadOf.get(station.id)
    if (asked) return asked
    const asking = deps.history
      .daysOf(deps.db, station, position)
      .then((days) => daysAhead(deps, station, days, issuedOn, seen?.forecast.at))
    aheadOf.set(station.id, asking)
    return asking
  }
  const normalsKey = normals ? `${normals.id}@${normals.rowVersion}` : 'none'
  return async (block) => {
    const followed = followedStation(stations, block, site)
    const position = followed && stationPosition(followed.station, site)
    const place = followed && (await placeDays(deps, site, followed.station, block))
    const ahead = followed && (await stationAhead(followed.station, position))
    const passed = today - dayNumber(issuedOn)
    const key = `${site.id} ${season} ${today} ${passed} ${place?.key} ${ahead?.key} ${normalsKey}`
    const weather = deps.memo.get(`season ${key}`, () =>
      seasonWeather({
        series: place?.series ?? NOTHING,
        firstDay,
        today,
        rain: place?.rain,
        forecast: place && ahead?.members.map((member) => member.slice(passed).map((day) => dayAt(day, place))),
        made: madeSeasons(deps, normals, firstDay),
        alone: true,
      }),
    )
    const read = weather.observed.some((day) => day !== undefined)
    const made = weather.tails.some((tail) => tail.made)
    const past = weather.tails.some((tail) => !tail.made)
    const basis = read ? (made ? 'station-and-normals' : 'station') : past ? 'past-seasons' : made ? 'normals' : 'none'
    return { followed, place, position, ahead, weather, basis, key }
  }
}
