import { resolveEvents } from '@bocado/core'
import { findMethod, findOrganism, methodSchema, modelOf, organismSchema, spellOut, type Organism } from '@bocado/library'
import type { z } from 'zod'
import { insertRow, restoreRow, updateRow, type Row, type Write } from '../database/index.js'
import { HttpProblem, type FieldMessage } from '../http/problems.js'
import { listOwnMethods } from './catalogue.js'

/** Ids of a site's own begin with this, so that they never meet one of the library. */
const OWN = 'own-'

const plain = (name: string): string =>
  `${OWN}${name
    .toLowerCase()
    .normalize('NFKD')
    .replace(/[^a-z]+/g, '-')
    .replace(/^-|-$/g, '')
    .slice(0, 60)}`

function refuse(fields: FieldMessage[]): never {
  throw new HttpProblem(422, fields.map(({ path, message }) => `${path}: ${message}`).join('; '), { fields })
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
    faults.push({ path: at('heat.upper'), message: `must lie above the lower threshold, ${heat.lower.value} °C, got ${heat.upper.value}` })
  const known = new Set(stages.map(({ id }) => id))
  generations.forEach((generation, g) => {
    const path = `generations.${g}`
    generation.reachableStages.forEach((id, i) => {
      const stage = stages.find((s) => s.id === id)
      if (!stage)
        faults.push({ path: at(`${path}.reachableStages.${i}`), message: `there is no stage ${id}; use ${[...known].join(', ')}` })
      else if (!stage.reachable)
        faults.push({ path: at(`${path}.reachableStages.${i}`), message: `${stage.name} is marked as not reachable from outside` })
    })
    generation.events.forEach((event, i) => {
      if (!known.has(event.stage))
        faults.push({ path: at(`${path}.events.${i}.stage`), message: `there is no stage ${event.stage}; use ${[...known].join(', ')}` })
    })
  })
  about.reach.forEach(({ method, stages: reached }, i) => {
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
              {
                path: at(`generations.${g}.events.${i}.heat`),
                message: `${event.name} would come at ${Math.round(median(event.id))} °C·d, not after ${before.name} at ${Math.round(median(before.id))}; put the events in their order`,
              },
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

async function store(w: Write, table: Table, entryId: string, name: string, entry: unknown) {
  const column = table === 'own_organism' ? 'organism_id' : 'method_id'
  const [[before]] = await w.tx.query<Row[]>(
    `SELECT id, row_version FROM ${table} WHERE site_id = ? AND ${column} = ? AND deleted_at IS NULL`,
    [w.siteId, entryId],
  )
  const columns = { [column]: entryId, name, entry: JSON.stringify(entry) }
  if (!before) return { id: await insertRow(w, table, columns), rowVersion: 1, entryId }
  const rowVersion = before['row_version'] as number
  await updateRow(w, table, before['id'] as string, rowVersion, columns)
  return { id: before['id'] as string, rowVersion: rowVersion + 1, entryId }
}

/** The id under which an entry is kept: its own where it is one of the site's, otherwise one made from its name. */
function idOf(entry: Readonly<Record<string, unknown>>): string {
  const { id, name } = entry
  if (typeof id === 'string' && id.startsWith(OWN)) return id
  return plain(typeof name === 'string' ? name : '')
}

/** Adds an organism of the site's own, or replaces it. A library entry that is imported becomes one of the site's own beside it. */
export async function saveOrganism(w: Write, entry: Readonly<Record<string, unknown>>) {
  const entryId = idOf(entry)
  const kept = { ...entry, id: entryId, version: typeof entry['version'] === 'string' ? entry['version'] : '1.0.0' }
  const organism = checked(kept, organismSchema)
  const own = new Set((await listOwnMethods(w.tx, w.siteId)).map(({ method }) => method.id))
  const faults = faultsOf(organism, own)
  if (faults.length > 0) refuse(faults)
  if (findOrganism(entryId)) refuse([{ path: at('id'), message: 'is one of the library; choose another name' }])
  return store(w, 'own_organism', entryId, organism.name, kept)
}

export async function saveMethod(w: Write, entry: Readonly<Record<string, unknown>>) {
  const entryId = idOf(entry)
  const kept = { ...entry, id: entryId, version: typeof entry['version'] === 'string' ? entry['version'] : '1.0.0' }
  const method = checked(kept, methodSchema)
  return store(w, 'own_method', entryId, method.name, kept)
}

/** An organism that is watched stays: its watches would have nothing to rest on. */
export async function requireUnwatched(w: Write, rowId: string): Promise<void> {
  const [[row]] = await w.tx.query<Row[]>(
    `SELECT COUNT(*) AS watches FROM own_organism o JOIN watch x ON x.site_id = o.site_id AND x.organism_id = o.organism_id
     WHERE o.id = ? AND o.site_id = ? AND x.deleted_at IS NULL`,
    [rowId, w.siteId],
  )
  if (Number(row?.['watches']) > 0) throw new HttpProblem(422, 'It is watched. Stop watching it first; past seasons count as well.')
}

export async function restoreOwn(w: Write, table: Table, rowId: string, rowVersion: number) {
  await restoreRow(w, table, rowId, rowVersion)
  return { id: rowId, rowVersion: rowVersion + 1 }
}
