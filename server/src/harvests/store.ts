import type { Harvest } from '@bocado/contract'
import type { Queryable, Row } from '../database/index.js'

/** A harvest without what is known of it elsewhere. */
export type StoredHarvest = Omit<Harvest, 'tooEarly' | 'spoiltByName'>

/** What was picked at a site in a season, the newest first; what lies in a place that was removed stays a fact. */
export async function listHarvests(db: Queryable, siteId: string, season: string): Promise<StoredHarvest[]> {
  const [rows] = await db.query<Row[]>(
    `SELECT h.*, l.name AS place_name, p.name AS person_name FROM harvest h
     JOIN place l ON l.id = h.place_id JOIN person p ON p.id = h.changed_by
     WHERE h.site_id = ? AND h.season = ? AND h.deleted_at IS NULL ORDER BY h.picked_on DESC, h.created_at DESC, h.id`,
    [siteId, season],
  )
  return rows.map((row) => ({
    id: row['id'] as string,
    placeId: row['place_id'] as string,
    placeName: row['place_name'] as string,
    pickedOn: row['picked_on'] as string,
    kg: row['kg'] as number | null,
    pieces: row['pieces'] as number | null,
    spoilt: row['spoilt'] as number | null,
    spoiltBy: row['spoilt_by'] as string | null,
    note: row['note'] as string,
    personName: row['person_name'] as string,
    rowVersion: row['row_version'] as number,
  }))
}
