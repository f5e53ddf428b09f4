import { geometrySchema, type Geometry } from '@bocado/contract'
import { XMLParser } from 'fast-xml-parser'
import Papa from 'papaparse'
import { unmarked } from '../http/csv.js'
import { fieldProblem } from '../http/problems.js'
import { kilometres } from './geometry.js'
import type { StoredShape } from './store.js'

/** What a file holds before it is held against the site. */
export interface FileShapes {
  format: 'geojson' | 'gpx' | 'csv'
  shapes: { name: string; geometry: Geometry }[]
  /** Features or lines that hold nothing that can be drawn. */
  leftOut: number
  /** Latitudes stood where longitudes belong: numbers over 90 tell, and they were put right. */
  isTurned: boolean
}

const refuse = (message: string): never => {
  throw fieldProblem('text', message)
}

type Position = [longitude: number, latitude: number]

/** A walk around a field ends about where it began. */
const CLOSED_KM = 0.03
const CLOSED_LEAST = 4

/** A track as an outline where it comes back to its start, else as a way. */
function ofTrack(points: readonly Position[]): Geometry | null {
  const first = points[0]
  const last = points.at(-1)
  if (!first || !last) return null
  if (points.length === 1) return { type: 'Point', coordinates: first }
  const isClosed = points.length >= CLOSED_LEAST && kilometres(first, last) <= CLOSED_KM
  if (!isClosed) return { type: 'LineString', coordinates: [...points] }
  const open = first[0] === last[0] && first[1] === last[1] ? points.slice(0, -1) : points
  return { type: 'Polygon', coordinates: [[...open, first]] }
}

const listOf = (value: unknown): unknown[] => (value === undefined || value === null ? [] : Array.isArray(value) ? value : [value])
const recordOf = (value: unknown): Record<string, unknown> =>
  typeof value === 'object' && value !== null ? (value as Record<string, unknown>) : {}
const ENTITIES: Readonly<Record<string, string>> = { '&lt;': '<', '&gt;': '>', '&quot;': '"', '&apos;': "'", '&amp;': '&' }
const wordsOf = (value: unknown): string =>
  typeof value === 'string' || typeof value === 'number' ? String(value).replaceAll(/\s+/g, ' ').trim().slice(0, 120) : ''

/** Coordinates without their heights. */
const flat = (part: unknown): unknown => {
  if (!Array.isArray(part)) return part
  return typeof part[0] === 'number' ? part.slice(0, 2) : part.map(flat)
}

const NAMES = ['name', 'Name', 'NAME', 'title', 'block', 'field', 'label', 'id']
/** Metres of a grid: no degrees are so large. */
const GRID = 400

function geoJson(text: string): FileShapes {
  if (isTooDeep(text)) refuse(`is nested more than ${MOST_DEPTH} deep, as no GeoJSON of shapes is`)
  let parsed: unknown
  try {
    parsed = JSON.parse(text)
  } catch {
    return refuse('begins as GeoJSON and breaks off; fetch the file again')
  }
  const root = recordOf(parsed)
  const features = root['type'] === 'FeatureCollection' ? listOf(root['features']) : [root]
  let leftOut = 0
  let isGrid = false
  let isTurned = false
  const shapes = features.flatMap((raw): FileShapes['shapes'] => {
    const { geometry, properties, type } = recordOf(raw)
    const given = recordOf(type === 'Feature' ? geometry : raw)
    const parts = given['type'] === 'GeometryCollection' ? listOf(given['geometries']) : [given]
    const name = NAMES.map((key) => wordsOf(recordOf(properties)[key])).find((one) => one !== '') ?? ''
    return parts.flatMap((part) => {
      const one = recordOf(part)
      const coordinates = flat(one['coordinates'])
      if (/\d{4,}/.test(JSON.stringify(coordinates ?? '').replaceAll(/\.\d+/g, ''))) isGrid = true
      const several = one['type'] === 'MultiLineString' || one['type'] === 'MultiPoint' ? listOf(coordinates) : null
      const kind = one['type'] === 'MultiPoint' ? 'Point' : 'LineString'
      const each = several?.map((c) => ({ type: kind, coordinates: c })) ?? [{ type: one['type'], coordinates }]
      const found = each.flatMap((single) => shapeIn(single) ?? [])
      if (found.some((shape) => shape.isTurned)) isTurned = true
      if (found.length === 0) leftOut++
      return found.map(({ geometry }) => ({ name, geometry }))
    })
  })
  if (shapes.length === 0 && isGrid)
    refuse(`holds metres of a grid (numbers over ${GRID}), not degrees: export it again as WGS 84 (EPSG:4326)`)
  return { format: 'geojson', shapes, leftOut, isTurned }
}

