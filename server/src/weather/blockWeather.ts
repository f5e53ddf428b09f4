import type { Block, Site } from '@bocado/contract'
import { dayNumber, offsetDay, seasonWeather, type DailySeries, type SeasonWeather } from '@bocado/core'
import { daysAhead, type DaysAhead } from '../forecasts/service.js'
import type { Deps } from '../http/route.js'
import { findNormals, madeSeasons } from './normals.js'
import { followedStation, placeDays, stationPosition, type Followed, type PlaceDays } from './place.js'
import { listStations } from './store.js'

/** What a season's weather rests on. */
export type WeatherBasis = 'station' | 'station-and-normals' | 'normals' | 'none'

/** The weather of a season at a block, or at the site as a whole. */
export interface BlockWeather {
  followed: Followed | undefined
  place: PlaceDays | undefined
  ahead: DaysAhead | undefined
  weather: SeasonWeather
  basis: WeatherBasis
  /** Everything that it rests on, for keys of what is made from it. */
  key: string
}

const NOTHING: DailySeries = { firstDay: 0, min: new Float64Array(), max: new Float64Array(), filled: new Float64Array() }

type Place = Pick<Block, 'id' | 'kind' | 'stationId' | 'latitude' | 'longitude' | 'offsetMin' | 'offsetMax'>

/**
 * The weather of a site's blocks in a season; null asks for the site as a whole. This is the one way in which a forecast gets its
 * weather: station and offset, days ahead, past seasons, and seasons made from normals where those are too few.
 */
export async function weatherOfBlocks(deps: Deps, site: Site, season: string): Promise<(block: Place | null) => Promise<BlockWeather>> {
  const [stations, normals] = await Promise.all([listStations(deps.database, site.id), findNormals(deps.database, site.id)])
  const firstDay = dayNumber(season)
  const today = dayNumber(site.today)
  const normalsKey = normals ? `${normals.id}@${normals.rowVersion}` : 'none'
  return async (block) => {
    const followed = followedStation(stations, block, site)
    const place = followed && (await placeDays(deps, site, followed.station, block))
    const days = followed && (await deps.history.daysOf(deps.database, followed.station, stationPosition(followed.station, site)))
    const ahead = followed && days ? await daysAhead(deps, followed.station, days, site.today) : undefined
    const key = `${site.id} ${season} ${site.today} ${place?.key} ${ahead?.key} ${normalsKey}`
    const weather = deps.memo.get(`season ${key}`, () =>
      seasonWeather({
        series: place?.series ?? NOTHING,
        firstDay,
        today,
        forecast: ahead?.members.map((member) => member.map((day) => offsetDay(day, place?.offset ?? { min: 0, max: 0 }))),
        made: madeSeasons(deps, normals, firstDay),
      }),
    )
    const read = weather.observed.some((day) => day !== undefined)
    const made = weather.tails.some((tail) => tail.made)
    const basis = read ? (made ? 'station-and-normals' : 'station') : made ? 'normals' : 'none'
    return { followed, place, ahead, weather, basis, key }
  }
}
