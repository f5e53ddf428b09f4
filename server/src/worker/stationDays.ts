import { standardDay } from '@bocado/core'
import type { Queryable, Row } from '../database/index.js'

/**
 * The days that it is at the stations of sites, as one text a site: standard time, which turns an hour after the clock on the wall in
 * summer. As long as a site's is the same no day has turned at any of its stations.
 */
export async function daysOfStations(db: Queryable, siteIds: readonly string[], now: Date): Promise<Map<string, string>> {
  const days = new Map(siteIds.map((id) => [id, '']))
  if (siteIds.length === 0) return days
  const [rows] = await db.query<Row[]>(
    'SELECT DISTINCT site_id, utc_offset_minutes FROM station WHERE deleted_at IS NULL AND site_id IN (?) ORDER BY site_id, utc_offset_minutes',
    [siteIds],
  )
  for (const row of rows) {
    const siteId = row['site_id'] as string
    days.set(siteId, `${days.get(siteId)} ${standardDay(now.getTime(), row['utc_offset_minutes'] as number)}`.trim().slice(0, 100))
  }
  return days
}
