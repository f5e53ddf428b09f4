import { arcAround, WIND_WANDERS } from '@bocado/core'
import {
  keptClearOf,
  type Downwind,
  type Geometry,
  type ground,
  type ParsedInputOf,
  type ResponseOf,
  type Shape,
  type ShapeKind,
} from '@bocado/contract'
import { insertOnce, insertRow, liveRow, restoreRow, updateRow, type Queryable, type Row, type Write } from '../database/index.js'
import { fieldProblem, HttpProblem, refusal } from '../http/problems.js'
import { heldWithin, SAME_M2, tree, type StoredPlace } from '../places/store.js'
import {
  areaOf,
  bearingsTo,
  crossing,
  isSurface,
  kilometres,
  lengthOf,
  mayBeWithin,
  metresBetween,
  middleOf,
  shareWithin,
  swapped,
  without,
} from './geometry.js'
import { listShapes, mapOf, type StoredShape } from './store.js'

/** A site is seldom wider; what lies farther from its position is most likely not its ground. */
const FAR_KM = 60
/** A wheel's width beside the fence, or a hand that was not steady: no fault. */
const WITHIN_SHARE = 0.9

export interface SitePosition {
  latitude: number | null
  longitude: number | null
}

export async function positionOf(db: Queryable, siteId: string): Promise<SitePosition> {
  const [[row]] = await db.query<Row[]>('SELECT latitude, longitude FROM site WHERE id = ?', [siteId])
  return { latitude: (row?.['latitude'] as number | null) ?? null, longitude: (row?.['longitude'] as number | null) ?? null }
}

/** Refuses a point by its field that lies so far from the site that a number of it is most likely wrong. */
export async function requireNear(w: Write, position: { latitude: number; longitude: number } | null): Promise<void> {
  if (!position) return
  const far = farFrom(await positionOf(w.tx, w.siteId), { type: 'Point', coordinates: [position.longitude, position.latitude] })
  if (far !== null && far > FAR_KM)
    throw fieldProblem(
      'position',
      `lies ${Math.round(far).toLocaleString('en-US')} km from the site’s position; are latitude and longitude right?`,
    )
}

/** How far a shape lies from the site's position, in km; null where the site has none. */
export const farFrom = (site: SitePosition, geometry: Geometry): number | null =>
  site.latitude === null || site.longitude === null ? null : kilometres([site.longitude, site.latitude], middleOf(geometry))

/** Whether a shape lies at the site only once its coordinates are turned round. */
export function isTurned(site: SitePosition, geometry: Geometry): boolean {
  const here = farFrom(site, geometry)
  const other = farFrom(site, swapped(geometry))
  return here !== null && other !== null && here > FAR_KM && other <= FAR_KM
}

/** Why a shape cannot be ground of the site; null where it can. */
export function faultOf(site: SitePosition, kind: ShapeKind | 'block', geometry: Geometry): string | null {
  if ((kind === 'outline' || kind === 'block') && !isSurface(geometry)) return 'an outline needs at least 3 corners'
  const crosses = crossing(geometry)
  if (crosses) return `crosses itself at ${crosses[1].toFixed(5)}, ${crosses[0].toFixed(5)}; move a corner there`
  if (isSurface(geometry) && (areaOf(geometry) ?? 0) < 0.01) return 'has no area'
  const far = farFrom(site, geometry)
  if (far === null || far <= FAR_KM) return null
  const turned = isTurned(site, geometry) ? ', and would lie at the site with latitude and longitude swapped' : ''
  return `lies ${Math.round(far).toLocaleString('en-US')} km from the site’s position${turned}`
}

const refuse = (fault: string | null, path = 'geometry'): void => {
  if (fault !== null) throw fieldProblem(path, fault)
}

/** Refuses an outline that lies outside that of the place around it, or leaves an inner one outside. */
function requireWithin(
  places: ReadonlyMap<string, StoredPlace>,
  shapes: readonly Pick<StoredShape, 'placeId' | 'geometry'>[],
  placeId: string,
  geometry: Geometry,
  path = 'geometry',
): void {
  if (!isSurface(geometry)) return
  const outlineOf = (id: string | null | undefined) => shapes.find((shape) => shape.placeId === id && shape.placeId !== null)?.geometry
  const outside = (share: number): string => `${Math.round((1 - share) * 100)} %`
  const around = places.get(places.get(placeId)?.parentId ?? '')
  const outer = outlineOf(around?.id)
  if (around && outer && isSurface(outer)) {
    const share = shareWithin(geometry, outer)
    if (share < WITHIN_SHARE)
      refuse(`${outside(share)} of it lies outside ${around.name}; draw it within, or draw ${around.name} wider`, path)
  }
  for (const inner of places.values()) {
    const drawn = inner.parentId === placeId ? outlineOf(inner.id) : undefined
    if (!drawn || !isSurface(drawn)) continue
    const share = shareWithin(drawn, geometry)
    if (share < WITHIN_SHARE) refuse(`leaves ${outside(share)} of ${inner.name} outside, which lies within it`, path)
  }
}

