import { withinCircle } from '../units/compass.js'

/** Directions whose mean is shorter than this share of their lengths come from all around: there is no mean direction. */
export const NO_DIRECTION_BELOW = 0.1

/**
 * The direction from which the wind blew in the mean, degrees clockwise from north: that of the sum of vectors. NaN where nothing was
 * read, or it came from all around.
 *
 * @param degrees directions from which it blew; NaN is no reading
 * @param speeds how strong each was, in any unit; a calm has no direction. Where a speed is not known, all weigh alike
 * @example meanDirection([350, 10]) // 0
 */
export function meanDirection(degrees: ArrayLike<number>, speeds?: ArrayLike<number>): number {
  const weighs = speeds !== undefined && Array.from(degrees).every((d, i) => Number.isNaN(d) || !Number.isNaN(speeds[i] ?? NaN))
  let [north, east, whole] = [0, 0, 0]
  for (let i = 0; i < degrees.length; i++) {
    const angle = ((degrees[i] as number) * Math.PI) / 180
    if (Number.isNaN(angle)) continue
    const weight = weighs ? (speeds[i] as number) : 1
    north += weight * Math.cos(angle)
    east += weight * Math.sin(angle)
    whole += weight
  }
  if (whole === 0 || Math.hypot(north, east) < NO_DIRECTION_BELOW * whole) return NaN
  // To a millionth of a degree, so that north is not written as 360 less a rounding error.
  return withinCircle(Math.round(((Math.atan2(east, north) * 180) / Math.PI) * 1e6) / 1e6)
}
