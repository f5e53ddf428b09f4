import type { WantedPlant } from '@bocado/contract'
import { jsonOf, type Queryable, type Row } from '../database/index.js'

/** What is kept of a plan; its days are those of its work on the schedule. */
export interface StoredReplacement {
  id: string
  placeId: string
  placeName: string
  organismId: string | null
  areaM2: number
  plants: { wantedPlantId: string; share: number }[]
  jobId: string
  jobVersion: number
  plannedOn: string
  doneOn: string | null
  note: string
  rowVersion: number
}

/** Plants that a site wants, by name; also of those that are off its list, where they were planned already. */
export async function listWanted(db: Queryable, siteId: string): Promise<(WantedPlant & { isListed: boolean })[]> {
  const [rows] = await db.query<Row[]>('SELECT * FROM wanted_plant WHERE site_id = ? ORDER BY name, id', [siteId])
  return rows.map((row) => ({
    id: row['id'] as string,
    name: row['name'] as string,
    begins: row['begins'] as WantedPlant['begins'],
    spacingCm: row['spacing_cm'] as number | null,
    gramsPerM2: row['grams_per_m2'] as number | null,
    months: jsonOf<number[]>(row['months']),
    note: row['note'] as string,
    isListed: row['deleted_at'] === null,
    rowVersion: row['row_version'] as number,
  }))
}

/** What is planned or was planted in place of weeds, the newest first. What was taken off the schedule is planned no more. */
export async function listReplacements(db: Queryable, siteId: string): Promise<StoredReplacement[]> {
  const [rows] = await db.query<Row[]>(
    `SELECT r.*, l.name AS place_name, j.planned_on, j.done_on, j.row_version AS job_version FROM replacement r
     JOIN place l ON l.id = r.place_id JOIN job j ON j.id = r.job_id
     WHERE r.site_id = ? AND r.deleted_at IS NULL AND j.deleted_at IS NULL ORDER BY j.planned_on DESC, r.created_at DESC, r.id`,
    [siteId],
  )
  return rows.map((row) => ({
    id: row['id'] as string,
    placeId: row['place_id'] as string,
    placeName: row['place_name'] as string,
    organismId: row['organism_id'] as string | null,
    areaM2: row['area_m2'] as number,
    plants: jsonOf<StoredReplacement['plants']>(row['plants']),
    jobId: row['job_id'] as string,
    jobVersion: row['job_version'] as number,
    plannedOn: row['planned_on'] as string,
    doneOn: row['done_on'] as string | null,
    note: row['note'] as string,
    rowVersion: row['row_version'] as number,
  }))
}
