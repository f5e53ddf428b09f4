import type { ForecastIssueInput } from '@bocado/contract'
import { instantOf, jsonOf, sqlInstant, type Queryable, type Row } from '../database/index.js'
import type { Memo } from '../memo.js'

export interface ForecastIssue {
  id: string
  issuedAt: string
  firstHour: string
  hours: number
  members: ForecastIssueInput['members']
}

/** Stores an issue; one of the same moment is the same issue, and the first stands. Returns the id that stands. */
export async function insertIssue(
  db: Queryable,
  place: { siteId: string; stationId: string },
  id: string,
  issue: ForecastIssueInput,
): Promise<string> {
  await db.query(
    'INSERT IGNORE INTO forecast_issue (id, site_id, station_id, issued_at, first_hour, hours, members) VALUES (?, ?, ?, ?, ?, ?, ?)',
    [
      id,
      place.siteId,
      place.stationId,
      sqlInstant(issue.issuedAt),
      sqlInstant(issue.firstHour),
      issue.members[0]?.temperature.length ?? 0,
      JSON.stringify(issue.members),
    ],
  )
  const [[row]] = await db.query<Row[]>('SELECT id FROM forecast_issue WHERE station_id = ? AND issued_at = ?', [
    place.stationId,
    sqlInstant(issue.issuedAt),
  ])
  return row?.['id'] as string
}

/** Ids and moments of a station's issues between two moments, newest first. */
export async function issuesBetween(
  db: Queryable,
  stationId: string,
  after: Date,
  until: Date,
): Promise<{ id: string; issuedAt: string }[]> {
  const [rows] = await db.query<Row[]>(
    'SELECT id, issued_at FROM forecast_issue WHERE station_id = ? AND issued_at > ? AND issued_at <= ? AND hours > 0 ORDER BY issued_at DESC',
    [stationId, sqlInstant(after), sqlInstant(until)],
  )
  return rows.map((row) => ({ id: row['id'] as string, issuedAt: instantOf(row['issued_at'] as string) }))
}

/** A whole issue. It never changes, so it is kept. */
export function loadIssue(db: Queryable, memo: Memo, id: string): Promise<ForecastIssue> {
  return memo.get(`issue ${id}`, async () => {
    const [[row]] = await db.query<Row[]>('SELECT * FROM forecast_issue WHERE id = ?', [id])
    if (!row) throw new Error(`forecast issue ${id} is not there`)
    return {
      id,
      issuedAt: instantOf(row['issued_at'] as string),
      firstHour: instantOf(row['first_hour'] as string),
      hours: row['hours'] as number,
      members: jsonOf<ForecastIssue['members']>(row['members']),
    }
  })
}
