import type { Place } from '@bocado/contract'
import { liveRow, type Queryable, type Row } from '../database/index.js'
import { HttpProblem } from '../http/problems.js'

const placeOf = (row: Row): Place => ({
  id: row['id'] as string,
  parentId: row['parent_id'] as string,
  level: row['level'] as Place['level'],
  name: row['name'] as string,
  areaM2: row['area_m2'] as number | null,
  plants: row['plants'] as number | null,
  rank: row['walk_rank'] as number | null,
  spreads: Boolean(row['spreads']),
  rowVersion: row['row_version'] as number,
})

/** A row of the tree of places, block or part. */
export interface StoredPlace {
  id: string
  parentId: string | null
  level: Place['level'] | 'block'
  name: string
  areaM2: number | null
}

/** Every place of a site that is there: those whose place was removed went with it. */
export async function tree(db: Queryable, siteId: string): Promise<Map<string, StoredPlace>> {
  const [rows] = await db.query<Row[]>(
    'SELECT id, parent_id, level, name, area_m2 FROM place WHERE site_id = ? AND deleted_at IS NULL ORDER BY created_at, name',
    [siteId],
  )
  const all = new Map(
    rows.map((row): [string, StoredPlace] => [
      row['id'] as string,
      {
        id: row['id'] as string,
        parentId: row['parent_id'] as string | null,
        level: row['level'] as StoredPlace['level'],
        name: row['name'] as string,
        areaM2: row['area_m2'] as number | null,
      },
    ]),
  )
  const isThere = ({ parentId }: StoredPlace): boolean => {
    if (parentId === null) return true
    const parent = all.get(parentId)
    return parent !== undefined && isThere(parent)
  }
  return new Map([...all].filter(([, place]) => isThere(place)))
}

/** The block in which a place lies, which is itself where it is one; undefined where the place is gone. */
export function blockOf(places: ReadonlyMap<string, StoredPlace>, placeId: string): StoredPlace | undefined {
  const place = places.get(placeId)
  return place && place.parentId !== null ? blockOf(places, place.parentId) : place
}

/** Areas are compared to the square centimetre, so that thirds of a block fit into it. */
export const SAME_M2 = 1e-4

/** m² of the parts right within a place, one of them left out where it is about to change. */
export const heldWithin = (places: ReadonlyMap<string, StoredPlace>, placeId: string, without?: string): number =>
  [...places.values()].reduce((sum, place) => sum + (place.parentId === placeId && place.id !== without ? (place.areaM2 ?? 0) : 0), 0)

/** Parts of blocks, in the order in which they were made. */
export async function listPlaces(db: Queryable, siteId: string): Promise<Place[]> {
  const there = await tree(db, siteId)
  const [rows] = await db.query<Row[]>(
    "SELECT * FROM place WHERE site_id = ? AND deleted_at IS NULL AND level <> 'block' ORDER BY created_at, name",
    [siteId],
  )
  return rows.filter((row) => there.has(row['id'] as string)).map(placeOf)
}

/** The live row of a block; 404 where there is none, or where it is only part of one. */
export async function liveBlock(db: Queryable, siteId: string, blockId: string, lock = false): Promise<Row> {
  const row = await liveRow(db, siteId, 'place', blockId, lock)
  if (row['level'] !== 'block') throw new HttpProblem(404, 'There is no such block at this site.')
  return row
}

/** Whether one of two places lies in the other, or they are one. */
export function isOneGround(places: ReadonlyMap<string, StoredPlace>, a: string, b: string): boolean {
  return withAbove(places, a).includes(b) || withAbove(places, b).includes(a)
}

/** A place and those that it lies in, the innermost first. */
export const withAbove = (places: ReadonlyMap<string, StoredPlace>, id: string | null | undefined): string[] =>
  id ? [id, ...withAbove(places, places.get(id)?.parentId)] : []
