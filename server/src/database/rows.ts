import { randomUUID } from 'node:crypto'
import { ALL_SITES, type Aspect, type Made } from '@bocado/contract'
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
  | 'holding'
  | 'place'
  | 'check_area'
  | 'ground_shape'
  | 'watch'
  | 'product'
  | 'deed'
  | 'harvest'
  | 'planting'
  | 'crop_stage'
  | 'round'
  | 'flag'
  | 'flag_visit'
  | 'find_link'
  | 'public_find'
  | 'review_note'
  | 'search'
  | 'decision'
  | 'counting_rule'
  | 'own_clock'
  | 'wet_event'
  | 'monthly_normals'
  | 'station_correction'
  | 'own_figure'
  | 'event_record'
  | 'trap'
  | 'own_organism'
  | 'own_method'
  | 'photo'
  | 'identity_check'
  | 'unknown_find'
  | 'reportable'
  | 'bloom_plant'
  | 'own_bloom_plant'
  | 'bloom_record'
  | 'bloom_trigger'
  | 'variety_look'
  | 'arrival'
  | 'plant_event'
  | 'aerial_image'
  | 'trap_lure'
  | 'second_look'
  | 'site_rule'
  | 'programme'
  | 'job'
  | 'arrangement'
  | 'supply'
  | 'soil_reading'
  | 'machine'
  | 'trial'
  | 'lot'
  | 'permission'
  | 'notice'
  | 'plot'
  | 'plot_look'
  | 'wanted_plant'
  | 'replacement'
  | 'companion'
type Columns = Readonly<Record<string, unknown>>

/** Which aspect of a site a table belongs to. */
const ASPECT_OF: Readonly<Record<Editable, Aspect>> = {
  site: 'site',
  holding: 'site',
  place: 'site',
  check_area: 'site',
  ground_shape: 'site',
  wet_event: 'site',
  monthly_normals: 'site',
  station: 'stations',
  station_correction: 'weather',
  watch: 'watches',
  own_figure: 'watches',
  event_record: 'watches',
  trap: 'watches',
  own_clock: 'watches',
  round: 'counts',
  flag: 'counts',
  flag_visit: 'counts',
  find_link: 'words',
  public_find: 'words',
  review_note: 'words',
  search: 'counts',
  decision: 'counts',
  counting_rule: 'counts',
  product: 'treatments',
  deed: 'treatments',
  harvest: 'treatments',
  own_organism: 'library',
  own_method: 'library',
  photo: 'library',
  identity_check: 'library',
  unknown_find: 'library',
  reportable: 'library',
  variety_look: 'library',
  bloom_plant: 'blooms',
  own_bloom_plant: 'blooms',
  bloom_record: 'blooms',
  planting: 'blooms',
  crop_stage: 'blooms',
  bloom_trigger: 'blooms',
  arrival: 'counts',
  plant_event: 'counts',
  aerial_image: 'counts',
  second_look: 'counts',
  trap_lure: 'watches',
  site_rule: 'site',
  programme: 'treatments',
  job: 'treatments',
  arrangement: 'treatments',
  supply: 'treatments',
  machine: 'treatments',
  trial: 'treatments',
  lot: 'treatments',
  permission: 'treatments',
  notice: 'treatments',
  soil_reading: 'site',
  plot: 'words',
  plot_look: 'words',
  wanted_plant: 'words',
  replacement: 'words',
  companion: 'site',
}

/** Tables whose rows belong to one site, or to its holding and so to every site of it. */
const SHARED: ReadonlySet<Editable> = new Set<Editable>(['product', 'machine', 'own_organism', 'own_method'])

/** Condition that picks rows of a site, or of its holding, from a table that either may own; it takes the site's id twice. */
export const OWN_OR_SHARED = '(site_id = ? OR holding_id = (SELECT holding_id FROM site WHERE id = ?))'

/** The holding of a site. */
export async function holdingOf(db: Queryable, siteId: string): Promise<string> {
  const [[row]] = await db.query<Row[]>('SELECT holding_id FROM site WHERE id = ?', [siteId])
  if (!row) throw new HttpProblem(404, 'There is no such site.')
  return row['holding_id'] as string
}

/** The columns that say whose a row is: the site's own, or its holding's. */
export async function ownerColumns(w: Write, shared: boolean): Promise<{ site_id: string | null; holding_id: string | null }> {
  return shared ? { site_id: null, holding_id: await holdingOf(w.tx, w.siteId) } : { site_id: w.siteId, holding_id: null }
}

/**
 * Notes what of its site a write to a table changes; that there is a site, or how it is called, concerns the list of sites.
 *
 * @param rows what was written: where a holding owns one, every site of it changes
 */
async function touch({ tx, siteId }: Write, table: Editable, rows: readonly unknown[]): Promise<void> {
  tx.touch(siteId, ASPECT_OF[table])
  if (table === 'site' || table === 'holding') tx.touch(ALL_SITES, 'site')
  if (table !== 'holding' && !rows.some((row) => (row as Columns | null)?.['holding_id'] && SHARED.has(table))) return
  const [sites] = await tx.query<Row[]>('SELECT id FROM site WHERE holding_id = (SELECT holding_id FROM site WHERE id = ?)', [siteId])
  for (const site of sites) tx.touch(site['id'] as string, ASPECT_OF[table])
}

