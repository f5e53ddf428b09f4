import { requireAtLeast, requirePositive } from '../guards.js'

type Point = readonly [x: number, y: number]

/** A longer step between two points of a track is a signal that was lost, and nobody knows what was walked. */
const LONGEST_STEP_M = 100
/** Cells of the grid on which it is measured. */
const MOST_CELLS = 200_000
/** Cells across the width that is seen, as long as there are not too many. */
const CELLS_ACROSS = 8

/**
 * Share of a surface that was seen from a track: what lies within half the width of it. Measured on a grid.
 *
 * @param p.rings outlines and holes of the surface, in m, each ending where it begins
 * @param p.tracks ways that were walked, in m
 * @param p.width m across that are seen
 * @returns 0 to 1
 * @throws RangeError for a width that is not above 0, or a surface without an area
 * @example coveredShare({ rings: [[[0, 0], [100, 0], [100, 10], [0, 10], [0, 0]]], tracks: [[[0, 5], [50, 5]]], width: 1000 }) // 1
 */
export function coveredShare(p: { rings: readonly (readonly Point[])[]; tracks: readonly (readonly Point[])[]; width: number }): number {
  requirePositive('width', p.width)
  const corners = p.rings.flat()
  requireAtLeast('rings', corners.length, 4)
  const [west, east] = [Math.min(...corners.map(([x]) => x)), Math.max(...corners.map(([x]) => x))]
  const [south, north] = [Math.min(...corners.map(([, y]) => y)), Math.max(...corners.map(([, y]) => y))]
  const side = Math.sqrt((east - west) * (north - south))
  const cell = Math.max(Math.min(p.width, side) / CELLS_ACROSS, side / Math.sqrt(MOST_CELLS))
  requirePositive('cell', cell)
  const [columns, rows] = [Math.max(1, Math.ceil((east - west) / cell)), Math.max(1, Math.ceil((north - south) / cell))]
  const seen = seenCells(p, { west, south, cell, columns, rows })
  let [inside, covered] = [0, 0]
  for (let row = 0; row < rows; row++) {
    const crossings = crossingsOf(p.rings, south + (row + 0.5) * cell)
    for (let i = 0; i + 1 < crossings.length; i += 2) {
      const first = Math.max(0, Math.ceil((crossings[i]! - west) / cell - 0.5))
      const last = Math.min(columns - 1, Math.floor((crossings[i + 1]! - west) / cell - 0.5))
      for (let column = first; column <= last; column++) {
        inside++
        covered += seen[row * columns + column]!
      }
    }
  }
  if (inside === 0) throw new RangeError('rings have no area')
  return covered / inside
}

/** Where a line from west to east crosses the outlines, from west to east. */
function crossingsOf(rings: readonly (readonly Point[])[], y: number): number[] {
  const found: number[] = []
  for (const ring of rings)
    for (let i = 1; i < ring.length; i++) {
      const [[ax, ay], [bx, by]] = [ring[i - 1]!, ring[i]!]
      if (ay > y !== by > y) found.push(ax + ((y - ay) / (by - ay)) * (bx - ax))
    }
  return found.sort((a, b) => a - b)
}

interface Grid {
  west: number
  south: number
  cell: number
  columns: number
  rows: number
}

/** The cells of a grid whose middle was seen: 1, the others 0. */
function seenCells({ tracks, width }: { tracks: readonly (readonly Point[])[]; width: number }, grid: Grid): Uint8Array {
  const { west, south, cell, columns, rows } = grid
  const seen = new Uint8Array(columns * rows)
  const reach = width / 2
  const disc = ([x, y]: Point): void => {
    const from = Math.max(0, Math.ceil((y - reach - south) / cell - 0.5))
    const to = Math.min(rows - 1, Math.floor((y + reach - south) / cell - 0.5))
    for (let row = from; row <= to; row++) {
      const half = Math.sqrt(Math.max(0, reach * reach - (south + (row + 0.5) * cell - y) ** 2))
      const first = Math.max(0, Math.ceil((x - half - west) / cell - 0.5))
      const last = Math.min(columns - 1, Math.floor((x + half - west) / cell - 0.5))
      if (first <= last) seen.fill(1, row * columns + first, row * columns + last + 1)
    }
  }
  for (const track of tracks)
    track.forEach((to, i) => {
      const from = track[i - 1] ?? to
      const long = Math.hypot(to[0] - from[0], to[1] - from[1])
      if (long > LONGEST_STEP_M) return disc(to)
      // Steps of a quarter of the reach: what lies between two discs is too narrow to matter.
      const steps = Math.max(1, Math.ceil((4 * long) / reach))
      for (let k = 1; k <= steps; k++) disc([from[0] + ((to[0] - from[0]) * k) / steps, from[1] + ((to[1] - from[1]) * k) / steps])
    })
  return seen
}
