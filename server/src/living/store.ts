import type { SoilReading, Supply } from '@bocado/contract'
import type { Queryable, Row } from '../database/index.js'

const supplyOf = (row: Row): Supply => ({
  id: row['id'] as string,
  treatmentId: row['treatment_id'] as string,
  orderedOn: row['ordered_on'] as string | null,
  arrivedOn: row['arrived_on'] as string | null,
  alive: row['alive'] as number | null,
  note: row['note'] as string,
  rowVersion: row['row_version'] as number,
})

export async function listSupplies(db: Queryable, siteId: string): Promise<Supply[]> {
  const [rows] = await db.query<Row[]>('SELECT * FROM supply WHERE site_id = ? AND deleted_at IS NULL', [siteId])
  return rows.map(supplyOf)
}

export async function findSupply(db: Queryable, siteId: string, treatmentId: string): Promise<Supply | undefined> {
  const [[row]] = await db.query<Row[]>('SELECT * FROM supply WHERE site_id = ? AND treatment_id = ? AND deleted_at IS NULL', [
    siteId,
    treatmentId,
  ])
  return row && supplyOf(row)
}

const readingOf = (row: Row): SoilReading => ({
  id: row['id'] as string,
  placeId: row['place_id'] as string,
  readOn: row['read_on'] as string,
  celsius: row['celsius'] as number,
  rowVersion: row['row_version'] as number,
})

/** Readings of soil thermometers from a civil day on, the newest first. */
export async function listReadings(db: Queryable, siteId: string, since: string): Promise<SoilReading[]> {
  const [rows] = await db.query<Row[]>(
    'SELECT * FROM soil_reading WHERE site_id = ? AND deleted_at IS NULL AND read_on >= ? ORDER BY read_on DESC, created_at DESC, id',
    [siteId, since],
  )
  return rows.map(readingOf)
}

export async function findReading(db: Queryable, siteId: string, id: string): Promise<SoilReading | undefined> {
  const [[row]] = await db.query<Row[]>('SELECT * FROM soil_reading WHERE site_id = ? AND id = ? AND deleted_at IS NULL', [siteId, id])
  return row && readingOf(row)
}
