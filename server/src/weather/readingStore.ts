import { MS_PER_MINUTE } from '@bocado/core'
import { loadRows, sqlInstant, type Queryable, type Row, type Write } from '../database/index.js'
import { raiseVersion } from './store.js'

export const HOUR_VALUES = ['temperature', 'humidity', 'rain', 'wind', 'wetness', 'soil', 'direction'] as const
export type HourVariable = (typeof HOUR_VALUES)[number]

/** Minutes since 1970-01-01 UTC, then the values of `HOUR_VALUES` in °C, %, mm, m/s, share of the hour, °C and degrees. */
export type HourRow = [number, ...(number | null)[]]

/** Rows fetched at a time: a million of them at once would fill the memory. */
const ROWS_AT_ONCE = 10_000

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
    after = sqlInstant(new Date(last[0] * MS_PER_MINUTE))
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

export const dailyRowOf = (row: Row): DailyRow => ({
  day: row['day'] as string,
  min: row['min_temperature'] as number,
  max: row['max_temperature'] as number,
  rain: row['rain'] as number | null,
})

/** Days of which a file gave the extremes, in order. */
export async function readDays(db: Queryable, stationId: string): Promise<DailyRow[]> {
  const [rows] = await db.query<Row[]>(
    'SELECT day, min_temperature, max_temperature, rain FROM daily_extremes WHERE station_id = ? ORDER BY day',
    [stationId],
  )
  return rows.map(dailyRowOf)
}

/** A day as somebody typed it. */
export interface TypedDayRow extends DailyRow {
  by: string
}

/** Days that somebody typed, in order. They win over what the station or a file says of the day. */
export async function readTypedDays(db: Queryable, stationId: string): Promise<TypedDayRow[]> {
  const [rows] = await db.query<Row[]>(
    `SELECT t.day, t.min_temperature, t.max_temperature, t.rain, p.name AS person FROM typed_day t JOIN person p ON p.id = t.changed_by
     WHERE t.station_id = ? ORDER BY t.day`,
    [stationId],
  )
  return rows.map((row) => ({ ...dailyRowOf(row), by: row['person'] as string }))
}

export interface StoredCounts {
  new: number
  changed: number
  unchanged: number
}

export const DAY_VALUES = ['min_temperature', 'max_temperature', 'rain'] as const

/**
 * Rows to be merged, in order of their keys: milliseconds UTC of an hour, or of a day as if its midnight were UTC; NaN is no value, a column
 * without entries none at all.
 */
export interface MergeRows {
  keys: Float64Array
  columns: readonly Float64Array[]
}

/** The rows as the database takes them: moment or day, then the values. */
export function* rowTexts(
  { keys, columns }: MergeRows,
  daily: boolean,
  from = 0,
  until = keys.length,
): Generator<(string | number | null)[]> {
  for (let i = from; i < until; i++) {
    const key = new Date(keys[i] as number).toISOString()
    const values = columns.map((column) => {
      const value = column[i]
      return value === undefined || Number.isNaN(value) ? null : value
    })
    yield [daily ? key.slice(0, 10) : key.slice(0, 19).replace('T', ' '), ...values]
  }
}

type Target = 'reading' | 'daily_extremes'

/**
 * Lays values over a table; a value that is missing leaves the stored one. Where the table has nothing between the first and the
 * last key they go straight in, otherwise by way of a temporary staging table, which vanishes with its connection. Runs inside the
 * caller's transaction: half an import can never be seen.
 */