/** A shape whose numbers are degrees, in whichever of the two orders that can be. */
function shapeIn(value: { type: unknown; coordinates: unknown }): { geometry: Geometry; isTurned: boolean } | null {
  const read = geometrySchema.safeParse(value)
  if (read.success) return { geometry: read.data, isTurned: false }
  const turn = (part: unknown): unknown =>
    Array.isArray(part) ? (typeof part[0] === 'number' ? [part[1], part[0]] : part.map(turn)) : part
  const turned = geometrySchema.safeParse({ type: value.type, coordinates: turn(value.coordinates) })
  return turned.success ? { geometry: turned.data, isTurned: true } : null
}

function gpx(text: string): FileShapes {
  let root: Record<string, unknown>
  try {
    root = recordOf(
      recordOf(new XMLParser({ ignoreAttributes: false, attributeNamePrefix: '', processEntities: false }).parse(text))['gpx'],
    )
  } catch {
    return refuse('begins as GPX and breaks off; fetch the file again')
  }
  let leftOut = 0
  const at = (point: unknown): Position[] => {
    const { lat, lon } = recordOf(point)
    const [latitude, longitude] = [Number(lat), Number(lon)]
    if (lat !== undefined && lon !== undefined && Math.abs(latitude) <= 90 && Math.abs(longitude) <= 180) return [[longitude, latitude]]
    leftOut++
    return []
  }
  const named = (raw: unknown, points: Position[]): FileShapes['shapes'] => {
    const geometry = ofTrack(points)
    return geometry
      ? [{ name: wordsOf(recordOf(raw)['name']).replaceAll(/&(lt|gt|quot|apos|amp);/g, (found) => ENTITIES[found] ?? found), geometry }]
      : []
  }
  const shapes = [
    ...listOf(root['trk']).flatMap((track) =>
      listOf(recordOf(track)['trkseg']).flatMap((segment) => named(track, listOf(recordOf(segment)['trkpt']).flatMap(at))),
    ),
    ...listOf(root['rte']).flatMap((route) => named(route, listOf(recordOf(route)['rtept']).flatMap(at))),
    ...listOf(root['wpt']).flatMap((point) => named(point, at(point))),
  ]
  return { format: 'gpx', shapes, leftOut, isTurned: false }
}

const LATITUDE = /^(lat|latitude|y|breite|lat_?dd|northing)$/i
const LONGITUDE = /^(lon|lng|long|longitude|x|länge|laenge|lon_?dd|easting)$/i
const NAME = /^(name|block|field|place|id|label|point|plot)$/i

/** Points of a table: those of one name are the corners of an outline in their order, a name by itself is a point. */
function csv(text: string): FileShapes {
  const { data, meta } = Papa.parse<Record<string, string>>(text, { header: true, skipEmptyLines: 'greedy' })
  const column = (wanted: RegExp): string | undefined => meta.fields?.find((field) => wanted.test(field.trim()))
  const [latitude, longitude, name] = [column(LATITUDE), column(LONGITUDE), column(NAME)]
  if (latitude === undefined || longitude === undefined)
    return refuse('is neither GeoJSON nor GPX, and no table with the columns latitude and longitude')
  let leftOut = 0
  let isTurned = false
  const corners = new Map<string, Position[]>()
  data.forEach((row, i) => {
    const [y, x] = [row[latitude], row[longitude]].map((cell) => Number((cell ?? '').trim().replace(',', '.')))
    if (!row[latitude]?.trim() || !row[longitude]?.trim() || x === undefined || y === undefined || Number.isNaN(x) || Number.isNaN(y)) {
      leftOut++
      return
    }
    if (Math.abs(x) > GRID || Math.abs(y) > GRID)
      refuse(`row ${i + 2} holds metres of a grid, not degrees: export it again as WGS 84 (EPSG:4326)`)
    if (Math.abs(x) > 180 || Math.abs(y) > 180) return void leftOut++
    const key = name === undefined ? '' : wordsOf(unmarked(row[name] ?? ''))
    if (Math.abs(y) > 90) isTurned = true
    corners.set(key, [...(corners.get(key) ?? []), Math.abs(y) > 90 ? [y, x] : [x, y]])
  })
  const shapes = [...corners].flatMap(([key, points]): FileShapes['shapes'] => {
    const first = points[0]
    const last = points.at(-1)
    if (!first || !last) return []
    if (points.length < 3) return points.map((coordinates) => ({ name: key, geometry: { type: 'Point', coordinates } }))
    const isClosed = first[0] === last[0] && first[1] === last[1]
    return [{ name: key, geometry: { type: 'Polygon', coordinates: [isClosed ? points : [...points, first]] } }]
  })
  return { format: 'csv', shapes, leftOut, isTurned }
}

