import type { bloomEvents, ParsedInputOf, library } from '@bocado/contract'
import type { BloomPlant } from '@bocado/core'
import { indicators } from '@bocado/library'
import { insertOnce, restoreRow, updateRow, type Queryable, type Row, type Write } from '../database/index.js'
import { fieldProblem } from '../http/problems.js'
import { liveBlock } from '../places/store.js'

/** A bloom plant of a site's own; its heat is learnt from its dates. */
export interface OwnPlant {
  /** As the log names it. */
  plantId: string
  id: string
  name: string
  tell: string
  blockId: string | null
  rowVersion: number
}

/** What can be dated of a plant of one's own. */
export const OWN_EVENTS: readonly { id: (typeof bloomEvents)[number]; name: string }[] = [
  { id: 'first-open', name: 'first flowers open' },
  { id: 'full-bloom', name: 'full bloom' },
  { id: 'end', name: 'end of bloom' },
]

const plantIdOf = (rowId: string): string => `own-${rowId}`

const ownOf = (row: Row): OwnPlant => ({
  plantId: plantIdOf(row['id'] as string),
  id: row['id'] as string,
  name: row['name'] as string,
  tell: row['tell'] as string,
  blockId: row['block_id'] as string | null,
  rowVersion: row['row_version'] as number,
})

/** The bloom plants of a site's own. */
export async function ownPlants(db: Queryable, siteId: string): Promise<OwnPlant[]> {
  const [rows] = await db.query<Row[]>('SELECT * FROM own_bloom_plant WHERE site_id = ? AND deleted_at IS NULL ORDER BY name', [siteId])
  return rows.map(ownOf)
}

/** A plant that a site can write down, of the library or its own. */
export interface KnownPlant {
  id: string
  name: string
  scientificName: string
  events: readonly { id: (typeof bloomEvents)[number]; name: string }[]
}

/** Every plant that a site can write down. */
export const knownPlants = async (db: Queryable, siteId: string): Promise<KnownPlant[]> => [
  ...indicators,
  ...(await ownPlants(db, siteId)).map(({ plantId, name }) => ({ id: plantId, name, scientificName: name, events: OWN_EVENTS })),
]

/** Heat of a plant of one's own counts above 10 °C from the season's start, as most of the library's do. */
export const ownModel = ({ plantId }: OwnPlant): BloomPlant => ({
  id: plantId,
  heat: { method: 'single-sine', lower: OWN_LOWER },
  biofix: { kind: 'date', month: 1, day: 1 },
  events: [],
})
export const OWN_LOWER = 10

/** Refuses a plant that neither the library nor the site has. */
export async function requirePlant(db: Queryable, siteId: string, plantId: string): Promise<KnownPlant> {
  const plant = (await knownPlants(db, siteId)).find(({ id }) => id === plantId)
  if (!plant) throw fieldProblem('plantId', 'choose a bloom plant of the library or one of your own')
  return plant
}

type Input = ParsedInputOf<typeof library.addOwnPlant>

async function columnsOf(w: Write, { name, tell, blockId }: Input): Promise<Record<string, unknown>> {
  if (blockId !== null) await liveBlock(w.tx, w.siteId, blockId)
  if (indicators.some((plant) => plant.name.toLowerCase() === name.toLowerCase()))
    throw fieldProblem('name', `${name} is in the library: put that on your route`)
  return { name, tell, block_id: blockId }
}

export async function addOwnPlant(w: Write, input: Input): Promise<{ id: string; rowVersion: number }> {
  const columns = await columnsOf(w, input)
  return {
    id: await insertOnce(w, 'own_bloom_plant', columns, () => fieldProblem('name', 'there is one of that name already')),
    rowVersion: 1,
  }
}

export async function changeOwnPlant(
  w: Write,
  id: string,
  input: Input & { rowVersion: number },
): Promise<{ id: string; rowVersion: number }> {
  await updateRow(w, 'own_bloom_plant', id, input.rowVersion, await columnsOf(w, input))
  return { id, rowVersion: input.rowVersion + 1 }
}

export async function restoreOwnPlant(w: Write, id: string, rowVersion: number): Promise<{ id: string; rowVersion: number }> {
  await restoreRow(w, 'own_bloom_plant', id, rowVersion)
  return { id, rowVersion: rowVersion + 1 }
}
