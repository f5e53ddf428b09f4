import { randomBytes } from 'node:crypto'
import type { library, ResponseOf } from '@bocado/contract'
import { resolveEvents } from '@bocado/core'
import { findMethod, findOrganism, methodSchema, modelOf, organismSchema, spellOut, type Organism } from '@bocado/library'
import type { z } from 'zod'
import {
  insertOnce,
  instantOf,
  jsonOf,
  OWN_OR_SHARED,
  ownerColumns,
  restoreRow,
  updateRow,
  type Queryable,
  type Row,
  type Write,
} from '../database/index.js'
import { fieldsProblem, HttpProblem, type FieldMessage, coded } from '../http/problems.js'
import { listOwnMethods } from './catalogue.js'

/** Ids of a site's own begin with this, so that they never meet one of the library. */
const OWN = 'own-'

/** An id that nothing else has: names may be alike, or be written in letters that no id can hold. */
const freshId = (): string => `${OWN}${Array.from(randomBytes(12), (byte) => String.fromCharCode(97 + (byte % 26))).join('')}`

function refuse(fields: FieldMessage[]): never {
  throw fieldsProblem(fields)
}

const at = (path: string): string => (path === '' ? 'entry' : `entry.${path}`)

/** An entry spelt out and checked; everything that is wrong in it is named by its path. */
function checked<T>(entry: unknown, schema: z.ZodType<T>): T {
  let whole: unknown
  try {
    whole = spellOut(entry)
  } catch (error) {
    refuse([{ path: 'entry', message: error instanceof Error ? error.message : 'cannot be read' }])
  }
  const parsed = schema.safeParse(whole)
  if (!parsed.success) refuse(parsed.error.issues.map((issue) => ({ path: at(issue.path.join('.')), message: issue.message })))
  return parsed.data
}

/** What a schema cannot see: orders that have to hold, and names that have to exist. */
function faultsOf(organism: Organism, methodIds: ReadonlySet<string>): FieldMessage[] {
  const faults: FieldMessage[] = []
  const { heat, stages, generations, about } = organism
  if (heat.upper && heat.upper.value <= heat.lower.value)
    faults.push(
      coded(at('heat.upper'), 'heat.upper-below-lower', {
        lower: { si: heat.lower.value, unit: '°C' },
        upper: { si: heat.upper.value, unit: '°C' },
      }),
    )
  const known = new Set(stages.map(({ id }) => id))
  generations.forEach((generation, g) => {
    const path = `generations.${g}`
    generation.reachableStages.forEach((id, i) => {
      const stage = stages.find((s) => s.id === id)
      if (!stage)
        faults.push({ path: at(`${path}.reachableStages.${i}`), message: `there is no stage ${id}; use ${[...known].join(', ')}` })
      else if (!generation.noReach && !about.reach.some(({ stages: reached }) => reached.includes(id)))
        faults.push({
          path: at(`${path}.reachableStages.${i}`),
          message: `no method reaches ${stage.name}; add one under what helps, or say under noReach that none does`,
        })
    })
    generation.events.forEach((event, i) => {
      if (!known.has(event.stage))
        faults.push({ path: at(`${path}.events.${i}.stage`), message: `there is no stage ${event.stage}; use ${[...known].join(', ')}` })
    })
  })
  about.reach.forEach(({ method, stages: reached, strains }, i) => {
    const kinds = findMethod(method)?.strains.map(({ id }) => id) ?? []
    const wrong = strains?.find((id) => !kinds.includes(id))
    if (wrong !== undefined) faults.push({ path: at(`about.reach.${i}.strains`), message: `there is no ${wrong} of ${method}` })
    if (kinds.length > 0 && !strains)
      faults.push({ path: at(`about.reach.${i}.strains`), message: `say which kind of ${method} does it: ${kinds.join(', ')}` })
    if (!methodIds.has(method) && !findMethod(method))
      faults.push({ path: at(`about.reach.${i}.method`), message: `there is no method ${method} in the library or among your own` })
    for (const id of reached)
      if (!known.has(id))
        faults.push({ path: at(`about.reach.${i}.stages`), message: `there is no stage ${id}; use ${[...known].join(', ')}` })
  })
  if (faults.length === 0) faults.push(...faultsOfOrder(organism))
  return faults
}

