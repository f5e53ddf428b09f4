import type { Programme } from '@bocado/contract'
import { jsonOf, type Queryable, type Row } from '../database/index.js'

/** The programmes of the watches of a site that stand, the followed first. */
export async function listProgrammes(db: Queryable, siteId: string): Promise<Programme[]> {
  const [rows] = await db.query<Row[]>(
    `SELECT p.* FROM programme p JOIN watch w ON w.id = p.watch_id
     WHERE p.site_id = ? AND p.deleted_at IS NULL AND w.deleted_at IS NULL ORDER BY p.followed DESC, p.created_at, p.id`,
    [siteId],
  )
  return rows.map((row) => ({
    id: row['id'] as string,
    watchId: row['watch_id'] as string,
    name: row['name'] as string,
    followed: Boolean(row['followed']),
    hourly: row['hourly'] as number | null,
    steps: jsonOf<Programme['steps']>(row['steps']),
    rowVersion: row['row_version'] as number,
  }))
}
