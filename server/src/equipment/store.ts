import type { Lot, Machine } from '@bocado/contract'
import { inStock, usedOf } from '@bocado/core'
import { jsonOf, OWN_OR_SHARED, type Queryable, type Row } from '../database/index.js'

export async function listMachines(db: Queryable, siteId: string): Promise<Machine[]> {
  const [rows] = await db.query<Row[]>(`SELECT * FROM machine WHERE ${OWN_OR_SHARED} AND deleted_at IS NULL ORDER BY name`, [
    siteId,
    siteId,
  ])
  return rows.map((row) => ({
    id: row['id'] as string,
    name: row['name'] as string,
    kind: row['kind'] as Machine['kind'],
    tankL: row['tank_l'] as number | null,
    sprayLPerHa: row['spray_l_per_ha'] as number | null,
    lowDrift: Boolean(row['low_drift']),
    testedOn: row['tested_on'] as string | null,
    testOff: row['test_off'] as number | null,
    shared: row['site_id'] === null,
    rowVersion: row['row_version'] as number,
  }))
}

/** What the records say was used of each lot, in L, kg or pieces; null where one of them does not say how much. */
async function usedOfLots(db: Queryable, siteId: string, except: string | null): Promise<Map<string, number | null>> {
  const [rows] = await db.query<Row[]>(
    `SELECT lot_id, amount_used, rate, area_ha, product_then FROM deed
     WHERE site_id = ? AND lot_id IS NOT NULL AND status = 'done' AND deleted_at IS NULL AND NOT (id <=> ?)`,
    [siteId, except],
  )
  const used = new Map<string, number | null>()
  for (const row of rows) {
    const lotId = row['lot_id'] as string
    const { rateUnit } = jsonOf<{ rateUnit: string }>(row['product_then'])
    const typed = row['amount_used'] as number | null
    const amount = stockUsed({ typed, rate: row['rate'] as number | null, areaHa: row['area_ha'] as number | null }, rateUnit)
    const before = used.get(lotId)
    used.set(lotId, amount === null || before === null ? null : (before ?? 0) + amount)
  }
  return used
}

/** How much of a product a record says was used, in L, kg or pieces; null where nobody said. */
export function stockUsed(of: Parameters<typeof usedOf>[0], rateUnit: string): number | null {
  const used = usedOf(of, rateUnit)
  return used && inStock(used.amount, used.unit).amount
}

/** @param except a record that does not count, such as one that is being corrected */
export async function listLots(db: Queryable, siteId: string, except: string | null = null): Promise<Lot[]> {
  const [rows] = await db.query<Row[]>('SELECT * FROM lot WHERE site_id = ? AND deleted_at IS NULL ORDER BY came_on, number', [siteId])
  if (rows.length === 0) return []
  const used = await usedOfLots(db, siteId, except)
  return rows.map((row) => {
    const [amount, unit, lotId] = [row['amount'] as number, row['unit'] as Lot['unit'], row['id'] as string]
    const gone = used.has(lotId) ? (used.get(lotId) as number | null) : 0
    return {
      id: lotId,
      productId: row['product_id'] as string,
      number: row['number'] as string,
      amount,
      unit,
      cameOn: row['came_on'] as string,
      expiresOn: row['expires_on'] as string | null,
      left: gone === null ? null : amount - gone / inStock(1, unit).amount,
      rowVersion: row['row_version'] as number,
    }
  })
}
