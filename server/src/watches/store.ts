import type { Watch } from '@bocado/contract'
import { findOrganism, type Organism } from '@bocado/library'
import { jsonOf, type Queryable, type Row } from '../database/index.js'
import type { PinnedModel } from './models.js'

/** A watch with the model that it is pinned to. */
export interface StoredWatch extends Watch {
  pinned: PinnedModel
  modelHash: string
}

export const watchOf = (row: Row): StoredWatch => ({
  id: row['id'] as string,
  organismId: row['organism_id'] as string,
  blockId: row['block_id'] as string,
  season: row['season'] as string,
  biofix: row['biofix'] as string | null,
  biofixNote: row['biofix_note'] as string,
  sourceKnown: row['source_known'] as Watch['sourceKnown'],
  threshold:
    row['threshold_per_100'] === null ? null : { per100: row['threshold_per_100'] as number, reason: row['threshold_reason'] as string },
  model: `${row['organism_id']}@${row['library_version']}`,
  rowVersion: row['row_version'] as number,
  pinned: jsonOf<PinnedModel>(row['model']),
  modelHash: row['model_hash'] as string,
})

/** The watch as it travels: without the numbers of its model. */
export function presentedWatch({ pinned: _, modelHash: __, ...watch }: StoredWatch): Watch {
  return watch
}

export async function listWatches(db: Queryable, siteId: string, season: string): Promise<StoredWatch[]> {
  const [rows] = await db.query<Row[]>(
    'SELECT * FROM watch WHERE site_id = ? AND season = ? AND deleted_at IS NULL ORDER BY created_at, id',
    [siteId, season],
  )
  return rows.map(watchOf)
}

export async function findWatch(db: Queryable, siteId: string, watchId: string): Promise<StoredWatch | undefined> {
  const [[row]] = await db.query<Row[]>('SELECT * FROM watch WHERE id = ? AND site_id = ? AND deleted_at IS NULL', [watchId, siteId])
  return row && watchOf(row)
}

/** Biofixes that were entered for an organism in a block, by season. */
export async function listBiofixes(
  db: Queryable,
  siteId: string,
  { blockId, organismId }: Pick<Watch, 'blockId' | 'organismId'>,
): Promise<Map<string, string>> {
  const [rows] = await db.query<Row[]>(
    `SELECT season, MIN(biofix) AS biofix FROM watch
     WHERE site_id = ? AND block_id = ? AND organism_id = ? AND biofix IS NOT NULL AND deleted_at IS NULL GROUP BY season`,
    [siteId, blockId, organismId],
  )
  return new Map(rows.map((row) => [row['season'] as string, row['biofix'] as string]))
}

/** The library entry of a watch; one that the library no longer has is a fault. */
export function organismOf(watch: Pick<Watch, 'organismId'>): Organism {
  const organism = findOrganism(watch.organismId)
  if (!organism) throw new Error(`the library has no ${watch.organismId}`)
  return organism
}
