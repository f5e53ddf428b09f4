import { sqlInstant, type Queryable, type Row, type Write } from '../database/index.js'
import { raiseVersion } from './store.js'

export const HOUR_VALUES = ['temperature', 'humidity', 'rain', 'wind', 'wetness', 'soil'] as const
export type HourVariable = (typeof HOUR_VALUES)[number]

/** Minutes since 1970-01-01 UTC, then the values of `HOUR_VALUES` in °C, %, mm, m/s, share of the hour and °C. */
export type HourRow = [number, ...(number | null)[]]

/** Rows fetched at a time: a million of them at once would fill the memory. */
const ROWS_AT_ONCE = 50_000

/** Readings of a station in order, from one UTC moment to another, handed over in parts as arrays. */
export async function readHours(
  db: Queryable,
  stationId: string,
  range: { first: string; last: string },
  take: (rows: readonly HourRow[]) => void,
): Promise<void> {
  for (let after = range.first, comparison = '>='; ;) {
    const [fetched] = await db.query({
      sql: `SELECT TIMESTAMPDIFF(MINUTE, '1970-01-01', at), ${HOUR_VALUES.join(', ')} FROM reading
        WHERE station_id = ? AND at ${comparison} ? AND at <= ? ORDER BY at LIMIT ${ROWS_AT_ONCE}`,
      values: [stationId, after, range.last],
      rowsAsArray: true,
    })
    const rows = fetched as unknown as HourRow[]
    take(rows)
    const last = rows.at(-1)
    if (!last || rows.length < ROWS_AT_ONCE) return
    after = sqlInstant(new Date(last[0] * 60_000))
    comparison = '>'
  }
}

/** First and last hour that a station has read, as minutes since 1970-01-01 UTC; undefined without readings. */
export async function extentOfHours(db: Queryable, stationId: string): Promise<{ first: number; last: number } | undefined> {
  const [[row]] = await db.query<Row[]>(
    "SELECT TIMESTAMPDIFF(MINUTE, '1970-01-01', MIN(at)) AS first, TIMESTAMPDIFF(MINUTE, '1970-01-01', MAX(at)) AS last FROM reading WHERE station_id = ?",
    [stationId],
  )
  return row?.['first'] === null ? undefined : { first: row?.['first'] as number, last: row?.['last'] as number }
}

export interface DailyRow {
  day: string
  min: number
  max: number
  rain: number | null
}

export async function readDays(db: Queryable, stationId: string): Promise<DailyRow[]> {
  const [rows] = await db.query<Row[]>(
    'SELECT day, min_temperature, max_temperature, rain FROM daily_extremes WHERE station_id = ? ORDER BY day',
    [stationId],
  )
  return rows.map((row) => ({
    day: row['day'] as string,
    min: row['min_temperature'] as number,
    max: row['max_temperature'] as number,
    rain: row['rain'] as number | null,
  }))
}

export interface StoredCounts {
  new: number
  changed: number
  unchanged: number
}

const DAY_VALUES = ['min_temperature', 'max_temperature', 'rain'] as const

/**
 * Lays values over a table by way of a temporary staging table, which vanishes with its connection: half an import can
 * never be seen. A value missing in the file leaves the stored one. Runs inside the caller's transaction.
 */