/** Events come after each other: each median later than the one before it in its generation. */
function faultsOfOrder(organism: Organism): FieldMessage[] {
  try {
    const resolved = resolveEvents(modelOf(organism))
    return organism.generations.flatMap(({ id, events }, g) =>
      events.flatMap((event, i) => {
        const before = events[i - 1]
        const median = (name: string): number => resolved.find((e) => e.id === name && e.generation === id)?.spread.median ?? 0
        return before && median(event.id) <= median(before.id)
          ? [
              coded(at(`generations.${g}.events.${i}.heat`), 'heat.out-of-order', {
                event: event.name,
                comes: { si: Math.round(median(event.id)), unit: '°C·d' },
                before: before.name,
                at: { si: Math.round(median(before.id)), unit: '°C·d' },
              }),
            ]
          : []
      }),
    )
  } catch (error) {
    if (!(error instanceof RangeError)) throw error
    return [{ path: at('generations'), message: `does not make a model: ${error.message}` }]
  }
}

type Table = 'own_organism' | 'own_method'

const idColumn = (table: Table): string => (table === 'own_organism' ? 'organism_id' : 'method_id')

/** The live entry of the site under an id. */
async function liveEntry(w: Write, table: Table, entryId: string): Promise<Row | undefined> {
  const [[row]] = await w.tx.query<Row[]>(
    `SELECT id, row_version, name, holding_id FROM ${table} WHERE ${OWN_OR_SHARED} AND ${idColumn(table)} = ? AND deleted_at IS NULL FOR UPDATE`,
    [w.siteId, w.siteId, entryId],
  )
  return row
}

/** The version that was seen of an entry, null for a new one, and whether every site of the holding shall have it. */
interface Kept {
  rowVersion: number | null
  shared: boolean
}

/** What every site of the holding had, and others of them watch, cannot become one site's own. */
async function requireUnusedElsewhere(w: Write, table: Table, entryId: string): Promise<void> {
  if (table !== 'own_organism') return
  const [[row]] = await w.tx.query<Row[]>(
    `SELECT s.name FROM watch x JOIN site s ON s.id = x.site_id
     WHERE x.organism_id = ? AND x.site_id <> ? AND x.deleted_at IS NULL
       AND s.holding_id = (SELECT holding_id FROM site WHERE id = ?) LIMIT 1`,
    [entryId, w.siteId, w.siteId],
  )
  if (row) throw new HttpProblem(422, `${row['name'] as string} watches it, too: it stays with every site of the holding.`)
}

/** What every site is to have must not stand beside an entry of the same id that one of them keeps for itself. */
async function requireNoneBeside(w: Write, table: Table, entryId: string): Promise<void> {
  const [[row]] = await w.tx.query<Row[]>(
    `SELECT s.name FROM ${table} o JOIN site s ON s.id = o.site_id
     WHERE o.${idColumn(table)} = ? AND o.site_id <> ? AND o.deleted_at IS NULL
       AND s.holding_id = (SELECT holding_id FROM site WHERE id = ?) LIMIT 1`,
    [entryId, w.siteId, w.siteId],
  )
  if (row)
    throw new HttpProblem(
      422,
      `${row['name'] as string} has an entry of its own under this id. Remove that one first, or keep this for your site.`,
    )
}

/** Adds an entry under an id of its own, or changes the one that was opened, at the version that was seen. */
async function store(w: Write, table: Table, entryId: string, name: string, entry: unknown, { rowVersion, shared }: Kept) {
  const before = await liveEntry(w, table, entryId)
  if (shared) await requireNoneBeside(w, table, entryId)
  else if (before?.['holding_id']) await requireUnusedElsewhere(w, table, entryId)
  const columns = { ...(await ownerColumns(w, shared)), [idColumn(table)]: entryId, name, entry: JSON.stringify(entry) }
  if (!before) {
    if (rowVersion !== null) throw new HttpProblem(409, 'This entry was removed meanwhile. Save it once more to add it anew.')
    const taken = (): HttpProblem => new HttpProblem(409, 'The same was added meanwhile. Open it to change it.')
    return { id: await insertOnce(w, table, columns, taken), rowVersion: 1, entryId }
  }
  if (rowVersion === null)
    throw new HttpProblem(
      409,
      `${before['name'] as string} stands under this id already. Open it to change it, or take the id out of the file to add this beside it.`,
      { current: { id: before['id'] as string, row_version: before['row_version'] as number } },
    )
  await updateRow(w, table, before['id'] as string, rowVersion, columns)
  return { id: before['id'] as string, rowVersion: rowVersion + 1, entryId }
}

/** The id under which an entry is kept: its own where it is one of a site's, otherwise a fresh one. */
function idOf({ id }: Readonly<Record<string, unknown>>): string {
  return typeof id === 'string' && id.startsWith(OWN) ? id : freshId()
}

