import type { Watch } from '@bocado/contract'
import type { OrganismModel } from '@bocado/core'
import { jsonOf, type Queryable, type Row } from '../database/index.js'

/** A watch with the model that it is pinned to. */
export interface StoredWatch extends Watch {
  pinned: OrganismModel
}

export const watchOf = (row: Row): StoredWatch => ({
  id: row['id'] as string,
  organismId: row['organism_id'] as string,
  blockId: row['block_id'] as string,
  season: row['season'] as string,
  biofix: row['biofix'] as string,
  biofixNote: row['biofix_note'] as string,
  threshold:
    row['threshold_per_100'] === null ? null : { per100: row['threshold_per_100'] as number, reason: row['threshold_reason'] as string },
  model: `${row['organism_id']}@${row['library_version']}`,
  rowVersion: row['row_version'] as number,
  pinned: jsonOf<OrganismModel>(row['model']),
})

/** The watch as it travels: without the numbers of its model. */
export function presentedWatch({ pinned: _, ...watch }: StoredWatch): Watch {
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
