import { randomUUID } from 'node:crypto'
import { ALL_SITES, type Aspect } from '@bocado/contract'
import { HttpProblem } from '../http/problems.js'
import { sqlInstant, type Row } from './pool.js'
import type { Queryable, Transaction } from './session.js'

/** A write in progress: its transaction, the site it belongs to and who makes it. */
export interface Write {
  tx: Transaction
  siteId: string
  personId: string
  /** When it is made, by the clock of the server. */
  now: Date
}

/** Tables with `site_id`, `row_version`, `changed_by` and `deleted_at`, which people change. */
export type Editable =
  | 'site'
  | 'station'
  | 'block'
  | 'check_area'
  | 'watch'
  | 'product'
  | 'treatment'
  | 'round'
  | 'wet_event'
  | 'monthly_normals'
  | 'station_correction'
  | 'own_figure'
  | 'event_record'
  | 'own_organism'
  | 'own_method'
  | 'photo'
  | 'identity_check'
  | 'bloom_plant'
  | 'bloom_record'
  | 'bloom_trigger'
  | 'variety_look'
type Columns = Readonly<Record<string, unknown>>

/** Which aspect of a site a table belongs to. */
const ASPECT_OF: Readonly<Record<Editable, Aspect>> = {
  site: 'site',
  block: 'site',
  check_area: 'site',
  wet_event: 'site',
  monthly_normals: 'site',
  station: 'stations',
  station_correction: 'weather',
  watch: 'watches',
  own_figure: 'watches',
  event_record: 'watches',
  round: 'counts',
  product: 'treatments',
  treatment: 'treatments',
  own_organism: 'library',
  own_method: 'library',
  photo: 'library',
  identity_check: 'library',
  variety_look: 'library',
  bloom_plant: 'blooms',
  bloom_record: 'blooms',
  bloom_trigger: 'blooms',
}

/** Notes what of its site a write to a table changes; that there is a site, or how it is called, concerns the list of sites. */
function touch({ tx, siteId }: Write, table: Editable): void {
  tx.touch(siteId, ASPECT_OF[table])
  if (table === 'site') tx.touch(ALL_SITES, 'site')
}

const siteColumn = (table: Editable): string => (table === 'site' ? 'id' : 'site_id')

async function audit(w: Write, table: Editable, id: string, action: string, before: unknown, after: unknown): Promise<void> {
  touch(w, table)
  await w.tx.query(
    'INSERT INTO audit (site_id, person_id, entity, entity_id, action, before_row, after_row) VALUES (?, ?, ?, ?, ?, ?, ?)',
    [w.siteId, w.personId, table, id, action, before ? JSON.stringify(before) : null, after ? JSON.stringify(after) : null],
  )
}

/** The live row of the site with this id. Throws 404 where there is none. */
export async function liveRow(db: Queryable, siteId: string, table: Editable, id: string, lock = false): Promise<Row> {
  const row = await anyRow(db, siteId, table, id, lock)
  if (row['deleted_at'] !== null) throw new HttpProblem(404, `This ${table.replaceAll('_', ' ')} was removed. Restore it first.`)
  return row
}

async function anyRow(db: Queryable, siteId: string, table: Editable, id: string, lock: boolean): Promise<Row> {
  const [[row]] = await db.query<Row[]>(`SELECT * FROM ${table} WHERE id = ? AND ${siteColumn(table)} = ?${lock ? ' FOR UPDATE' : ''}`, [
    id,
    siteId,
  ])
  if (!row) throw new HttpProblem(404, `There is no such ${table.replaceAll('_', ' ')} at this site.`)
  return row
}

/** Inserts a row with a new id, or with the client's. Returns the id. */
export async function insertRow(w: Write, table: Editable, columns: Columns, id: string = randomUUID()): Promise<string> {
  const all: Columns = { id, ...(table === 'site' ? {} : { site_id: w.siteId }), changed_by: w.personId, ...columns }
  const names = Object.keys(all)
  await w.tx.query(`INSERT INTO ${table} (${names.join(', ')}) VALUES (${names.map(() => '?').join(', ')})`, Object.values(all))
  await audit(w, table, id, 'create', null, columns)
  return id
}

/** Inserts rows of the same columns, each with a new id, in two statements however many they are. */
export async function insertRows(w: Write, table: Editable, rows: readonly Columns[]): Promise<void> {
  if (rows.length === 0) return
  touch(w, table)
  const all = rows.map((columns) => ({ id: randomUUID(), site_id: w.siteId, changed_by: w.personId, ...columns }))
  const names = Object.keys(all[0] as Columns)
  await w.tx.query(`INSERT INTO ${table} (${names.join(', ')}) VALUES ?`, [all.map((row) => names.map((name) => (row as Columns)[name]))])
  await w.tx.query('INSERT INTO audit (site_id, person_id, entity, entity_id, action, before_row, after_row) VALUES ?', [
    all.map((row, i) => [w.siteId, w.personId, table, row.id, 'create', null, JSON.stringify(rows[i])]),
  ])
}

/** Inserts a row that may stand only once; where it stands already, the row is refused with the problem that `known` makes. */
export const insertOnce = (w: Write, table: Editable, columns: Columns, known: () => HttpProblem): Promise<string> =>
  onceOnly(insertRow(w, table, columns), known)

/** Waits for a write to a table whose live rows are unique by the key `once`. */
async function onceOnly<T>(written: Promise<T>, known: () => HttpProblem): Promise<T> {
  try {
    return await written
  } catch (error) {
    const { code, message } = error as { code?: string; message?: string }
    if (code === 'ER_DUP_ENTRY' && message?.includes("'once'")) throw known()
    throw error
  }
}

/** Changes a live row that is still at the version the editor saw. A stale edit throws 409 with the row as it is now. */
export async function updateRow(w: Write, table: Editable, id: string, rowVersion: number, columns: Columns): Promise<void> {
  const before = await liveRow(w.tx, w.siteId, table, id, true)
  await changeRow(w, table, before, rowVersion, columns, 'change')
}

/** Takes a row out of sight. It stays, and `restoreRow` brings it back. */
export async function removeRow(w: Write, table: Editable, id: string, rowVersion: number): Promise<{ id: string; rowVersion: number }> {
  const before = await liveRow(w.tx, w.siteId, table, id, true)
  await changeRow(w, table, before, rowVersion, { deleted_at: sqlInstant(w.now) }, 'remove')
  return { id, rowVersion: rowVersion + 1 }
}

export async function restoreRow(w: Write, table: Editable, id: string, rowVersion: number): Promise<void> {
  const before = await anyRow(w.tx, w.siteId, table, id, true)
  await onceOnly(
    changeRow(w, table, before, rowVersion, { deleted_at: null }, 'restore'),
    () => new HttpProblem(422, 'The same was entered again meanwhile. Remove that one first, if this one is right.'),
  )
}

async function changeRow(w: Write, table: Editable, before: Row, rowVersion: number, columns: Columns, action: string): Promise<void> {
  if (before['row_version'] !== rowVersion) {
    throw new HttpProblem(
      409,
      'Somebody else changed this meanwhile. What you typed is still here: save it again to put it over theirs, or cancel to see theirs.',
      { current: before },
    )
  }
  const all: Columns = { ...columns, changed_by: w.personId, row_version: rowVersion + 1 }
  const names = Object.keys(all)
  await w.tx.query(`UPDATE ${table} SET ${names.map((name) => `${name} = ?`).join(', ')} WHERE id = ? AND ${siteColumn(table)} = ?`, [
    ...Object.values(all),
    before['id'],
    w.siteId,
  ])
  await audit(w, table, before['id'] as string, action, before, columns)
}
