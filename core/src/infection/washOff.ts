import { requireAtLeast, requirePositive } from '../guards.js'

/** Rain in mm that washes off half of a protective residue; from memory, approximate, and the label first. */
export const HALF_WASHED_MM = 25

/**
 * Share of a protectant left after rain since it was applied: exp(−ln 2·R/25 mm). Leaves grown since are unprotected whatever this says.
 *
 * @throws RangeError for negative rain
 */
export function residueLeft(rainMm: number, halfMm = HALF_WASHED_MM): number {
  requireAtLeast('rainMm', rainMm, 0)
  requirePositive('halfMm', halfMm)
  return Math.exp((-Math.LN2 * rainMm) / halfMm)
}
