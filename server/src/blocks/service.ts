import type { Block, CheckArea, ParsedInputOf, blocks } from '@bocado/contract'
import { hectaresFromSquareMetres, squareMetresFromHectares } from '@bocado/core/units'
import { insertRow, updateRow, type Queryable, type Row, type Write } from '../database/index.js'
import { HttpProblem, fieldProblem, refusal } from '../http/problems.js'
import { listBlocks } from './store.js'
import { heldWithin, liveBlock, SAME_M2, tree } from '../places/store.js'

export async function getBlock(db: Queryable, siteId: string, blockId: string): Promise<Block> {
  const block = (await listBlocks(db, siteId)).find(({ id }) => id === blockId)
  if (!block) throw new HttpProblem(404, 'There is no such block at this site.')
  return block
}

type BlockInput = ParsedInputOf<typeof blocks.create>

/** A block may only follow a station of its own site. */
async function columnsOf(w: Write, input: BlockInput) {
  if (input.stationId) {
    const [[station]] = await w.tx.query<Row[]>('SELECT id FROM station WHERE id = ? AND site_id = ? AND deleted_at IS NULL', [
      input.stationId,
      w.siteId,
    ])
    if (!station) throw fieldProblem('stationId', 'choose a station of this site')
  }
  return {
    name: input.name,
    kind: input.kind,
    level: 'block',
    area_m2: input.areaHa === null ? null : squareMetresFromHectares(input.areaHa),
    grows: input.grows,
    station_id: input.stationId,
    latitude: input.latitude,
    longitude: input.longitude,
    offset_min: input.offsetMin,
    offset_max: input.offsetMax,
    soil_texture: input.soilTexture,
    soil_cover: input.soilCover,
  }
}

/** Refuses an area that is less than what was drawn within it. */
async function requireHeld(w: Write, blockId: string, areaHa: number | null): Promise<void> {
  const held = heldWithin(await tree(w.tx, w.siteId), blockId)
  if (areaHa !== null && held > squareMetresFromHectares(areaHa) + SAME_M2)
    throw refusal('areaHa', 'area.less-than-parts', { held: { si: hectaresFromSquareMetres(held), unit: 'ha' } })
}

export async function createBlock(w: Write, input: BlockInput): Promise<Block> {
  return getBlock(w.tx, w.siteId, await insertRow(w, 'place', await columnsOf(w, input)))
}

export async function changeBlock(w: Write, blockId: string, input: ParsedInputOf<typeof blocks.update>): Promise<Block> {
  // No part is added while the block may become smaller.
  await liveBlock(w.tx, w.siteId, blockId, true)
  await requireHeld(w, blockId, input.areaHa)
  await updateRow(w, 'place', blockId, input.rowVersion, await columnsOf(w, input))
  return getBlock(w.tx, w.siteId, blockId)
}

export async function addCheckArea(w: Write, blockId: string, input: ParsedInputOf<typeof blocks.addCheckArea>): Promise<CheckArea> {
  await liveBlock(w.tx, w.siteId, blockId)
  const id = await insertRow(w, 'check_area', { block_id: blockId, name: input.name, note: input.note })
  return { id, blockId, name: input.name, note: input.note, rowVersion: 1 }
}
