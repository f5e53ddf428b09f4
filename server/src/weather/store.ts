import type { Station } from '@bocado/contract'
import { instantOf, type Queryable, type Row, type Transaction, type Write } from '../database/index.js'

export interface StoredStation {
  id: string
  siteId: string
  name: string
  utcOffsetMinutes: number
  historyVersion: number
  checkedVersion: number
  sensorHeightM: number | null
  device: Station['device']
  lastHour: string | null
  place: string
  latitude: number | null
  longitude: number | null
  elevationM: number | null
  underCover: boolean
  refused: Station['refused']
  rowVersion: number
}

const stationOf = (row: Row): StoredStation => ({
  id: row['id'] as string,
  siteId: row['site_id'] as string,
  name: row['name'] as string,
  utcOffsetMinutes: row['utc_offset_minutes'] as number,
  historyVersion: row['history_version'] as number,
  checkedVersion: row['checked_version'] as number,
  sensorHeightM: row['sensor_height_m'] as number | null,
  device: row['token_hash'] === null ? 'none' : row['simulated'] ? 'simulated' : 'pushed',
  lastHour: row['last_hour'] ? instantOf(row['last_hour'] as string) : null,
  place: row['place'] as string,
  latitude: row['latitude'] as number | null,
  longitude: row['longitude'] as number | null,
  elevationM: row['elevation_m'] as number | null,
  underCover: Boolean(row['under_cover']),
  refused: row['refused_at'] ? { at: instantOf(row['refused_at'] as string), because: row['refused_because'] as string } : null,
  rowVersion: row['row_version'] as number,
})

export async function listStations(db: Queryable, siteId: string): Promise<StoredStation[]> {
  const [rows] = await db.query<Row[]>('SELECT * FROM station WHERE site_id = ? AND deleted_at IS NULL ORDER BY created_at, name', [siteId])
  return rows.map(stationOf)
}

export async function findStation(db: Queryable, siteId: string, stationId: string): Promise<StoredStation | undefined> {
  const [[row]] = await db.query<Row[]>('SELECT * FROM station WHERE id = ? AND site_id = ? AND deleted_at IS NULL', [stationId, siteId])
  return row && stationOf(row)
}

/** The station that a token opens, with its site's writer; undefined where the token is not its own. */
export async function stationOfToken(
  db: Queryable,
  stationId: string,
  tokenHash: string,
): Promise<(StoredStation & { tokenBy: string }) | undefined> {
  const [[row]] = await db.query<Row[]>('SELECT * FROM station WHERE id = ? AND token_hash = ? AND deleted_at IS NULL', [
    stationId,
    tokenHash,
  ])
  return row && { ...stationOf(row), tokenBy: row['token_by'] as string }
}

export async function setToken(w: Write, stationId: string, tokenHash: string | null, simulated: boolean): Promise<void> {
  w.tx.touch(w.siteId, 'stations')
  await w.tx.query('UPDATE station SET token_hash = ?, token_by = ?, simulated = ? WHERE id = ? AND site_id = ?', [
    tokenHash,
    w.personId,
    simulated,
    stationId,
    w.siteId,
  ])
}

/** Notes the newest hour that was pushed; late readings do not turn it back. */
export async function noteHour(w: Write, stationId: string, hour: string): Promise<void> {
  const [result] = await w.tx.query(
    'UPDATE station SET last_hour = GREATEST(COALESCE(last_hour, ?), ?), refused_at = NULL, refused_because = NULL WHERE id = ?',
    [hour, hour, stationId],
  )
  if ((result as { changedRows: number }).changedRows > 0) w.tx.touch(w.siteId, 'stations')
}

/** Notes why the newest push to a station was refused, so that whoever set the device up can see it. */
export async function noteRefusal(tx: Transaction, stationId: string, at: string, because: string): Promise<void> {
  const [[station]] = await tx.query<Row[]>('SELECT site_id FROM station WHERE id = ? AND deleted_at IS NULL', [stationId])
  if (!station) return
  tx.touch(station['site_id'] as string, 'stations')
  await tx.query('UPDATE station SET refused_at = ?, refused_because = ? WHERE id = ? AND deleted_at IS NULL', [
    at,
    because.slice(0, 500),
    stationId,
  ])
}

/**
 * Raises the version of a station's history. The range is that of the readings that changed, in UTC, so that whoever holds the
 * history reads only those anew; without one only what is believed of them changed.
 */
export async function raiseVersion(
  tx: Transaction,
  { siteId, stationId }: { siteId: string; stationId: string },
  range: { first: string; last: string } | null,
): Promise<void> {
  tx.touch(siteId, 'weather')
  await tx.query('UPDATE station SET history_version = history_version + 1 WHERE id = ?', [stationId])
  await tx.query(
    'INSERT INTO history_change (station_id, version, first_at, last_at) SELECT id, history_version, ?, ? FROM station WHERE id = ?',
    [range?.first ?? null, range?.last ?? null, stationId],
  )
}

/** All there is: what changed concerns every reading. */
export const WHOLE_HISTORY = { first: '1900-01-01 00:00:00', last: '2200-01-01 00:00:00' }

/**
 * The hours changed since a version, in UTC: undefined where that is not on record, null where no reading changed.
 */
export async function changedSince(
  db: Queryable,
  station: Pick<StoredStation, 'id' | 'historyVersion'>,
  version: number,
): Promise<{ first: string; last: string } | null | undefined> {
  const [[row]] = await db.query<Row[]>(
    'SELECT COUNT(*) AS n, MIN(first_at) AS first, MAX(last_at) AS last FROM history_change WHERE station_id = ? AND version > ? AND version <= ?',
    [station.id, version, station.historyVersion],
  )
  if (Number(row?.['n']) !== station.historyVersion - version) return undefined
  return row?.['first'] ? { first: row['first'] as string, last: row['last'] as string } : null
}

/** Takes the station for a change of its readings; two imports into one station wait for each other. */
export const lockStation = (w: Write, stationId: string): Promise<void> => lockStationRow(w.tx, stationId)

export async function lockStationRow(tx: Transaction, stationId: string): Promise<void> {
  await tx.query('SELECT id FROM station WHERE id = ? FOR UPDATE', [stationId])
}

/** Notes that the readings of a station as they are now were checked. */
export async function markChecked(tx: Transaction, stationId: string): Promise<void> {
  await tx.query('UPDATE station SET checked_version = history_version WHERE id = ?', [stationId])
}
