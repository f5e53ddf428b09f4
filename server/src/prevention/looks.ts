import { catchPerDay, dayNumber } from '@bocado/core'
import { jsonOf, type Queryable, type Row } from '../database/index.js'
import { SINCE } from '../watches/eventRecords.js'

/** What a look of a past season found: the day of its season, and how much per unit, or per trap and day. */
export interface PastLook {
  day: number
  found: number
}

/** More looks than these are not read: the newest tell the most. */
const MOST_LOOKS = 2000

interface DatedLook {
  season: string
  on: string
  found: number
}

/** Looks for an organism in past seasons at a site, season by season: its counts where there are any, else what traps caught. */
export async function pastLooks(db: Queryable, siteId: string, organismId: string, before: string): Promise<PastLook[][]> {
  const counted = await counts(db, siteId, organismId, before)
  const seasons = new Map<string, PastLook[]>()
  for (const { season, on, found } of counted.length > 0 ? counted : await catches(db, siteId, organismId, before))
    seasons.set(season, [...(seasons.get(season) ?? []), { day: dayNumber(on) - dayNumber(season), found }])
  return [...seasons.values()]
}

async function counts(db: Queryable, siteId: string, organismId: string, before: string): Promise<DatedLook[]> {
  const [rows] = await db.query<Row[]>(
    `SELECT w.season, r.counted_on, r.units FROM round r JOIN watch w ON w.id = r.watch_id
     WHERE r.site_id = ? AND w.organism_id = ? AND w.season < ? AND r.check_area_id IS NULL AND r.deleted_at IS NULL AND w.deleted_at IS NULL
     ORDER BY r.counted_on DESC LIMIT ${MOST_LOOKS}`,
    [siteId, organismId, before],
  )
  return rows.map((row) => {
    const units = jsonOf<Record<string, number>[]>(row['units'])
    const found = units.reduce((sum, unit) => sum + Object.values(unit).reduce((all, n) => all + n, 0), 0)
    return { season: row['season'] as string, on: row['counted_on'] as string, found: units.length > 0 ? found / units.length : 0 }
  })
}

/** A trap that males do not find, where mating is disrupted, tells nothing. */
async function catches(db: Queryable, siteId: string, organismId: string, before: string): Promise<DatedLook[]> {
  const [rows] = await db.query<Row[]>(
    `SELECT r.season, r.seen_on, r.caught, ${SINCE} FROM event_record r JOIN trap t ON t.id = r.trap_id
     WHERE r.site_id = ? AND r.organism_id = ? AND r.season < ? AND r.kind = 'catch' AND t.in_disruption = 0 AND r.deleted_at IS NULL
     ORDER BY r.seen_on DESC LIMIT ${MOST_LOOKS}`,
    [siteId, organismId, before],
  )
  return rows.map((row) => {
    const [on, since] = [row['seen_on'] as string, row['since'] as string]
    const found = catchPerDay({ day: dayNumber(on), since: Math.min(dayNumber(since), dayNumber(on) - 1), caught: row['caught'] as number })
    return { season: row['season'] as string, on, found }
  })
}
