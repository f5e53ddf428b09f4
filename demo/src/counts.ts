import { drawPoisson, type Random } from '@bocado/core'

/**
 * A counting round drawn from a true density: trees differ (a gamma-like factor, so that counts are patchier than chance),
 * fresh entries follow, and stings and old entries come with them.
 */
export function drawRound(random: Random, entriesPer100: number, trees: number, fruitPerTree: number): Record<string, number>[] {
  return Array.from({ length: trees }, () => {
    const patchiness = -Math.log(1 - random()) * 0.5 - Math.log(1 - random()) * 0.5
    const mean = (entriesPer100 / 100) * fruitPerTree * patchiness
    const unit: Record<string, number> = { 'fresh-entry': drawPoisson(random, mean) }
    const stings = drawPoisson(random, mean * 0.35)
    if (stings > 0) unit['sting'] = stings
    return unit
  })
}

/** Animals on single plants, more of them at the edge: sample units by place, two plants at each. */
export function drawEdged(
  random: Random,
  perPlant: { edge: number; inside: number },
  places: readonly boolean[],
  plantsPerPlace: number,
  classId: string,
): { units: Record<string, number>[]; places: { from: number; edge: boolean }[] } {
  const units = places.flatMap((edge) =>
    Array.from({ length: plantsPerPlace }, () => {
      // Gamma of shape 2: they sit together, but not in one heap.
      const patchiness = -Math.log(1 - random()) * 0.5 - Math.log(1 - random()) * 0.5
      return { [classId]: drawPoisson(random, (edge ? perPlant.edge : perPlant.inside) * patchiness) }
    }),
  )
  return { units, places: places.map((edge, i) => ({ from: i * plantsPerPlace, edge })) }
}