/** Gives a place the area that was drawn, where it has none or was asked to take it. */
async function takeArea(w: Write, place: Row, geometry: Geometry, isAsked: boolean): Promise<void> {
  const drawn = areaOf(geometry)
  const typed = place['area_m2'] as number | null
  if (drawn === null || (typed !== null && !isAsked)) return
  const areaM2 = Number(drawn.toFixed(drawn < 1000 ? 1 : 0))
  const all = await tree(w.tx, w.siteId)
  const held = heldWithin(all, place['id'] as string)
  const around: StoredPlace | undefined = all.get((place['parent_id'] as string | null) ?? '')
  const room = around && around.areaM2 !== null ? around.areaM2 - heldWithin(all, around.id, place['id'] as string) : Infinity
  const fits = areaM2 >= held - SAME_M2 && areaM2 <= room + SAME_M2
  // Nobody asked for the area: the drawing stands, and the area stays unknown.
  if (!fits && !isAsked) return
  if (areaM2 < held - SAME_M2) throw refusal('takesArea', 'area.less-than-held', { held: { si: Number(held.toFixed(1)), unit: 'm²' } })
  if (around && areaM2 > room + SAME_M2)
    throw refusal('takesArea', 'area.more-than-left', {
      place: around.name,
      left: { si: Number(Math.max(0, room).toFixed(1)), unit: 'm²' },
    })
  if (typed !== areaM2) await updateRow(w, 'place', place['id'] as string, place['row_version'] as number, { area_m2: areaM2 })
}

const columnsOf = (geometry: Geometry) => ({ geometry: JSON.stringify(geometry), area_m2: areaOf(geometry), length_m: lengthOf(geometry) })

async function getShape(w: Write, id: string): Promise<Shape> {
  const shape = (await mapOf(w.tx, w.siteId)).find((one) => one.id === id)
  if (!shape) throw new HttpProblem(404, 'There is no such shape on the map of this site.')
  return shape
}

type Drawn = Omit<ParsedInputOf<typeof ground.draw>, 'id' | 'takesArea'>

/** Refuses a shape that has no place or too many of them. */
function requireNamed({ kind, placeId, name }: Drawn, path = ''): void {
  if (kind === 'outline' && placeId === null) throw fieldProblem(`${path}placeId`, 'choose the block')
  if (kind !== 'outline' && placeId !== null) throw fieldProblem(`${path}placeId`, 'only an outline is one of a block')
  if (kind === 'other' && name === '') throw fieldProblem(`${path}name`, 'say what it is')
}

/** Draws a shape under the id that the page gave it. */
export async function draw(w: Write, input: ParsedInputOf<typeof ground.draw>): Promise<Shape> {
  requireNamed(input)
  const { placeId } = input
  // Sent twice at once, the second waits here for the first, and finds it.
  await liveRow(w.tx, w.siteId, 'site', w.siteId, true)
  const place = placeId === null ? null : await liveRow(w.tx, w.siteId, 'place', placeId, true)
  const before = (await listShapes(w.tx, w.siteId)).find(({ id }) => id === input.id)
  if (before) return getShape(w, before.id)
  refuse(faultOf(await positionOf(w.tx, w.siteId), input.kind, input.geometry))
  if (placeId !== null) requireWithin(await tree(w.tx, w.siteId), await listShapes(w.tx, w.siteId), placeId, input.geometry)
  const columns = { place_id: placeId, kind: input.kind, name: input.name, note: input.note, ...columnsOf(input.geometry) }
  const again = new HttpProblem(422, 'placeId: has an outline already; change that one', {
    fields: [{ path: 'placeId', message: 'has an outline already; change that one' }],
  })
  const id = await insertOnce(w, 'ground_shape', columns, () => again, input.id)
  if (place) await takeArea(w, place, input.geometry, input.takesArea)
  return getShape(w, id)
}

export async function redraw(w: Write, id: string, input: ParsedInputOf<typeof ground.redraw>): Promise<Shape> {
  const { placeId } = await getShape(w, id)
  if ((input.kind === 'outline') !== (placeId !== null)) throw fieldProblem('kind', 'an outline stays one, and nothing else becomes one')
  requireNamed({ ...input, placeId })
  const place = placeId === null ? null : await liveRow(w.tx, w.siteId, 'place', placeId, true)
  refuse(faultOf(await positionOf(w.tx, w.siteId), input.kind, input.geometry))
  if (placeId !== null) requireWithin(await tree(w.tx, w.siteId), await listShapes(w.tx, w.siteId), placeId, input.geometry)
  await updateRow(w, 'ground_shape', id, input.rowVersion, {
    kind: input.kind,
    name: input.name,
    note: input.note,
    ...columnsOf(input.geometry),
  })
  if (place) await takeArea(w, place, input.geometry, input.takesArea)
  return getShape(w, id)
}

