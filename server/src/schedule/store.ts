import type { Arrangement, Job } from '@bocado/contract'
import type { Queryable, Row } from '../database/index.js'

const jobOf = (row: Row): Job => ({
  id: row['id'] as string,
  placeId: row['place_id'] as string,
  name: row['name'] as string,
  kind: row['kind'] as Job['kind'],
  plannedOn: row['planned_on'] as string,
  doneOn: row['done_on'] as string | null,
  note: row['note'] as string,
  rowVersion: row['row_version'] as number,
})

/** Work of a site between two civil days, the first of them included. */
export async function listJobs(db: Queryable, siteId: string, from: string, until: string): Promise<Job[]> {
  const [rows] = await db.query<Row[]>(
    `SELECT * FROM job WHERE site_id = ? AND deleted_at IS NULL AND planned_on >= ? AND planned_on < ? ORDER BY planned_on, created_at, id`,
    [siteId, from, until],
  )
  return rows.map(jobOf)
}

export async function findJob(db: Queryable, siteId: string, jobId: string): Promise<Job | undefined> {
  const [[row]] = await db.query<Row[]>('SELECT * FROM job WHERE id = ? AND site_id = ? AND deleted_at IS NULL', [jobId, siteId])
  return row && jobOf(row)
}

const arrangementOf = (row: Row): Arrangement => ({
  id: row['id'] as string,
  task: row['task'] as string,
  personId: row['person_id'] as string | null,
  machine: row['machine'] as string,
  minutes: row['minutes'] as number | null,
  noticeOn: row['notice_on'] as string | null,
  consentOn: row['consent_on'] as string | null,
  consentBy: row['consent_by'] as string,
  rowVersion: row['row_version'] as number,
})

/** What was said of who sees to the tasks of a site. */
export async function listArrangements(db: Queryable, siteId: string): Promise<Arrangement[]> {
  const [rows] = await db.query<Row[]>('SELECT * FROM arrangement WHERE site_id = ? AND deleted_at IS NULL ORDER BY created_at, id', [
    siteId,
  ])
  return rows.map(arrangementOf)
}

export async function findArrangement(db: Queryable, siteId: string, task: string): Promise<Arrangement | undefined> {
  const [[row]] = await db.query<Row[]>('SELECT * FROM arrangement WHERE site_id = ? AND task = ? AND deleted_at IS NULL', [siteId, task])
  return row && arrangementOf(row)
}