/** Adds an organism of the site's own, or changes it. A library entry that is imported becomes one of the site's own beside it. */
export async function saveOrganism(w: Write, entry: Readonly<Record<string, unknown>>, keep: Kept) {
  const entryId = idOf(entry)
  const kept = { ...entry, id: entryId, version: typeof entry['version'] === 'string' ? entry['version'] : '1.0.0' }
  const organism = checked(kept, organismSchema)
  const own = new Set((await listOwnMethods(w.tx, w.siteId)).map(({ method }) => method.id))
  const faults = faultsOf(organism, own)
  if (faults.length > 0) refuse(faults)
  if (findOrganism(entryId)) refuse([{ path: at('id'), message: 'is one of the library; choose another' }])
  return store(w, 'own_organism', entryId, organism.name, kept, keep)
}

export async function saveMethod(w: Write, entry: Readonly<Record<string, unknown>>, keep: Kept) {
  const entryId = idOf(entry)
  const kept = { ...entry, id: entryId, version: typeof entry['version'] === 'string' ? entry['version'] : '1.0.0' }
  const method = checked(kept, methodSchema)
  return store(w, 'own_method', entryId, method.name, kept, keep)
}

/** Until this migration entries were kept by their names: one of the same letters was laid over another. */
const IDS_BY_NAME_UNTIL = '057_ids_no_longer_by_name.sql'

const OVERWRITTEN = `SELECT a.id, a.entity, a.at, JSON_VALUE(a.before_row, '$.name') AS name, JSON_VALUE(a.after_row, '$.name') AS by_name,
    JSON_VALUE(a.before_row, '$.entry') AS entry
  FROM audit a JOIN schema_migration m ON m.name = '${IDS_BY_NAME_UNTIL}' AND a.at <= m.applied_at
  WHERE a.site_id = ? AND a.entity IN ('own_organism', 'own_method') AND a.action = 'change'
    AND JSON_VALUE(a.before_row, '$.name') <> JSON_VALUE(a.after_row, '$.name')`

const tableOf = (row: Row): Table => row['entity'] as Table

/** Entries that another of the same id was laid over, and that nobody has brought back. */
export async function listOverwritten(db: Queryable, siteId: string): Promise<ResponseOf<typeof library.overwritten>> {
  const [rows] = await db.query<Row[]>(
    `${OVERWRITTEN} AND NOT EXISTS (SELECT 1 FROM audit b WHERE b.site_id = a.site_id AND b.entity = a.entity AND b.action = 'create'
       AND b.id > a.id AND JSON_VALUE(b.after_row, '$.name') = JSON_VALUE(a.before_row, '$.name')) ORDER BY a.id`,
    [siteId],
  )
  return rows.map((row) => ({
    auditId: Number(row['id']),
    kind: tableOf(row) === 'own_organism' ? 'organism' : 'method',
    name: row['name'] as string,
    overwrittenBy: row['by_name'] as string,
    at: instantOf(row['at'] as string),
  }))
}

const AS_NEW: Kept = { rowVersion: null, shared: false }

/** Adds what was overwritten again, beside what took its place. */
export async function bringBackOverwritten(w: Write, auditId: number) {
  const [[row]] = await w.tx.query<Row[]>(`${OVERWRITTEN} AND a.id = ?`, [w.siteId, auditId])
  if (!row) throw new HttpProblem(404, 'There is no such overwritten entry at this site.')
  const { id: _, ...entry } = jsonOf<Record<string, unknown>>(row['entry'])
  return tableOf(row) === 'own_organism' ? saveOrganism(w, entry, AS_NEW) : saveMethod(w, entry, AS_NEW)
}

/** An organism that is watched stays: its watches would have nothing to rest on. */
export async function requireUnwatched(w: Write, rowId: string): Promise<void> {
  const [[row]] = await w.tx.query<Row[]>(
    `SELECT COUNT(*) AS watches FROM own_organism o JOIN site s ON s.id = o.site_id OR s.holding_id = o.holding_id
       JOIN watch x ON x.site_id = s.id AND x.organism_id = o.organism_id
     WHERE o.id = ? AND x.deleted_at IS NULL`,
    [rowId],
  )
  if (Number(row?.['watches']) > 0) throw new HttpProblem(422, 'It is watched. Stop watching it first; past seasons count as well.')
}

export async function restoreOwn(w: Write, table: Table, rowId: string, rowVersion: number) {
  await restoreRow(w, table, rowId, rowVersion)
  return { id: rowId, rowVersion: rowVersion + 1 }
}