export async function restoreShape(w: Write, id: string, rowVersion: number): Promise<Shape> {
  await restoreRow(w, 'ground_shape', id, rowVersion)
  return getShape(w, id)
}

/** Takes the shapes of a file, all of them or none. */
export async function takeFile(w: Write, { shapes }: ParsedInputOf<typeof ground.takeFile>): Promise<{ shapes: number; blocks: number }> {
  const site = await positionOf(w.tx, w.siteId)
  await liveRow(w.tx, w.siteId, 'site', w.siteId, true)
  const places = await tree(w.tx, w.siteId)
  const there: Pick<StoredShape, 'placeId' | 'geometry'>[] = await listShapes(w.tx, w.siteId)
  let blocks = 0
  for (const [i, shape] of shapes.entries()) {
    const path = `shapes.${i}.`
    refuse(faultOf(site, shape.kind, shape.geometry), `${path}geometry`)
    let { placeId } = shape
    const { kind } = shape
    if (kind === 'block') {
      if (shape.name === '') throw fieldProblem(`${path}name`, 'a block needs a name')
      blocks++
      const columns = { level: 'block', kind: shape.blockKind, name: shape.name, grows: '', area_m2: null }
      placeId = await insertRow(w, 'place', columns)
    } else requireNamed({ ...shape, kind }, path)
    if (placeId !== null) {
      if (there.some((one) => one.placeId === placeId))
        throw fieldProblem(`${path}placeId`, 'has an outline already; leave it out, or change that one')
      requireWithin(places, there, placeId, shape.geometry, `${path}geometry`)
      there.push({ placeId, geometry: shape.geometry })
    }
    const place = placeId === null ? null : await liveRow(w.tx, w.siteId, 'place', placeId, true)
    await insertRow(w, 'ground_shape', {
      place_id: placeId,
      kind: kind === 'block' ? 'outline' : kind,
      name: placeId === null ? shape.name : '',
      note: shape.note,
      ...columnsOf(shape.geometry),
    })
    if (place) await takeArea(w, place, shape.geometry, false)
  }
  return { shapes: shapes.length, blocks }
}

type Clear = ResponseOf<typeof ground.keptClear>

/**
 * What is left of a drawn place where a distance is kept from everything near it that treatments keep away from; undefined where the place is
 * not drawn.
 */
export async function clearOf(db: Queryable, siteId: string, placeId: string, metres: number): Promise<Clear | undefined> {
  const shapes = await listShapes(db, siteId)
  const outline = shapes.find((shape) => shape.placeId === placeId)?.geometry
  if (!outline || !isSurface(outline)) return undefined
  const near = shapes.filter(({ kind, geometry }) => keptClearOf.includes(kind) && metresBetween(outline, geometry) < metres)
  let left: typeof outline | null = outline
  for (const { geometry } of near) left = left && without(left, geometry, metres)
  return {
    wholeM2: areaOf(outline) ?? 0,
    leftM2: left ? (areaOf(left) ?? 0) : 0,
    left,
    from: near.map(({ id }) => id),
  }
}

/**
 * What lies near a drawn place and must not get what drifts off it, nearest first, with the directions from which the wind would carry it
 * there; undefined where it is not drawn.
 *
 * @param metres how far down the wind it matters
 * @param hives whether what drifts to hives may do harm there
 */
export async function downwindOf(
  db: Queryable,
  siteId: string,
  placeId: string,
  metres: number,
  hives: boolean,
): Promise<Downwind[] | undefined> {
  const shapes = await listShapes(db, siteId)
  const outline = shapes.find((shape) => shape.placeId === placeId)?.geometry
  if (!outline || !isSurface(outline)) return undefined
  return shapes
    .filter(({ kind, geometry }) => keptClearOf.includes(kind) && (hives || kind !== 'hives') && mayBeWithin(outline, geometry, metres))
    .flatMap(({ name, kind, geometry }): Downwind[] => {
      const far = metresBetween(outline, geometry)
      if (far > metres) return []
      const bearings = bearingsTo(outline, geometry, metres)
      const arc =
        bearings.length === 0
          ? null
          : arcAround(
              bearings.map((bearing) => bearing + 180),
              WIND_WANDERS,
            )
      return [
        {
          name,
          kind: kind as Downwind['kind'],
          metres: Math.round(far),
          from: arc && { from: Math.round(arc.from), to: Math.round(arc.to) },
        },
      ]
    })
    .sort((a, b) => a.metres - b.metres)
}

/** The same of a place that has to be drawn. */
export async function keptClear(db: Queryable, siteId: string, placeId: string, metres: number): Promise<Clear> {
  const clear = await clearOf(db, siteId, placeId, metres)
  if (!clear) throw new HttpProblem(404, 'This place is not drawn on the map.')
  return clear
}
