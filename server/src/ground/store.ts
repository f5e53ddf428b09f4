import { keptClearOf, NEAR_M, type Geometry, type Shape } from '@bocado/contract'
import type { Queryable, Row } from '../database/index.js'
import { tree } from '../places/store.js'
import { mayBeWithin, metresBetween } from './geometry.js'

/** A shape without what lies near it, which is reckoned only where it is shown. */
export type StoredShape = Omit<Shape, 'near'>

const shapeOf = (row: Row): StoredShape => ({
  id: row['id'] as string,
  kind: row['kind'] as Shape['kind'],
  placeId: row['place_id'] as string | null,
  name: row['name'] as string,
  geometry: row['geometry'] as Geometry,
  areaM2: row['area_m2'] as number | null,
  lengthM: row['length_m'] as number | null,
  note: row['note'] as string,
  rowVersion: row['row_version'] as number,
})

const nearTo = (geometry: Geometry, kept: readonly StoredShape[]): Shape['near'] =>
  kept
    .filter(({ geometry: other }) => mayBeWithin(geometry, other, NEAR_M))
    .map(({ id, geometry: other }) => ({ shapeId: id, metres: Math.round(metresBetween(geometry, other)) }))
    .filter(({ metres }) => metres <= NEAR_M)
    .sort((a, b) => a.metres - b.metres)

/** What is drawn of a site, in the order in which it was; outlines of places that are gone went with them. */
export async function listShapes(db: Queryable, siteId: string): Promise<StoredShape[]> {
  const there = await tree(db, siteId)
  const [rows] = await db.query<Row[]>('SELECT * FROM ground_shape WHERE site_id = ? AND deleted_at IS NULL ORDER BY created_at, id', [
    siteId,
  ])
  return rows.map(shapeOf).filter(({ placeId }) => placeId === null || there.has(placeId))
}

/** The map of a site: its shapes, each outline with what treatments keep away from near it. */
export async function mapOf(db: Queryable, siteId: string): Promise<Shape[]> {
  const shapes = await listShapes(db, siteId)
  const kept = shapes.filter(({ kind }) => keptClearOf.includes(kind))
  return shapes.map((shape) => ({ ...shape, near: shape.kind === 'outline' ? nearTo(shape.geometry, kept) : [] }))
}
