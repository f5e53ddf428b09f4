import {
  findMethod,
  findOrganism,
  methods,
  methodSchema,
  organisms,
  organismSchema,
  spellOut,
  type Method,
  type Organism,
} from '@bocado/library'
import { jsonOf, OWN_OR_SHARED, type Queryable, type Row } from '../database/index.js'
import { HttpProblem } from '../http/problems.js'

/** The row of an entry of the site's own. */
export interface OwnRow {
  id: string
  rowVersion: number
  /** Every site of the holding has it. */
  shared: boolean
}

export interface OwnOrganism extends OwnRow {
  organism: Organism
  /** As it was written or imported. */
  entry: unknown
}

export interface OwnMethod extends OwnRow {
  method: Method
  entry: unknown
}

/** Entries of sites are checked once for each version; the same row gives the same object. */
const read = new Map<string, unknown>()
const READ_KEPT = 500

function readOnce<T>(key: string, make: () => T): T {
  const known = read.get(key)
  if (known !== undefined) return known as T
  if (read.size >= READ_KEPT) read.clear()
  const made = make()
  read.set(key, made)
  return made
}

/** An organism of a site's own; its version follows that of its row, so that watches are offered a change. */
function ownOrganismOf(row: { id: string; rowVersion: number; entry: unknown }): Organism {
  return readOnce(`organism ${row.id}@${row.rowVersion}`, () => ({
    ...organismSchema.parse(spellOut(jsonOf(row.entry))),
    version: `${row.rowVersion}.0.0`,
  }))
}

/** The site's own organism of a row that was joined as `own_id`, `own_version` and `own_entry`; null where there is none. */
export const ownEntryOf = (row: Row): Organism | null =>
  row['own_id'] ? ownOrganismOf({ id: row['own_id'] as string, rowVersion: row['own_version'] as number, entry: row['own_entry'] }) : null

const ownMethodOf = (row: { id: string; rowVersion: number; entry: unknown }): Method =>
  readOnce(`method ${row.id}@${row.rowVersion}`, () => ({
    ...methodSchema.parse(spellOut(jsonOf(row.entry))),
    version: `${row.rowVersion}.0.0`,
  }))

const rowOf = (row: Row) => ({
  id: row['id'] as string,
  rowVersion: row['row_version'] as number,
  shared: row['site_id'] === null,
  entry: jsonOf<unknown>(row['entry']),
})

export async function listOwnOrganisms(db: Queryable, siteId: string): Promise<OwnOrganism[]> {
  const [rows] = await db.query<Row[]>(`SELECT * FROM own_organism WHERE ${OWN_OR_SHARED} AND deleted_at IS NULL ORDER BY name`, [
    siteId,
    siteId,
  ])
  return rows.map(rowOf).map((row) => ({ ...row, organism: ownOrganismOf(row) }))
}

export async function listOwnMethods(db: Queryable, siteId: string): Promise<OwnMethod[]> {
  const [rows] = await db.query<Row[]>(`SELECT * FROM own_method WHERE ${OWN_OR_SHARED} AND deleted_at IS NULL ORDER BY name`, [
    siteId,
    siteId,
  ])
  return rows.map(rowOf).map((row) => ({ ...row, method: ownMethodOf(row) }))
}

/** Every organism that a site can watch: those of the library, and its own. */
export async function organismsOf(db: Queryable, siteId: string): Promise<Organism[]> {
  const own = await listOwnOrganisms(db, siteId)
  return [...organisms, ...own.map(({ organism }) => organism)].sort((a, b) => a.name.localeCompare(b.name))
}

/** The organism with this id in the library or among the site's own. */
export async function organismAt(db: Queryable, siteId: string, organismId: string): Promise<Organism | undefined> {
  return findOrganism(organismId) ?? (await listOwnOrganisms(db, siteId)).find(({ organism }) => organism.id === organismId)?.organism
}

/** The organism with this id; 404 where there is none. */
export async function requireOrganism(db: Queryable, siteId: string, organismId: string): Promise<Organism> {
  const organism = await organismAt(db, siteId, organismId)
  if (!organism) throw new HttpProblem(404, 'There is no such organism in the library or among your own.')
  return organism
}

export async function methodsOf(db: Queryable, siteId: string): Promise<(Method & { own: OwnRow | null })[]> {
  const own = await listOwnMethods(db, siteId)
  return [
    ...methods.map((method) => ({ ...method, own: null })),
    ...own.map(({ method, id, rowVersion, shared }) => ({ ...method, own: { id, rowVersion, shared } })),
  ]
}

/** Methods by their ids, the site's own among them; one that is gone is left out. */
export async function methodsByIds(db: Queryable, siteId: string, ids: readonly string[]): Promise<Method[]> {
  const own = ids.every((id) => findMethod(id)) ? [] : await listOwnMethods(db, siteId)
  return [...new Set(ids)].flatMap((id) => findMethod(id) ?? own.find(({ method }) => method.id === id)?.method ?? [])
}