async function merge(
  w: Write,
  stationId: string,
  table: Target,
  importId: string | null,
  rows: MergeRows,
  onStored: (share: number) => void,
): Promise<StoredCounts> {
  const daily = table === 'daily_extremes'
  const [keyed, values] = daily ? (['day', DAY_VALUES] as const) : (['at', HOUR_VALUES] as const)
  const n = rows.keys.length
  const keyAt = (i: number): string => {
    const [row] = rowTexts(rows, daily, i, i + 1)
    return row?.[0] as string
  }
  const [first, last] = [keyAt(0), keyAt(n - 1)]
  const constants = { station_id: stationId, site_id: w.siteId, import_id: importId, ...(daily ? { changed_by: w.personId } : {}) }
  const [[met]] = await w.tx.query<Row[]>(`SELECT 1 AS met FROM ${table} WHERE station_id = ? AND ${keyed} BETWEEN ? AND ? LIMIT 1`, [
    stationId,
    first,
    last,
  ])
  const load = (into: string, also: Readonly<Record<string, unknown>>, share: number): Promise<void> =>
    loadRows(w.tx, into, [keyed, ...values], also, rowTexts(rows, daily), n, (done) => onStored(share * done))
  let counts: StoredCounts = { new: n, changed: 0, unchanged: 0 }
  if (met && importId === null && n <= FEW_ROWS) counts = await mergeFew(w, table, keyed, values, rows, constants)
  else if (met) {
    await w.tx.query('DROP TEMPORARY TABLE IF EXISTS staging')
    await w.tx.query(
      `CREATE TEMPORARY TABLE staging (${keyed} ${daily ? 'DATE' : 'DATETIME'} PRIMARY KEY, ${values.map((v) => `${v} DOUBLE NULL`).join(', ')}) ENGINE=Aria TRANSACTIONAL=0`,
    )
    await load('staging', {}, 0.7)
    counts = await mergeStaged(w, table, keyed, values, n, constants)
    await w.tx.query('DROP TEMPORARY TABLE staging')
  } else await load(table, constants, 1)
  if (counts.new > 0 || counts.changed > 0) await raiseVersion(w.tx, { siteId: w.siteId, stationId }, daily ? null : { first, last })
  onStored(1)
  return counts
}

/** A push is laid over what is there without a table between. */
const FEW_ROWS = 100

async function mergeFew(
  w: Write,
  table: Target,
  keyed: string,
  values: readonly string[],
  rows: MergeRows,
  constants: Readonly<Record<string, string | null>>,
): Promise<StoredCounts> {
  const given = [...rowTexts(rows, table === 'daily_extremes')]
  const { station_id: stationId } = constants
  const [stored] = await w.tx.query<Row[]>(`SELECT ${keyed}, ${values.join(', ')} FROM ${table} WHERE station_id = ? AND ${keyed} IN (?)`, [
    stationId,
    given.map(([key]) => key),
  ])
  const before = new Map(stored.map((row) => [row[keyed] as string, row]))
  const differs = (row: Row, cells: readonly (string | number | null)[]): boolean =>
    values.some((name, v) => cells[v + 1] !== null && cells[v + 1] !== undefined && cells[v + 1] !== row[name])
  const replaced = given.flatMap((cells) => {
    const row = before.get(cells[0] as string)
    return row && differs(row, cells) ? [row] : []
  })
  const written = given.filter((cells) => {
    const row = before.get(cells[0] as string)
    return !row || differs(row, cells)
  })
  if (replaced.length > 0)
    await w.tx.query("INSERT INTO audit (site_id, person_id, entity, entity_id, action, before_row) VALUES (?, ?, ?, ?, 'change', ?)", [
      w.siteId,
      w.personId,
      table,
      stationId,
      JSON.stringify(replaced),
    ])
  if (written.length > 0) {
    const names = Object.keys(constants)
    await w.tx.query(
      `INSERT INTO ${table} (${[...names, keyed, ...values].join(', ')}) VALUES ?
       ON DUPLICATE KEY UPDATE ${values.map((v) => `${v} = COALESCE(VALUES(${v}), ${table}.${v})`).join(', ')}, import_id = VALUES(import_id)`,
      [written.map((cells) => [...Object.values(constants), ...cells])],
    )
  }
  return { new: given.length - stored.length, changed: replaced.length, unchanged: stored.length - replaced.length }
}