/** Condition that picks rows of a site, with the values of its placeholders. */
function ofSite(table: Editable, siteId: string): [string, string[]] {
  if (SHARED.has(table)) return [OWN_OR_SHARED, [siteId, siteId]]
  if (table === 'site') return ['id = ?', [siteId]]
  if (table === 'holding') return ['id = (SELECT holding_id FROM site WHERE id = ?)', [siteId]]
  return ['site_id = ?', [siteId]]
}

/** Tables whose rows say nothing of a site themselves. */
const WITHOUT_SITE: ReadonlySet<Editable> = new Set<Editable>(['site', 'holding'])

async function audit(w: Write, table: Editable, id: string, action: string, before: unknown, after: unknown): Promise<void> {
  await touch(w, table, [before, after])
  await auditOther(w, table, id, action, before, after)
}

/** Keeps who changed what, of a table that is written otherwise; whoever writes it says what of the site it touches. */
export async function auditOther(w: Write, table: string, id: string, action: string, before: unknown, after: unknown): Promise<void> {
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
  const [condition, values] = ofSite(table, siteId)
  const [[row]] = await db.query<Row[]>(`SELECT * FROM ${table} WHERE id = ? AND ${condition}${lock ? ' FOR UPDATE' : ''}`, [id, ...values])
  if (!row) throw new HttpProblem(404, `There is no such ${table.replaceAll('_', ' ')} at this site.`)
  return row
}

/**
 * Whether a record that a device made is stored already, by the id that the device gave it. Throws where it was removed since, or where the
 * id is that of something else: it is not stored again.
 */
export async function isStored(w: Write, table: Editable, id: string | undefined): Promise<boolean> {
  if (id === undefined) return false
  const [[row]] = await w.tx.query<Row[]>(`SELECT site_id, deleted_at FROM ${table} WHERE id = ?`, [id])
  if (!row) return false
  if (row['site_id'] !== w.siteId) throw new HttpProblem(422, 'This record carries the number of another one. Enter it anew.')
  if (row['deleted_at'] !== null)
    throw new HttpProblem(422, 'This had been stored, and was removed since. Restore it there if it is right.')
  return true
}

/** When a device made a record, and in which order. Throws where somebody else made it than the one who sends it. */
export function madeColumns(w: Write, made: Made): Columns {
  if (!made) return {}
  if (made.by !== undefined && made.by !== w.personId)
    throw new HttpProblem(403, 'Somebody else made this record. It is sent once they are signed in here.')
  return { recorded_at: sqlInstant(made.at), queue_order: made.order }
}

/** Inserts a row with a new id, or with that of the device which made it. Returns the id. */
export async function insertRow(w: Write, table: Editable, columns: Columns, id: string = randomUUID()): Promise<string> {
  const all: Columns = { id, ...(WITHOUT_SITE.has(table) ? {} : { site_id: w.siteId }), changed_by: w.personId, ...columns }
  const names = Object.keys(all)
  await w.tx.query(`INSERT INTO ${table} (${names.join(', ')}) VALUES (${names.map(() => '?').join(', ')})`, Object.values(all))
  await audit(w, table, id, 'create', null, columns)
  return id
}

/** Inserts rows of the same columns, each with a new id, in two statements however many they are. */
export async function insertRows(w: Write, table: Editable, rows: readonly Columns[]): Promise<void> {
  if (rows.length === 0) return
  await touch(w, table, rows)
  const all = rows.map((columns) => ({ id: randomUUID(), site_id: w.siteId, changed_by: w.personId, ...columns }))
  const names = Object.keys(all[0] as Columns)
  await w.tx.query(`INSERT INTO ${table} (${names.join(', ')}) VALUES ?`, [all.map((row) => names.map((name) => (row as Columns)[name]))])
  await w.tx.query('INSERT INTO audit (site_id, person_id, entity, entity_id, action, before_row, after_row) VALUES ?', [
    all.map((row, i) => [w.siteId, w.personId, table, row.id, 'create', null, JSON.stringify(rows[i])]),
  ])
}

/** Inserts a row that may stand only once; where it stands already, the row is refused with the problem that `known` makes. */
export const insertOnce = (w: Write, table: Editable, columns: Columns, known: () => HttpProblem, id?: string): Promise<string> =>
  onceOnly(insertRow(w, table, columns, id), known)

/** Changes a row that may stand only once; where what it becomes stands already, the change is refused with the problem that `known` makes. */
export const updateOnce = (
  w: Write,
  table: Editable,
  id: string,
  rowVersion: number,
  columns: Columns,
  known: () => HttpProblem,
): Promise<void> => onceOnly(updateRow(w, table, id, rowVersion, columns), known)

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
  await w.tx.query(`UPDATE ${table} SET ${names.map((name) => `${name} = ?`).join(', ')} WHERE id = ?`, [
    ...Object.values(all),
    before['id'],
  ])
  await audit(w, table, before['id'] as string, action, before, columns)
}
