import type { Companion } from '@bocado/contract'
import { jsonOf, type Queryable, type Row } from '../database/index.js'

export type StoredCompanion = Omit<Companion, 'blockId' | 'awake' | 'blooms'>

/** Plants of a site that must not be harmed, by place and name. */
export async function listCompanions(db: Queryable, siteId: string): Promise<StoredCompanion[]> {
  const [rows] = await db.query<Row[]>(
    `SELECT c.*, l.name AS place_name FROM companion c JOIN place l ON l.id = c.place_id
     WHERE c.site_id = ? AND c.deleted_at IS NULL ORDER BY l.name, c.name, c.id`,
    [siteId],
  )
  return rows.map((row) => ({
    id: row['id'] as string,
    placeId: row['place_id'] as string,
    placeName: row['place_name'] as string,
    name: row['name'] as string,
    wakesOn: row['wakes_on'] as string,
    sleepsOn: row['sleeps_on'] as string,
    harmedBy: jsonOf<Companion['harmedBy']>(row['harmed_by']),
    plantId: row['plant_id'] as string | null,
    asleepOn: row['asleep_on'] as string | null,
    note: row['note'] as string,
    rowVersion: row['row_version'] as number,
  }))
}

/** Days on which some plants were seen in bloom at a site, of all years. */
export async function bloomDays(db: Queryable, siteId: string, plantIds: readonly string[]): Promise<Map<string, string[]>> {
  if (plantIds.length === 0) return new Map()
  const [rows] = await db.query<Row[]>(
    'SELECT plant_id, seen_from, seen_to FROM bloom_record WHERE site_id = ? AND plant_id IN (?) AND deleted_at IS NULL AND not_yet = FALSE',
    [siteId, plantIds],
  )
  const days = new Map<string, string[]>()
  for (const row of rows) {
    const plantId = row['plant_id'] as string
    days.set(plantId, [...(days.get(plantId) ?? []), row['seen_from'] as string, row['seen_to'] as string])
  }
  return days
}