/** Merges what is staged into its table. What it replaces is kept. */
async function mergeStaged(
  w: Write,
  table: Target,
  keyed: string,
  values: readonly string[],
  rows: number,
  constants: Readonly<Record<string, string | null>>,
): Promise<StoredCounts> {
  const { station_id: stationId, import_id: importId } = constants
  const same = values.map((v) => `COALESCE(s.${v}, t.${v}) <=> t.${v}`).join(' AND ')
  const join = `FROM staging s JOIN ${table} t ON t.station_id = ? AND t.${keyed} = s.${keyed}`
  const [[counted]] = await w.tx.query<Row[]>(`SELECT COUNT(*) AS n, COALESCE(SUM(NOT (${same})), 0) AS changed ${join}`, [stationId])
  const stored = Number(counted?.['n'])
  const changed = Number(counted?.['changed'])
  // Imports have tables of their own for what they replaced, so that they can be taken back; anything else goes into the audit trail.
  if (table === 'reading' && importId != null && changed > 0) {
    await w.tx.query(
      `INSERT INTO reading_replaced (import_id, at, site_id, ${HOUR_VALUES.join(', ')}, from_import_id)
       SELECT ?, t.at, t.site_id, ${HOUR_VALUES.map((v) => `t.${v}`).join(', ')}, t.import_id ${join} WHERE NOT (${same})`,
      [importId, stationId],
    )
  } else if (table === 'daily_extremes' && changed > 0) {
    await w.tx.query(
      `INSERT INTO daily_replaced (import_id, day, site_id, ${DAY_VALUES.join(', ')}, from_import_id)
       SELECT ?, t.day, t.site_id, ${DAY_VALUES.map((v) => `t.${v}`).join(', ')}, t.import_id ${join} WHERE NOT (${same})`,
      [importId, stationId],
    )
  } else if (changed > 0) {
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
  if (stored < rows || changed > 0) {
    const names = Object.keys(constants)
    await w.tx.query(
      `INSERT INTO ${table} (${[...names, keyed, ...values].join(', ')})
       SELECT ${[...names.map(() => '?'), ...[keyed, ...values].map((v) => `s.${v}`)].join(', ')} FROM staging s
       LEFT JOIN ${table} t ON t.station_id = ? AND t.${keyed} = s.${keyed}
       WHERE t.station_id IS NULL OR NOT (${same})
       ON DUPLICATE KEY UPDATE ${values.map((v) => `${v} = COALESCE(VALUES(${v}), ${table}.${v})`).join(', ')}, import_id = VALUES(import_id)`,
      [...Object.values(constants), stationId],
    )
  }
  return { new: rows - stored, changed, unchanged: stored - changed }
}

/** Stores hourly readings, their columns those of `HOUR_VALUES`; `importId` null where a device pushed them. */
export const mergeHours = (
  w: Write,
  stationId: string,
  importId: string | null,
  rows: MergeRows,
  onStored: (share: number) => void = () => undefined,
): Promise<StoredCounts> => merge(w, stationId, 'reading', importId, rows, onStored)

/** Stores daily extremes of a file, their columns minimum, maximum and rain. */
export const mergeDays = (
  w: Write,
  stationId: string,
  importId: string,
  rows: MergeRows,
  onStored: (share: number) => void = () => undefined,
): Promise<StoredCounts> => merge(w, stationId, 'daily_extremes', importId, rows, onStored)

/** Rows from values in hand; null and undefined are no value. Rows need not come in order. */
export function mergeRows<R>(
  rows: readonly R[],
  keyOf: (row: R) => number,
  values: readonly ((row: R) => number | null | undefined)[],
): MergeRows {
  const sorted = [...rows].sort((a, b) => keyOf(a) - keyOf(b))
  return {
    keys: Float64Array.from(sorted, keyOf),
    columns: values.map((value) => Float64Array.from(sorted, (row) => value(row) ?? NaN)),
  }
}
