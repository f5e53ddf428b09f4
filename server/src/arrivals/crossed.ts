import type { Queryable, Row } from '../database/index.js'
import { listRounds } from '../scouting/service.js'

/** Counts of a site since a day that were over their threshold: what, where and when. */
export async function isCrossedOf(
  db: Queryable,
  siteId: string,
  since: string,
): Promise<{ organismId: string; blockId: string; day: string }[]> {
  const [watches] = await db.query<Row[]>('SELECT id, organism_id, block_id, season FROM watch WHERE site_id = ? AND deleted_at IS NULL', [
    siteId,
  ])
  const seasons = [...new Set(watches.map((row) => row['season'] as string))].filter(
    (season) => season >= `${Number(since.slice(0, 4)) - 1}`,
  )
  const rounds = (await Promise.all(seasons.map((season) => listRounds(db, siteId, season)))).flat()
  return rounds.flatMap(({ crossed, countedOn, watchId }) => {
    const row = watches.find((watch) => watch['id'] === watchId)
    return crossed && countedOn >= since && row
      ? [{ organismId: row['organism_id'] as string, blockId: row['block_id'] as string, day: countedOn }]
      : []
  })
}
