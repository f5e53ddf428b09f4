import type { Geometry } from '@bocado/contract'
import area from '@turf/area'
import bbox from '@turf/bbox'
import buffer from '@turf/buffer'
import difference from '@turf/difference'
import distance from '@turf/distance'
import { feature, featureCollection } from '@turf/helpers'
import intersect from '@turf/intersect'
import kinks from '@turf/kinks'
import length from '@turf/length'

type Surface = Extract<Geometry, { type: 'Polygon' | 'MultiPolygon' }>

export const isSurface = (geometry: Geometry): geometry is Surface => geometry.type === 'Polygon' || geometry.type === 'MultiPolygon'

/** m² of a surface, null for what has none. */
export const areaOf = (geometry: Geometry): number | null => (isSurface(geometry) ? area(feature(geometry)) : null)

/** m of a line, null for what is none. */
export const lengthOf = (geometry: Geometry): number | null =>
  geometry.type === 'LineString' ? length(feature(geometry), { units: 'meters' }) : null

/** Longitude and latitude of the middle of the frame around a shape. */
export function middleOf(geometry: Geometry): [longitude: number, latitude: number] {
  const [west, south, east, north] = bbox(feature(geometry))
  return [(west + east) / 2, (south + north) / 2]
}

export const kilometres = (a: [number, number], b: [number, number]): number => distance(a, b, { units: 'kilometers' })

/** The shape with each pair of coordinates turned round. */
export function swapped(geometry: Geometry): Geometry {
  const turn = (part: unknown): unknown =>
    Array.isArray(part) && typeof part[0] === 'number' ? [part[1], part[0]] : (part as unknown[]).map(turn)
  return { ...geometry, coordinates: turn(geometry.coordinates) } as Geometry
}

/** Where the outline of a surface crosses itself; null where it does not. */
export function crossing(geometry: Geometry): [longitude: number, latitude: number] | null {
  if (!isSurface(geometry)) return null
  const [first] = kinks(feature(geometry)).features
  return first ? (first.geometry.coordinates as [number, number]) : null
}

/** Share of a surface that lies in another one, 0 to 1. */
export function shareWithin(inner: Surface, outer: Surface): number {
  const whole = area(feature(inner))
  if (whole === 0) return 0
  const common = intersect(featureCollection<Surface>([feature(inner), feature(outer)]))
  return common ? area(common) / whole : 0
}

type Point = readonly [x: number, y: number]
const METRES_PER_DEGREE = 111_195

/** Metres east and north of a place, on flat ground. */
export function flatFrom([lon, lat]: readonly [number, number]): (position: readonly [number, number]) => Point {
  const east = METRES_PER_DEGREE * Math.cos((lat * Math.PI) / 180)
  return ([x, y]) => [(x - lon) * east, (y - lat) * METRES_PER_DEGREE]
}

/** The outlines of a surface, those of its holes among them. */
export const ringsOf = (surface: Surface): [number, number][][] =>
  surface.type === 'Polygon' ? surface.coordinates : surface.coordinates.flat()

/** Straight pieces of a shape in metres east and north of a place; a point is one of no length. */
function piecesOf(geometry: Geometry, middle: readonly [number, number]): [Point, Point][] {
  const flat = flatFrom(middle)
  const lines =
    geometry.type === 'Point'
      ? [[geometry.coordinates, geometry.coordinates]]
      : geometry.type === 'LineString'
        ? [geometry.coordinates]
        : ringsOf(geometry)
  return lines.flatMap((line) => line.slice(1).map((to, i): [Point, Point] => [flat(line[i] as [number, number]), flat(to)]))
}

/** m from a point to a straight piece. */
function toPiece([x, y]: Point, [[ax, ay], [bx, by]]: readonly [Point, Point]): number {
  const [dx, dy] = [bx - ax, by - ay]
  const long = dx * dx + dy * dy
  const share = long === 0 ? 0 : Math.min(1, Math.max(0, ((x - ax) * dx + (y - ay) * dy) / long))
  return Math.hypot(x - ax - share * dx, y - ay - share * dy)
}

/** On which side of a straight piece a point lies: its sign. */
const sideOf = ([x, y]: Point, [[ax, ay], [bx, by]]: readonly [Point, Point]): number =>
  Math.sign((bx - ax) * (y - ay) - (by - ay) * (x - ax))

