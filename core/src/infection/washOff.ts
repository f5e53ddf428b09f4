import { requireAtLeast, requirePositive } from '../guards.js'

/** Rain in mm that washes off half of a protective residue; from memory, approximate, and the label first. */
export const HALF_WASHED_MM = 25

/**
 * Share of a protectant left after rain since it was applied: exp(−ln 2·R/25 mm). Leaves grown since are unprotected whatever this says.
 *
 * @throws RangeError for negative rain
 * @example residueLeft(12) // 0.717
 */
export function residueLeft(rainMm: number, halfMm = HALF_WASHED_MM): number {
  requireAtLeast('rainMm', rainMm, 0)
  requirePositive('halfMm', halfMm)
  return Math.exp((-Math.LN2 * rainMm) / halfMm)
}

/**
 * Share of a protectant left after the rain of the days since it was applied; null where the rain of one of them is not known.
 *
 * @param rainMm mm a day, from the day of the treatment to yesterday
 * @example depositLeft([0, 8, 4]) // 0.717
 */
export function depositLeft(rainMm: readonly (number | null)[]): number | null {
  let sum = 0
  for (const mm of rainMm) {
    if (mm === null) return null
    sum += mm
  }
  return residueLeft(sum)
}
