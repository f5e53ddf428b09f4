import { hoursBetween } from '@bocado/core'
import { instantOf, type Row } from '../database/index.js'
import type { Deps } from '../http/serving.js'
import { everySite } from '../sites/service.js'
import { daysOfStations } from './stationDays.js'

/** A weather forecast comes about every six hours; between them little changes. */
const HOURS_BETWEEN = 6

/** Sites whose derived values are of another day, or some hours old by their own clock, or that have none. */
export async function sitesToDerive({ db, clock }: Deps): Promise<{ siteId: string; dayTurned: boolean }[]> {
  const [sites, now, [rows]] = await Promise.all([
    everySite(db, clock),
    clock.now(db),
    db.query<Row[]>('SELECT site_id, today, station_days, derived_at FROM site_derived'),
  ])
  const [asked] = await db.query<Row[]>("SELECT subject FROM work WHERE kind = 'derive'")
  const stationDays = await daysOfStations(
    db,
    sites.map(({ id }) => id),
    now,
  )
  const waiting = new Set(asked.map((row) => row['subject'] as string))
  const derived = new Map(rows.map((row) => [row['site_id'] as string, row]))
  return sites.flatMap(({ id: siteId, today }) => {
    // What failed is not asked for again by the clock alone.
    if (waiting.has(siteId)) return []
    const before = derived.get(siteId)
    if (!before) return [{ siteId, dayTurned: false }]
    const dayTurned = before['today'] !== today || before['station_days'] !== stationDays.get(siteId)
    const old = Math.abs(hoursBetween(Date.parse(instantOf(before['derived_at'] as string)), now.getTime())) >= HOURS_BETWEEN
    return dayTurned || old ? [{ siteId, dayTurned }] : []
  })
}
