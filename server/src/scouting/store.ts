import type { CountedPlace, Enemies, PlantHeight, SampleUnit, Scale, Taken, Threshold } from '@bocado/contract'
import type { Organism } from '@bocado/library'
import { ownEntryOf } from '../library/catalogue.js'
import { jsonOf, type Queryable, type Row } from '../database/index.js'

export interface StoredRound {
  id: string
  watchId: string
  organismId: string
  /** The organism where it is one of the site's own. */
  ownEntry: Organism | null
  ownThreshold: number | null
  /** Of the day on which it was recorded; undefined where that was not kept yet. */
  thresholdThen: Threshold | null | undefined
  checkAreaId: string | null
  checkAreaName: string | null
  countedOn: string
  units: Record<string, number>[]
  /** By which it was counted; null: the library's. */
  unit: SampleUnit | null
  places: CountedPlace[] | null
  heights: (PlantHeight | null)[] | null
  scale: Scale
  enemies: Enemies
  minutes: number | null
  taken: Taken | null
  note: string
  personName: string
  rowVersion: number
}

const SELECT = `SELECT r.*, w.organism_id, w.threshold_per_100, o.id AS own_id, o.row_version AS own_version, o.entry AS own_entry, c.name AS check_area_name, p.name AS person_name FROM round r
  JOIN watch w ON w.id = r.watch_id
  JOIN site s ON s.id = w.site_id
  LEFT JOIN own_organism o ON o.id = (SELECT x.id FROM own_organism x WHERE (x.site_id = w.site_id OR x.holding_id = s.holding_id)
    AND x.organism_id = w.organism_id ORDER BY x.deleted_at IS NULL DESC, x.created_at DESC, x.id LIMIT 1)
  LEFT JOIN check_area c ON c.id = r.check_area_id JOIN person p ON p.id = r.changed_by`

function thresholdThen(row: Row): Threshold | null | undefined {
  const from = row['threshold_from'] as Threshold['from'] | 'none' | null
  if (from === null) return undefined
  return from === 'none' ? null : { per100: row['threshold_then'] as number, from }
}

const roundOf = (row: Row): StoredRound => ({
  id: row['id'] as string,
  watchId: row['watch_id'] as string,
  organismId: row['organism_id'] as string,
  ownEntry: ownEntryOf(row),
  ownThreshold: row['threshold_per_100'] as number | null,
  thresholdThen: thresholdThen(row),
  checkAreaId: row['check_area_id'] as string | null,
  checkAreaName: row['check_area_name'] as string | null,
  countedOn: row['counted_on'] as string,
  units: jsonOf<Record<string, number>[]>(row['units']),
  unit:
    row['unit_one'] === null
      ? null
      : { one: row['unit_one'] as string, many: row['unit_many'] as string, items: row['unit_items'] as number },
  places: row['places'] === null ? null : jsonOf<CountedPlace[]>(row['places']),
  heights: row['heights'] === null ? null : jsonOf<(PlantHeight | null)[]>(row['heights']),
  scale: row['scale'] as Scale,
  enemies: jsonOf<Enemies>(row['enemies']),
  minutes: row['minutes'] as number | null,
  taken: row['taken'] === null ? null : { amount: row['taken'] as number, unit: row['taken_unit'] as Taken['unit'] },
  note: row['note'] as string,
  personName: row['person_name'] as string,
  rowVersion: row['row_version'] as number,
})

export async function roundsOfSeason(db: Queryable, siteId: string, season: string): Promise<StoredRound[]> {
  const [rows] = await db.query<Row[]>(
    `${SELECT} WHERE r.site_id = ? AND w.season = ? AND r.deleted_at IS NULL AND w.deleted_at IS NULL ORDER BY r.counted_on, r.created_at, r.id`,
    [siteId, season],
  )
  return rows.map(roundOf)
}

/** What was found on each sample unit of every count of an organism at a site, by class, of blocks and check areas. */
export async function countsOf(
  db: Queryable,
  siteId: string,
  organismId: string,
): Promise<Pick<StoredRound, 'units' | 'unit' | 'scale'>[]> {
  const [rows] = await db.query<Row[]>(
    `${SELECT} WHERE r.site_id = ? AND w.organism_id = ? AND r.deleted_at IS NULL ORDER BY r.counted_on DESC LIMIT 400`,
    [siteId, organismId],
  )
  return rows.map(roundOf)
}

export async function findRound(db: Queryable, siteId: string, roundId: string): Promise<StoredRound | undefined> {
  const [[row]] = await db.query<Row[]>(`${SELECT} WHERE r.id = ? AND r.site_id = ? AND r.deleted_at IS NULL`, [roundId, siteId])
  return row && roundOf(row)
}
