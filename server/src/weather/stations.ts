import type { ParsedInputOf, Site, Station, weather } from '@bocado/contract'
import { IANAZone } from 'luxon'
import { insertRow, removeRow, restoreRow, updateRow, type Queryable, type Write } from '../database/index.js'
import { HttpProblem, fieldProblem } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { getSite } from '../sites/service.js'
import { civilDate, instantOfHour, isoInstant, MS_PER_HOUR } from '@bocado/core'
import type { StationDays } from './history.js'
import { stationPosition } from './place.js'
import { HOUR_VALUES } from './readingStore.js'
import { isNothing } from './stationHours.js'
import { findStation, listStations, lockStation, raiseVersion, WHOLE_HISTORY, type StoredStation } from './store.js'

/** Standard time of a zone: the smaller of its two offsets, in minutes east of UTC. */
export function standardOffset(timeZone: string, year: number): number {
  const zone = IANAZone.create(timeZone)
  return Math.min(zone.offset(Date.UTC(year, 0, 1)), zone.offset(Date.UTC(year, 6, 1)))
}

/** A device that pushes every hour is silent when two of them are missing. */
const SILENT_AFTER_MS = 3 * MS_PER_HOUR

const SENSOR_HOURS = 30 * 24

/** Hours of which anything was read. */
function hoursRead({ hours, raw }: StationDays): number {
  const variables = HOUR_VALUES.filter((variable) => !isNothing(raw.values[variable])).map((variable) => hours.values[variable])
  let read = 0
  for (let i = 0; i < hours.length; i++)
    for (const values of variables)
      if (!Number.isNaN(values[i])) {
        read++
        break
      }
  return read
}

/** What a station reads, with the newest hour and the share of the thirty days before it. */
function sensorsOf({ hours }: StationDays, utcOffsetMinutes: number): Station['sensors'] {
  return HOUR_VALUES.flatMap((variable) => {
    const values = hours.values[variable]
    let last = values.length - 1
    while (last >= 0 && Number.isNaN(values[last])) last--
    if (last < 0) return []
    const from = Math.max(0, last + 1 - SENSOR_HOURS)
    let read = 0
    for (let i = from; i <= last; i++) if (!Number.isNaN(values[i])) read++
    return [{ variable, lastHour: isoInstant(instantOfHour(hours.firstHour + last, utcOffsetMinutes)), share: read / (last + 1 - from) }]
  })
}

async function presented(deps: Deps, site: Pick<Site, 'latitude' | 'longitude'>, station: StoredStation, now: Date): Promise<Station> {
  const days = await deps.history.daysOf(deps.db, station, stationPosition(station, site))
  const { series } = days
  const typedDays = days.daysAlone + days.typed.length
  const { id, name, place, latitude, longitude, elevationM, underCover, utcOffsetMinutes, rowVersion, sensorHeightM } = station
  const { device, lastHour, refused } = station
  const silent = lastHour !== null && now.getTime() - Date.parse(lastHour) > SILENT_AFTER_MS
  const read = hoursRead(days)
  const known = series.min.length > 0
  return {
    ...{ id, name, place, latitude, longitude, elevationM, underCover, utcOffsetMinutes, rowVersion, sensorHeightM },
    ...{ device, lastHour, refused, silent, typedDays, hours: read },
    firstDay: known ? civilDate(series.firstDay) : null,
    lastDay: known ? civilDate(series.firstDay + series.min.length - 1) : null,
    sensors: sensorsOf(days, utcOffsetMinutes),
  }
}

export async function getStations(deps: Deps, siteId: string): Promise<Station[]> {
  const site = await getSite(deps.db, deps.clock, siteId)
  const now = await deps.clock.now(deps.db)
  return Promise.all(
    (await listStations(deps.db, siteId)).map((station) =>
      deps.memo.get(`station ${JSON.stringify(station)} ${now.toISOString().slice(0, 15)} ${site.latitude},${site.longitude}`, () =>
        presented(deps, site, station, now),
      ),
    ),
  )
}

export async function getStation(db: Queryable, siteId: string, stationId: string): Promise<StoredStation> {
  const station = await findStation(db, siteId, stationId)
  if (!station) throw new HttpProblem(404, 'There is no such station at this site.')
  return station
}

/** A row that was written, at its new version. */
interface Versioned {
  id: string
  rowVersion: number
}

const columnsOf = (input: ParsedInputOf<typeof weather.addStation>) => ({
  name: input.name,
  place: input.place,
  latitude: input.latitude,
  longitude: input.longitude,
  elevation_m: input.elevationM,
  sensor_height_m: input.sensorHeightM,
  under_cover: input.underCover,
})

export async function addStation(w: Write, deps: Deps, input: ParsedInputOf<typeof weather.addStation>): Promise<Versioned> {
  const site = await getSite(w.tx, deps.clock, w.siteId)
  const utcOffsetMinutes = standardOffset(site.timeZone, Number(site.today.slice(0, 4)))
  const id = await insertRow(w, 'station', { ...columnsOf(input), utc_offset_minutes: utcOffsetMinutes })
  return { id, rowVersion: 1 }
}

/** Hours that a station holds. */
async function hoursHeld(db: Queryable, stationId: string): Promise<number> {
  const [rows] = await db.query('SELECT COUNT(*) AS n FROM reading WHERE station_id = ?', [stationId])
  return Number((rows as { n: number }[])[0]?.n ?? 0)
}

/**
 * Changes a station. Its clock decides which day each stored hour belongs to: with readings there, it changes only if the writer
 * says how many hours move. Setting it back puts everything back, as readings are stored in UTC.
 */
export async function changeStation(w: Write, stationId: string, input: ParsedInputOf<typeof weather.updateStation>): Promise<Versioned> {
  await lockStation(w, stationId)
  const before = await getStation(w.tx, w.siteId, stationId)
  const clockChanges = before.utcOffsetMinutes !== input.utcOffsetMinutes
  if (clockChanges) {
    const held = await hoursHeld(w.tx, stationId)
    if (held > 0 && input.clockMovesHours !== held)
      throw new HttpProblem(
        422,
        `This moves ${held} hours of readings to another hour of the day, and with them every daily minimum and maximum. Confirm it, or leave the clock as it is.`,
        { fields: [{ path: 'clockMovesHours', message: `${held}` }] },
      )
  }
  await updateRow(w, 'station', stationId, input.rowVersion, { ...columnsOf(input), utc_offset_minutes: input.utcOffsetMinutes })
  if (clockChanges || before.underCover !== input.underCover) await raiseVersion(w.tx, { siteId: w.siteId, stationId }, WHOLE_HISTORY)
  return { id: stationId, rowVersion: input.rowVersion + 1 }
}

/** Removes a station. Its readings stay, and come back with it. A block that chose it must choose another first. */
export async function removeStation(w: Write, stationId: string, rowVersion: number): Promise<Versioned> {
  const [rows] = await w.tx.query('SELECT name FROM place WHERE station_id = ? AND deleted_at IS NULL ORDER BY name', [stationId])
  const names = (rows as { name: string }[]).map(({ name }) => name)
  if (names.length > 0) throw fieldProblem('stationId', `${names.join(', ')} follow this station; choose another for them first`)
  return removeRow(w, 'station', stationId, rowVersion)
}

export async function restoreStation(w: Write, stationId: string, rowVersion: number): Promise<Versioned> {
  await restoreRow(w, 'station', stationId, rowVersion)
  return { id: stationId, rowVersion: rowVersion + 1 }
}
