import { indicators } from '@bocado/library'
import { liveBlock } from '../places/store.js'
import { insertRow, updateRow, type Queryable, type Row, type Write } from '../database/index.js'
import { fieldProblem } from '../http/problems.js'

interface RoutePlant {
  id: string
  plantId: string
  place: string
  blockId: string | null
  rowVersion: number
}

/** Bloom plants on the site's own route. */
export async function routePlants(db: Queryable, siteId: string): Promise<RoutePlant[]> {
  const [rows] = await db.query<Row[]>('SELECT * FROM bloom_plant WHERE site_id = ? AND deleted_at IS NULL ORDER BY created_at, id', [
    siteId,
  ])
  return rows.map((row) => ({
    id: row['id'] as string,
    plantId: row['plant_id'] as string,
    place: row['place'] as string,
    blockId: row['block_id'] as string | null,
    rowVersion: row['row_version'] as number,
  }))
}

/** Puts a plant on the site's route. */
export async function addToRoute(
  w: Write,
  plantId: string,
  place: string,
  blockId: string | null = null,
): Promise<{ id: string; rowVersion: number }> {
  if (!indicators.some(({ id }) => id === plantId)) throw fieldProblem('plantId', 'choose a bloom plant of the library')
  if (blockId !== null) await liveBlock(w.tx, w.siteId, blockId)
  const known = (await routePlants(w.tx, w.siteId)).find((on) => on.plantId === plantId)
  if (known) return { id: known.id, rowVersion: known.rowVersion }
  return { id: await insertRow(w, 'bloom_plant', { plant_id: plantId, place, block_id: blockId }), rowVersion: 1 }
}

/** Says where a plant of the route stands, and in or beside which block it flowers. */
export async function changeOnRoute(
  w: Write,
  id: string,
  input: { place: string; blockId: string | null; rowVersion: number },
): Promise<{ id: string; rowVersion: number }> {
  if (input.blockId !== null) await liveBlock(w.tx, w.siteId, input.blockId)
  await updateRow(w, 'bloom_plant', id, input.rowVersion, { place: input.place, block_id: input.blockId })
  return { id, rowVersion: input.rowVersion + 1 }
}
