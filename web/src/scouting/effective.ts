import type { Organism } from '@bocado/contract'
import type { Unit } from './unitLines.js'

/** The effective count of each sample unit: Σ weight·n; of a share each item counts once, however much was found on it. */
export function effectiveOf(units: readonly Unit[], { classes, measure, itemsPerUnit }: Organism['sampling']): number[] {
  const most = measure === 'incidence' ? itemsPerUnit : measure === 'presence' ? 1 : Infinity
  return units.map((unit) =>
    Math.min(
      most,
      classes.reduce((sum, { id, weight }) => sum + weight * (unit[id] ?? 0), 0),
    ),
  )
}
