import { isoInstant, MS_PER_HOUR } from '@bocado/core'
import type { Product, Treatment } from '@bocado/contract'
import { instantOf, jsonOf, type Queryable, type Row } from '../database/index.js'
import { civilDayIn } from '../clock.js'

const productOf = (row: Row): Product => ({
  id: row['id'] as string,
  name: row['name'] as string,
  kind: row['kind'] as Product['kind'],
  stages: jsonOf<string[]>(row['stages']),
  effect: row['effect'] as number,
  residualDays: row['residual_days'] as number,
  labelRate: row['label_rate'] as number,
  rateUnit: row['rate_unit'] as Product['rateUnit'],
  reEntryHours: row['re_entry_hours'] as number,
  preHarvestDays: row['pre_harvest_days'] as number,
  bees: row['bees'] as Product['bees'],
  protection: row['protection'] as string,
  rowVersion: row['row_version'] as number,
})

export async function listProducts(db: Queryable, siteId: string): Promise<Product[]> {
  const [rows] = await db.query<Row[]>('SELECT * FROM product WHERE site_id = ? AND deleted_at IS NULL ORDER BY name', [siteId])
  return rows.map(productOf)
}

export async function findProduct(db: Queryable, siteId: string, productId: string): Promise<Product | undefined> {
  const [[row]] = await db.query<Row[]>('SELECT * FROM product WHERE id = ? AND site_id = ? AND deleted_at IS NULL', [productId, siteId])
  return row && productOf(row)
}

const SELECT = `SELECT t.*, w.season, s.time_zone, p.name AS person_name FROM treatment t
  JOIN watch w ON w.id = t.watch_id JOIN site s ON s.id = t.site_id JOIN person p ON p.id = t.changed_by`

function treatmentOf(row: Row): Treatment {
  const then = jsonOf<Product | null>(row['product_then'])
  const startedAt = row['started_at'] ? instantOf(row['started_at'] as string) : null
  return {
    id: row['id'] as string,
    watchId: row['watch_id'] as string,
    productId: row['product_id'] as string,
    status: row['status'] as Treatment['status'],
    plannedOn: row['planned_on'] as string,
    done:
      startedAt && then
        ? {
            startedAt,
            day: civilDayIn(new Date(startedAt), row['time_zone'] as string),
            rate: row['rate'] as number,
            rateUnit: then.rateUnit,
            areaHa: row['area_ha'] as number,
            weather: {
              tempC: row['temperature'] as number | null,
              humidityPct: row['humidity'] as number | null,
              windMs: row['wind'] as number | null,
            },
            label: then,
            labelState: row['label_state'] as 'kept' | 'restored' | 'doubtful',
            reEntryUntil: isoInstant(Date.parse(startedAt) + then.reEntryHours * MS_PER_HOUR),
          }
        : null,
    note: row['note'] as string,
    personName: row['person_name'] as string,
    rowVersion: row['row_version'] as number,
  }
}

export async function listTreatments(db: Queryable, siteId: string, season: string): Promise<Treatment[]> {
  const [rows] = await db.query<Row[]>(
    `${SELECT} WHERE t.site_id = ? AND w.season = ? AND t.deleted_at IS NULL AND w.deleted_at IS NULL ORDER BY t.planned_on, t.created_at, t.id`,
    [siteId, season],
  )
  return rows.map(treatmentOf)
}

export async function findTreatment(db: Queryable, siteId: string, treatmentId: string): Promise<Treatment | undefined> {
  const [[row]] = await db.query<Row[]>(`${SELECT} WHERE t.id = ? AND t.site_id = ? AND t.deleted_at IS NULL`, [treatmentId, siteId])
  return row && treatmentOf(row)
}
