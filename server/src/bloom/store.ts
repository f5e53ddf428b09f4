import type { BloomRecord } from '@bocado/contract'
import type { Queryable, Row } from '../database/index.js'

const recordOf = (row: Row): BloomRecord => ({
  id: row['id'] as string,
  plantId: row['plant_id'] as string,
  plantName: row['own_name'] as string | null,
  event: row['event'] as BloomRecord['event'],
  blockId: row['block_id'] as string | null,
  place: row['place'] as string,
  season: row['season'] as string,
  seenFrom: row['seen_from'] as string,
  seenTo: row['seen_to'] as string,
  notYet: Boolean(row['not_yet']),
  note: row['note'] as string,
  photoId: row['photo_id'] as string | null,
  personName: row['person'] as string,
  rowVersion: row['row_version'] as number,
})

/** A plant of the site's own keeps its name in the log, though it was removed. */
const SELECT = `SELECT r.*, p.name AS person, o.name AS own_name FROM bloom_record r JOIN person p ON p.id = r.changed_by
  LEFT JOIN own_bloom_plant o ON r.plant_id = CONCAT('own-', o.id)`

/** The bloom log of all seasons, newest first. */
export async function listBloomRecords(db: Queryable, siteId: string): Promise<BloomRecord[]> {
  const [rows] = await db.query<Row[]>(
    `${SELECT} WHERE r.site_id = ? AND r.deleted_at IS NULL ORDER BY r.seen_from DESC, r.created_at DESC, r.id`,
    [siteId],
  )
  return rows.map(recordOf)
}

export async function findBloomRecord(db: Queryable, siteId: string, id: string): Promise<BloomRecord | undefined> {
  const [[row]] = await db.query<Row[]>(`${SELECT} WHERE r.id = ? AND r.site_id = ? AND r.deleted_at IS NULL`, [id, siteId])
  return row && recordOf(row)
}

/** Rises with every change of the log; what is computed from it is kept by this. */
export async function bloomVersion(db: Queryable, siteId: string): Promise<string> {
  const [[row]] = await db.query<Row[]>('SELECT COUNT(*) AS n, COALESCE(SUM(row_version), 0) AS v FROM bloom_record WHERE site_id = ?', [
    siteId,
  ])
  return `${row?.['n']}.${row?.['v']}`
}
