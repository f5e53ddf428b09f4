import type { Station } from '@bocado/contract'
import { insertRow, instantOf, type Queryable, type Row, type Write } from '../database/index.js'

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

/** How much a station has read, and from when to when in its standard time. */
export async function extentOf(
  db: Queryable,
  station: StoredStation,
): Promise<Pick<Station, 'hours' | 'typedDays' | 'firstDay' | 'lastDay'>> {
  const [[hourly]] = await db.query<Row[]>(
    'SELECT COUNT(*) AS n, DATE(MIN(at) + INTERVAL ? MINUTE) AS first, DATE(MAX(at) + INTERVAL ? MINUTE) AS last FROM reading WHERE station_id = ?',
    [station.utcOffsetMinutes, station.utcOffsetMinutes, station.id],
  )
  const [[daily]] = await db.query<Row[]>(
    'SELECT COUNT(*) AS n, MIN(day) AS first, MAX(day) AS last FROM daily_extremes WHERE station_id = ?',
    [station.id],
  )
  const days = [hourly?.['first'], hourly?.['last'], daily?.['first'], daily?.['last']]
    .filter((d): d is string => typeof d === 'string')
    .sort()
  return { hours: hourly?.['n'] as number, typedDays: daily?.['n'] as number, firstDay: days[0] ?? null, lastDay: days.at(-1) ?? null }
}

export const insertStation = (
  w: Write,
  columns: { name: string; utcOffsetMinutes: number; sensorHeightM: number | null },
): Promise<string> =>
  insertRow(w, 'station', { name: columns.name, utc_offset_minutes: columns.utcOffsetMinutes, sensor_height_m: columns.sensorHeightM })

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

export async function setToken(w: Write, stationId: string, tokenHash: string, simulated: boolean): Promise<void> {
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
  await w.tx.query('UPDATE station SET last_hour = GREATEST(COALESCE(last_hour, ?), ?) WHERE id = ?', [hour, hour, stationId])
}

/** Takes the station for a change of its readings; two imports into one station wait for each other. */
export async function lockStation(w: Write, stationId: string): Promise<void> {
  await w.tx.query('SELECT id FROM station WHERE id = ? FOR UPDATE', [stationId])
}