async function mergeStaged(
  w: Write,
  stationId: string,
  table: 'reading' | 'daily_extremes',
  importId: string | null,
  rows: readonly (readonly unknown[])[],
  onStored: (share: number) => void,
): Promise<StoredCounts> {
  const [keyed, values] = table === 'reading' ? (['at', HOUR_VALUES] as const) : (['day', DAY_VALUES] as const)
  const columns = [keyed, ...values].join(', ')
  await w.tx.query('DROP TEMPORARY TABLE IF EXISTS staging')
  const type = table === 'reading' ? 'DATETIME' : 'DATE'
  await w.tx.query(
    `CREATE TEMPORARY TABLE staging (${keyed} ${type} PRIMARY KEY, ${values.map((v) => `${v} DOUBLE NULL`).join(', ')}) ENGINE=Aria TRANSACTIONAL=0`,
  )
  const BATCH = 4000
  for (let i = 0; i < rows.length; i += BATCH) {
    await w.tx.query(`INSERT INTO staging (${columns}) VALUES ?`, [rows.slice(i, i + BATCH)])
    onStored(Math.min(0.8, (0.8 * (i + BATCH)) / rows.length))
  }
  const same = values.map((v) => `COALESCE(s.${v}, t.${v}) <=> t.${v}`).join(' AND ')
  const join = `FROM staging s JOIN ${table} t ON t.station_id = ? AND t.${keyed} = s.${keyed}`
  const [[counted]] = await w.tx.query<Row[]>(`SELECT COUNT(*) AS n, COALESCE(SUM(NOT (${same})), 0) AS changed ${join}`, [stationId])
  const stored = Number(counted?.['n'])
  const changed = Number(counted?.['changed'])
  if (table === 'reading' && importId !== null && changed > 0) {
    await w.tx.query(
      `INSERT INTO reading_replaced (import_id, at, site_id, ${HOUR_VALUES.join(', ')}, from_import_id)
       SELECT ?, t.at, t.site_id, ${HOUR_VALUES.map((v) => `t.${v}`).join(', ')}, t.import_id ${join} WHERE NOT (${same})`,
      [importId, stationId],
    )
  }
  // Imported hours have a table of their own for what they replaced; anything else goes into the audit trail.
  if (!(table === 'reading' && importId !== null) && changed > 0) {
    const [before] = await w.tx.query<Row[]>(`SELECT t.${keyed}, ${values.map((v) => `t.${v}`).join(', ')} ${join} WHERE NOT (${same})`, [
      stationId,
    ])
    await w.tx.query("INSERT INTO audit (site_id, person_id, entity, entity_id, action, before_row) VALUES (?, ?, ?, ?, 'change', ?)", [
      w.siteId,
      w.personId,
      table,
      stationId,
      JSON.stringify(before),
    ])
  }
  if (stored < rows.length || changed > 0) {
    const extra = table === 'reading' ? '' : ', changed_by'
    await w.tx.query(
      `INSERT INTO ${table} (station_id, site_id, import_id${extra}, ${columns})
       SELECT ?, ?, ?${extra ? ', ?' : ''}, ${[keyed, ...values].map((v) => `s.${v}`).join(', ')} FROM staging s
       LEFT JOIN ${table} t ON t.station_id = ? AND t.${keyed} = s.${keyed}
       WHERE t.station_id IS NULL OR NOT (${same})
       ON DUPLICATE KEY UPDATE ${values.map((v) => `${v} = COALESCE(VALUES(${v}), ${table}.${v})`).join(', ')}, import_id = VALUES(import_id)`,
      [stationId, w.siteId, importId, ...(extra ? [w.personId] : []), stationId],
    )
    const [first, last] = [rows[0]?.[0], rows.at(-1)?.[0]] as [string, string]
    await raiseVersion(w.tx, stationId, table === 'reading' ? { first, last } : null)
    if (table === 'reading') await recheckThoseFilledFromOthers(w, stationId)
  }
  await w.tx.query('DROP TEMPORARY TABLE staging')
  onStored(1)
  return { new: rows.length - stored, changed, unchanged: stored - changed }
}

/** Other stations whose doubted hours rest on a neighbour, or on none yet, are checked anew when this one changes. */
async function recheckThoseFilledFromOthers(w: Write, stationId: string): Promise<void> {
  const [others] = await w.tx.query<Row[]>(
    `SELECT s.id FROM station s WHERE s.site_id = ? AND s.id <> ?
     AND EXISTS (SELECT 1 FROM reading_fix f WHERE f.station_id = s.id AND f.method <> 'interpolated' AND f.decision = 'open')`,
    [w.siteId, stationId],
  )
  for (const other of others) await raiseVersion(w.tx, other['id'] as string, null)
}

/** Stores hourly readings in order: a UTC moment, then the values of `HOUR_VALUES`; `importId` null where a device pushed them. */
export const mergeHours = (
  w: Write,
  stationId: string,
  importId: string | null,
  rows: readonly (readonly unknown[])[],
  onStored: (share: number) => void = () => undefined,
): Promise<StoredCounts> => mergeStaged(w, stationId, 'reading', importId, rows, onStored)

/** Stores daily extremes: [day, minimum, maximum, rain]; `importId` null where they were typed. */
export const mergeDays = (
  w: Write,
  stationId: string,
  importId: string | null,
  rows: readonly (readonly unknown[])[],
  onStored: (share: number) => void = () => undefined,
): Promise<StoredCounts> => mergeStaged(w, stationId, 'daily_extremes', importId, rows, onStored)
