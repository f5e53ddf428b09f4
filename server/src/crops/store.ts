import type { CropStage } from '@bocado/library'
import type { Queryable, Row } from '../database/index.js'

export interface StoredPlanting {
  id: string
  placeId: string
  placeName: string
  crop: string
  variety: string
  standsFrom: string
  standsUntil: string | null
  note: string
  rowVersion: number
}

export interface StoredStage {
  id: string
  plantingId: string
  stage: CropStage
  season: string
  seenOn: string
  personName: string
  rowVersion: number
}

/** Every planting of a site in any season, the newest first. */
export async function listPlantings(db: Queryable, siteId: string): Promise<StoredPlanting[]> {
  const [rows] = await db.query<Row[]>(
    `SELECT t.*, l.name AS place_name FROM planting t JOIN place l ON l.id = t.place_id
     WHERE t.site_id = ? AND t.deleted_at IS NULL ORDER BY t.stands_from DESC, l.name, t.id`,
    [siteId],
  )
  return rows.map((row) => ({
    id: row['id'] as string,
    placeId: row['place_id'] as string,
    placeName: row['place_name'] as string,
    crop: row['crop'] as string,
    variety: row['variety'] as string,
    standsFrom: row['stands_from'] as string,
    standsUntil: row['stands_until'] as string | null,
    note: row['note'] as string,
    rowVersion: row['row_version'] as number,
  }))
}

/** The stages that were seen of all plantings of a site. */
export async function listStages(db: Queryable, siteId: string): Promise<StoredStage[]> {
  const [rows] = await db.query<Row[]>(
    `SELECT s.*, p.name AS person_name FROM crop_stage s JOIN person p ON p.id = s.changed_by
     WHERE s.site_id = ? AND s.deleted_at IS NULL ORDER BY s.seen_on`,
    [siteId],
  )
  return rows.map((row) => ({
    id: row['id'] as string,
    plantingId: row['planting_id'] as string,
    stage: row['stage'] as CropStage,
    season: row['season'] as string,
    seenOn: row['seen_on'] as string,
    personName: row['person_name'] as string,
    rowVersion: row['row_version'] as number,
  }))
}
