import type { Block, Site } from '@bocado/contract'
import {
  completeLateDays,
  dayNumber,
  firstOpenDay,
  offsetDay,
  offsetSeries,
  seasonWeather,
  standardDay,
  weatherBasis,
  type DailySeries,
  type Position,
  type SeasonAtPlace,
  type SeasonDay,
} from '@bocado/core'
import { civilDayIn } from '../clock.js'
import { daysAhead, type DayAhead, type DaysAhead } from '../forecasts/service.js'
import type { Deps } from '../http/route.js'
import type { StationDays } from './history.js'
import { hemisphereOf } from '../sites/service.js'
import { findNormals, madeSeasons } from './normals.js'
import { followedStation, placeDays, stationPosition, type Followed, type PlaceDays } from './place.js'
import { listStations, type StoredStation } from './store.js'

/** The weather of a season at a block, or at the site as a whole. */
export interface GroundWeather extends SeasonAtPlace {
  followed: Followed | undefined
  place: PlaceDays | undefined
  ahead: DaysAhead | undefined
  /** Today, as a day number: the day of the station's standard time. */
  today: number
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
  at: Date
  /** The moment of the forecast; days of it that have passed since are left out. */
  forecastAt: Date
}

/** Where a station's own days end: those that are over and known, and from where a forecast of some moment goes on. */
interface Seam {
  series: DailySeries
  /** First day that is not known. */
  open: number
  ahead: DaysAhead | undefined
}

/**
 * Today at the seam is the station's day. Where its last readings have not come yet, the forecast gives what is missing, as it does of
 * today; without one the day before completes it.
 */
async function seamOf(deps: Deps, station: StoredStation, days: StationDays, at: Date, forecastAt: Date): Promise<Seam> {
  const dayOf = (moment: Date): number => standardDay(moment.getTime(), station.utcOffsetMinutes)
  const today = dayOf(at)
  // Days that came after the moment are not known from there.
  const open = firstOpenDay(days.series, today)
  const ahead = await daysAhead(deps, station, days, Math.min(open, firstOpenDay(days.series, dayOf(forecastAt))), forecastAt)
  const length = ahead?.members[0]?.length ?? 0
  if (ahead && ahead.firstDay + length > open) return { series: days.series, open, ahead }
  const series = completeLateDays(days.series, days.temperatures, open, today)
  return { series, open: firstOpenDay(series, today), ahead: undefined }
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
): Promise<(block: Place | null) => Promise<GroundWeather>> {
  const [stations, normals] = await Promise.all([listStations(deps.db, site.id), findNormals(deps.db, site.id)])
  const firstDay = dayNumber(season)
  const now = await deps.clock.now(deps.db)
  const [at, forecastAt] = [seen?.at ?? now, seen?.forecastAt ?? now]
  // Blocks that follow the same station ask for its seam once.
  const seams = new Map<string, Promise<Seam>>()
  const seamAt = (station: StoredStation, position: Position | undefined): Promise<Seam> => {
    const asked = seams.get(station.id)
    if (asked) return asked
    const asking = deps.history.daysOf(deps.db, station, position).then((days) => seamOf(deps, station, days, at, forecastAt))
    seams.set(station.id, asking)
    return asking
  }
  const normalsKey = normals ? `${normals.id}@${normals.rowVersion}` : 'none'
  return async (block) => {
    const followed = followedStation(stations, block, site)
    const position = followed && stationPosition(followed.station, site)
    const place = followed && (await placeDays(deps, site, followed.station, block))
    const seam = followed && (await seamAt(followed.station, position))
    // A site without a station has no standard time of its own to go by: its civil day is today.
    const today = followed ? standardDay(at.getTime(), followed.station.utcOffsetMinutes) : dayNumber(civilDayIn(at, site.timeZone))
    const { ahead } = seam ?? {}
    const passed = seam?.ahead ? seam.open - seam.ahead.firstDay : 0
    const key = `${site.id} ${season} ${today} ${seam?.open} ${passed} ${place?.keyBefore(today)} ${ahead?.key} ${normalsKey}`
    const weather = deps.memo.get(`season ${key}`, () =>
      seasonWeather({
        series: place && seam ? offsetSeries(seam.series, place.offset) : NOTHING,
        firstDay,
        today,
        open: seam?.open,
        rain: place?.rain,
        forecast: place && ahead?.members.map((member) => member.slice(passed).map((day) => dayAt(day, place))),
        made: madeSeasons(deps, normals, firstDay),
        alone: true,
      }),
    )
    const utcOffsetMinutes = followed?.station.utcOffsetMinutes ?? 0
    const hemisphere = hemisphereOf(site)
    return { followed, place, position, ahead, today, weather, basis: weatherBasis(weather), hemisphere, utcOffsetMinutes, key }
  }
}