/** GeoJSON of many pieces with holes is no deeper. */
const MOST_DEPTH = 20

/** Whether the brackets of a text stand deeper in each other than those of any shape. */
function isTooDeep(text: string): boolean {
  let depth = 0
  for (const sign of text) {
    if (sign === '[' || sign === '{') depth++
    else if (sign === ']' || sign === '}') depth--
    if (depth > MOST_DEPTH) return true
  }
  return false
}

/** A file needs so many shapes at most to be gone through by eye. */
const MOST_SHAPES = 500

/**
 * Reads the shapes of a file, whichever of the three forms it has.
 *
 * @throws 422 that names what is wrong with it, where nothing in it can be drawn
 */
export function shapesOf(text: string): FileShapes {
  const begin = text.replace(/^\uFEFF/, '').trimStart()
  const found = begin.startsWith('{') || begin.startsWith('[') ? geoJson(begin) : begin.startsWith('<') ? gpx(begin) : csv(begin)
  if (found.shapes.length === 0) refuse('holds nothing that can be drawn: no outline, way or point')
  if (found.shapes.length > MOST_SHAPES) refuse(`holds ${found.shapes.length} shapes; take at most ${MOST_SHAPES} at once`)
  return found
}

/** A shape of the map with the name of the place whose outline it is. */
export type NamedShape = StoredShape & { placeName: string }

/** The map as GeoJSON, read in again without loss. */
export const mapGeoJson = (shapes: readonly NamedShape[]): string =>
  JSON.stringify(
    {
      type: 'FeatureCollection',
      features: shapes.map(({ id, kind, name, placeName, geometry, areaM2, lengthM, note }) => ({
        type: 'Feature',
        id,
        properties: { name: kind === 'outline' ? placeName : name, kind, areaM2, lengthM, note },
        geometry,
      })),
    },
    null,
    1,
  )

const inXml = (text: string): string =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;')

/** The map as GPX, for a device that is carried: points as waypoints, everything else as tracks. */
export function mapGpx(shapes: readonly NamedShape[]): string {
  const at = (tag: string, [lon, lat]: readonly [number, number], inner = ''): string =>
    `<${tag} lat="${lat}" lon="${lon}">${inner}</${tag}>`
  const points: string[] = []
  const tracks: string[] = []
  for (const { geometry, kind, name, placeName } of shapes) {
    const named = `<name>${inXml((kind === 'outline' ? placeName : name) || kind)}</name>`
    if (geometry.type === 'Point') points.push(at('wpt', geometry.coordinates, named))
    else {
      const lines =
        geometry.type === 'LineString'
          ? [geometry.coordinates]
          : geometry.type === 'Polygon'
            ? geometry.coordinates
            : geometry.coordinates.flat()
      const segments = lines.map((line) => `<trkseg>${line.map((one) => at('trkpt', one)).join('')}</trkseg>`)
      tracks.push(`<trk>${named}${segments.join('')}</trk>`)
    }
  }
  return `<?xml version="1.0" encoding="UTF-8"?>\n<gpx version="1.1" creator="Bocado" xmlns="http://www.topografix.com/GPX/1/1">\n${[...points, ...tracks].join('\n')}\n</gpx>\n`
}
