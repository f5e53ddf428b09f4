/** The sixteen points of the compass, clockwise from north. */
export const COMPASS_POINTS = [
  'N', 'NNE', 'NE', 'ENE', 'E', 'ESE', 'SE', 'SSE', 'S', 'SSW', 'SW', 'WSW', 'W', 'WNW', 'NW', 'NNW',
] as const // prettier-ignore
export type CompassPoint = (typeof COMPASS_POINTS)[number]

const POINT_DEGREES = 360 / COMPASS_POINTS.length

/**
 * A bearing within the circle: degrees clockwise from north, 0 to below 360.
 *
 * @example withinCircle(-90) // 270
 */
export const withinCircle = (degrees: number): number => ((degrees % 360) + 360) % 360

/**
 * The point of the compass nearest to a bearing.
 *
 * @example compassPoint(215) // 'SW'
 */
export const compassPoint = (degrees: number): CompassPoint =>
  COMPASS_POINTS[Math.round(withinCircle(degrees) / POINT_DEGREES) % COMPASS_POINTS.length] as CompassPoint

/** Letters for east and west: as in English, in German (O is east), and in Romance languages (O is west). */
export type CompassLetters = 'NESW' | 'NOSW' | 'NESO'

/**
 * Degrees of a point of the compass as a file writes it; undefined for what is none.
 *
 * @example degreesOfPoint('sso', 'NOSW') // 157.5
 */
export function degreesOfPoint(text: string, letters: CompassLetters): number | undefined {
  const [, east = 'E', , west = 'W'] = [...letters]
  const plain = text
    .trim()
    .toUpperCase()
    .replace(/[EWO]/g, (letter) => (letter === east ? 'E' : letter === west ? 'W' : '?'))
  const i = (COMPASS_POINTS as readonly string[]).indexOf(plain)
  return i < 0 ? undefined : i * POINT_DEGREES
}

/** Bearings from one, clockwise, to the other: `to` may be smaller, where the arc passes north. The whole circle runs from 0 to 360. */
export interface Arc {
  from: number
  to: number
}

/**
 * The smallest arc that holds all bearings.
 *
 * @param margin degrees that are added on both sides
 * @example arcAround([350, 20], 10) // { from: 340, to: 30 }
 */
export function arcAround(bearings: readonly number[], margin = 0): Arc {
  const sorted = bearings.map(withinCircle).sort((a, b) => a - b)
  if (sorted.length === 0) throw new RangeError('arcAround: needs a bearing')
  let [widest, after] = [-1, 0]
  sorted.forEach((bearing, i) => {
    const next = sorted[(i + 1) % sorted.length] as number
    const gap = sorted.length === 1 ? 360 : withinCircle(next - bearing) || (i === sorted.length - 1 ? 360 : 0)
    if (gap > widest) [widest, after] = [gap, (i + 1) % sorted.length]
  })
  if (360 - widest + 2 * margin >= 360) return { from: 0, to: 360 }
  const from = sorted[after] as number
  return { from: withinCircle(from - margin), to: withinCircle(from + 360 - widest + margin) }
}

/**
 * Whether a bearing lies on an arc; one that is not known (NaN) lies on none.
 *
 * @example isOnArc(5, { from: 340, to: 30 }) // true
 */
export const isOnArc = (bearing: number, { from, to }: Arc): boolean =>
  !Number.isNaN(bearing) && (to - from >= 360 || withinCircle(bearing - from) <= withinCircle(to - from))
