/* Where the marks of a drawn degree lie, so that they cover the per cent that is said. The field is 100 by 74. */

export const FIELD = { width: 100, height: 74 } as const

/** Outline of the leaf. */
export const LEAF = 'M6 40q28 -38 74 -18q12 8 16 18q-4 10 -16 18q-46 20 -74 -18z'

/** Everything of a hundred, in ten rows of ten. */
export const OF_HUNDRED: ReadonlySet<string> = new Set([
  'fruit-entries',
  'fruit-rot',
  'fruit-spots',
  'missing-plants',
  'shoot-tips',
  'stem-tunnels',
])

export interface Mark {
  x: number
  y: number
  r: number
}

/** A sequence that fills an area evenly and looks like chance (Halton 1960). */
function halton(index: number, base: number): number {
  let [result, f, i] = [0, 1, index]
  while (i > 0) {
    f /= base
    result += f * (i % base)
    i = Math.floor(i / base)
  }
  return result
}

/** Which of a hundred are hit, as if by chance: the same ones stay hit at a higher degree. */
const order = Array.from({ length: 100 }, (_, i) => i).sort((a, b) => ((((a * 7919) % 101) * 97) % 103) - ((((b * 7919) % 101) * 97) % 103))

export const hitOfHundred = (percent: number): ReadonlySet<number> => new Set(order.slice(0, Math.round(percent)))

const MARKS: Readonly<Record<string, number>> = {
  'leaf-chewed': 9,
  'leaf-mined': 5,
  'leaf-curled': 6,
  'leaf-stippled': 90,
  'leaf-powder': 14,
  'leaf-sooty': 16,
}
const MOST_MARKS = 18
const TUFTS = 22

type Point = readonly [x: number, y: number]

/** The outline as a run of straight pieces; it holds quadratic curves only. */
function outlineOf(path: string): Point[] {
  const numbers = (path.match(/-?\d+(\.\d+)?/g) ?? []).map(Number)
  let [x, y] = [numbers[0] ?? 0, numbers[1] ?? 0]
  const points: Point[] = [[x, y]]
  for (let i = 2; i + 3 < numbers.length; i += 4) {
    const [cx, cy, ex, ey] = numbers.slice(i, i + 4) as [number, number, number, number]
    for (let step = 1; step <= 24; step++) {
      const t = step / 24
      const [b, c] = [2 * t * (1 - t), t * t]
      points.push([x + b * cx + c * ex, y + b * cy + c * ey])
    }
    ;[x, y] = [x + ex, y + ey]
  }
  return points
}

/** Whether a point lies inside a closed run of straight pieces. */
function inside([px, py]: Point, outline: readonly Point[]): boolean {
  let within = false
  outline.forEach(([x1, y1], i) => {
    const [x2, y2] = outline.at(i - 1) as Point
    if (y1 > py !== y2 > py && px < ((x2 - x1) * (py - y1)) / (y2 - y1) + x1) within = !within
  })
  return within
}

const everyPoint: readonly Point[] = Array.from({ length: FIELD.width * FIELD.height }, (_, i): Point => [
  (i % FIELD.width) + 0.5,
  Math.floor(i / FIELD.width) + 0.5,
])
const leafOutline = outlineOf(LEAF)
/** Points of the leaf, one a unit of area. */
export const leafPoints: readonly Point[] = everyPoint.filter((point) => inside(point, leafOutline))

/**
 * Marks of one size that together cover a share of an area: the radius is the distance within which that share of its points has a
 * mark, so that marks which overlap or reach over the edge cover no less.
 */
function covering(area: readonly Point[], places: readonly Point[], percent: number): Mark[] {
  const nearest = area.map(([px, py]) => Math.min(...places.map(([x, y]) => Math.hypot(x - px, y - py)))).sort((a, b) => a - b)
  const r = nearest[Math.min(nearest.length - 1, Math.round((nearest.length * percent) / 100))] ?? 0
  return places.map(([x, y]) => ({ x, y, r }))
}

/** The first places of an even sequence that lie inside an area. */
function placesIn(count: number, lies: (point: Point) => boolean): Point[] {
  const places: Point[] = []
  for (let i = 1; places.length < count; i++) {
    const point: Point = [FIELD.width * halton(i, 2), FIELD.height * halton(i, 3)]
    if (lies(point)) places.push(point)
  }
  return places
}

/** Marks on the leaf for a drawing of damage: few large ones or many small ones, by what does it. */
export const leafMarks = (drawing: string, percent: number): Mark[] =>
  covering(
    leafPoints,
    placesIn(MARKS[drawing] ?? MOST_MARKS, (point) => inside(point, leafOutline)),
    percent,
  )

/** Tufts on the ground. */
export const coverMarks = (percent: number): Mark[] =>
  covering(
    everyPoint,
    placesIn(TUFTS, () => true),
    percent,
  )
