import type { Geometry } from '@bocado/contract'
import { readCoordinate } from '../design/readCoordinate.js'

/** How something lies on the ground. */
export type Form = 'surface' | 'line' | 'point'

export const formOf = ({ type }: Geometry): Form => (type === 'Point' ? 'point' : type === 'LineString' ? 'line' : 'surface')

type Position = [longitude: number, latitude: number]

/** Corners that a hand can take hold of; null for what is made of several surfaces or has holes. */
export function cornersOf(geometry: Geometry): Position[] | null {
  if (geometry.type === 'Point') return [geometry.coordinates]
  if (geometry.type === 'LineString') return geometry.coordinates
  if (geometry.type === 'MultiPolygon' || geometry.coordinates.length !== 1) return null
  return geometry.coordinates[0]?.slice(0, -1) ?? null
}

/** About a decimetre. */
const DIGITS = 6

/** Corners as text, latitude first, one to a line. */
export const textOf = (geometry: Geometry): string =>
  (cornersOf(geometry) ?? []).map(([lon, lat]) => `${lat.toFixed(DIGITS)}, ${lon.toFixed(DIGITS)}`).join('\n')

/**
 * Reads corners that were typed or pasted, one to a line, in any form that coordinates are written in.
 *
 * @returns the shape, or the line that cannot be read, or that there are too few
 */
export function readCorners(text: string, form: Form): { geometry: Geometry } | { wrongLine: number; text: string } | { tooFew: true } {
  const corners: Position[] = []
  for (const [i, line] of text.split('\n').entries()) {
    if (line.trim() === '') continue
    const read = readCoordinate(line, 'latitude')
    if (read?.latitude === undefined || read.longitude === undefined) return { wrongLine: i + 1, text: line.trim() }
    corners.push([read.longitude, read.latitude])
  }
  const [first] = corners
  const last = corners.at(-1)
  const isClosed = corners.length > 1 && first?.[0] === last?.[0] && first?.[1] === last?.[1]
  const ring = isClosed ? corners.slice(0, -1) : corners
  if (!first) return { tooFew: true }
  if (form === 'point') return { geometry: { type: 'Point', coordinates: first } }
  if (form === 'line') return corners.length < 2 ? { tooFew: true } : { geometry: { type: 'LineString', coordinates: corners } }
  return ring.length < 3 ? { tooFew: true } : { geometry: { type: 'Polygon', coordinates: [[...ring, first]] } }
}
