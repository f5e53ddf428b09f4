/** A treatment with a product that was done, as the sums of a season see it. */
export interface RecordedUse {
  blockId: string
  /** The ground that was treated, ha; null: nobody said. */
  areaHa: number | null
  /** Of the product, in L or kg; null: nobody said. */
  amount: number | null
  active: string
  /** g of the active in 1 L or 1 kg of the product; null: nobody typed it. */
  activeGramsPer: number | null
  /** Most kg of the active on a hectare and season, by label or law; null: none was typed. */
  mostActiveKgHa: number | null
}

/** What was put on a block of one active in a season. */
export interface ActiveSum {
  blockId: string
  active: string
  /** kg on a hectare of the block; null where an amount or the content is not known of any of them. */
  kgHa: number | null
  /** kg in all, of those that are known. */
  kg: number
  /** Uses of which an amount or the content is not known. */
  unknown: number
  mostKgHa: number | null
  isOver: boolean
}

const GRAMS_PER_KILOGRAM = 1000

/**
 * What was put on each block of each active in a season, against the most that may be. Over the whole block, not over what was treated of it:
 * a cap is one of ground.
 *
 * @param areas ha of the blocks
 */
export function activeSums(uses: readonly RecordedUse[], areas: ReadonlyMap<string, number | null>): ActiveSum[] {
  const groups = new Map<string, RecordedUse[]>()
  for (const use of uses) {
    if (use.active === '') continue
    const key = `${use.blockId} ${use.active.toLowerCase()}`
    groups.set(key, [...(groups.get(key) ?? []), use])
  }
  return [...groups.values()].flatMap((group) => {
    const [first] = group
    if (!first) return []
    const known = group.flatMap(({ amount, activeGramsPer }) =>
      amount === null || activeGramsPer === null ? [] : [(amount * activeGramsPer) / GRAMS_PER_KILOGRAM],
    )
    const kg = known.reduce((sum, one) => sum + one, 0)
    const area = areas.get(first.blockId) ?? null
    const caps = group.flatMap(({ mostActiveKgHa }) => mostActiveKgHa ?? [])
    const mostKgHa = caps.length === 0 ? null : Math.min(...caps)
    const unknown = group.length - known.length
    const atLeast = area === null || area <= 0 ? null : kg / area
    return [
      {
        blockId: first.blockId,
        active: first.active,
        kgHa: unknown > 0 ? null : atLeast,
        kg,
        unknown,
        mostKgHa,
        // What is not known can only add to it.
        isOver: mostKgHa !== null && atLeast !== null && atLeast > mostKgHa,
      },
    ]
  })
}