const cross = (a: readonly [Point, Point], b: readonly [Point, Point]): boolean =>
  sideOf(a[0], b) * sideOf(a[1], b) < 0 && sideOf(b[0], a) * sideOf(b[1], a) < 0

/** Whether a point lies within an outline. */
const isWithin = ([x, y]: Point, outline: readonly (readonly [Point, Point])[]): boolean =>
  outline.reduce(
    (inside, [[ax, ay], [bx, by]]) => (ay > y !== by > y && x < ((bx - ax) * (y - ay)) / (by - ay) + ax ? !inside : inside),
    false,
  )

/** Whether the frames around two shapes come within so many metres of each other: told at once, however many corners they have. */
export function mayBeWithin(a: Geometry, b: Geometry, metres: number): boolean {
  const [west, south, east, north] = bbox(feature(a))
  const [otherWest, otherSouth, otherEast, otherNorth] = bbox(feature(b))
  const up = metres / METRES_PER_DEGREE
  const across = up / Math.cos((south * Math.PI) / 180)
  return otherWest <= east + across && otherEast >= west - across && otherSouth <= north + up && otherNorth >= south - up
}

/** m between the nearest points of two shapes on flat ground; 0 where they touch, or one lies in the other. */
export function metresBetween(a: Geometry, b: Geometry): number {
  const middle = middleOf(a)
  const [as, bs] = [piecesOf(a, middle), piecesOf(b, middle)]
  const inside = (inner: readonly (readonly [Point, Point])[], outer: Geometry, outline: readonly (readonly [Point, Point])[]): boolean =>
    isSurface(outer) && inner[0] !== undefined && isWithin(inner[0][0], outline)
  if (inside(as, b, bs) || inside(bs, a, as)) return 0
  let least = Infinity
  for (const one of as)
    for (const other of bs) {
      if (cross(one, other)) return 0
      least = Math.min(least, toPiece(one[0], other), toPiece(one[1], other), toPiece(other[0], one), toPiece(other[1], one))
    }
  return least
}

/** Points along a shape, no further apart than a hundredth of its way or 5 m, in metres east and north of a place. */
function pointsAlong(geometry: Geometry, middle: readonly [number, number]): Point[] {
  const pieces = piecesOf(geometry, middle)
  const whole = pieces.reduce((sum, [[ax, ay], [bx, by]]) => sum + Math.hypot(bx - ax, by - ay), 0)
  const step = Math.max(5, whole / 100)
  return pieces.flatMap(([[ax, ay], [bx, by]]) => {
    const parts = Math.max(1, Math.ceil(Math.hypot(bx - ax, by - ay) / step))
    return Array.from({ length: parts + 1 }, (_, k): Point => [ax + ((bx - ax) * k) / parts, ay + ((by - ay) * k) / parts])
  })
}

/** Where two shapes touch there is no direction between them. */
const TOUCHES_M = 1

/**
 * Bearings, degrees clockwise from north, under which points of another shape are seen from the edge of a surface, as far as they lie within
 * so many metres of it; none where the other lies in it.
 */
export function bearingsTo(surface: Surface, other: Geometry, metres: number): number[] {
  const middle = middleOf(surface)
  const outline = piecesOf(surface, middle)
  const [edge, outside] = [pointsAlong(surface, middle), pointsAlong(other, middle).filter((point) => !isWithin(point, outline))]
  return edge.flatMap(([x, y]) =>
    outside.flatMap(([ox, oy]) => {
      const far = Math.hypot(ox - x, oy - y)
      return far < TOUCHES_M || far > metres ? [] : [(Math.atan2(ox - x, oy - y) * 180) / Math.PI]
    }),
  )
}

/** A surface without what lies within `metres` of another shape; null where nothing of it is left. */
export function without(surface: Surface, other: Geometry, metres: number): Surface | null {
  const around = buffer(feature(other), metres, { units: 'meters', steps: 16 })
  if (!around) return surface
  const left = difference(featureCollection<Surface>([feature(surface), around as ReturnType<typeof feature<Surface>>]))
  return left ? (left.geometry as Surface) : null
}
