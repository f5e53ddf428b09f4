/**
 * Days for which what was put on harms the living helpers that are put out after it, by kind of material (from practice): what only kills
 * while it is wet harms nothing once it is dry. It is a class, not a label: a label or a supplier's list comes first.
 */
const HARMS_HELPERS_DAYS: Readonly<Record<string, number>> = {
  'insecticidal-soap': 1,
  'horticultural-oil': 2,
  kaolin: 7,
  'diatomaceous-earth': 7,
  bt: 0,
  'granulosis-virus': 0,
  'mating-disruption': 0,
  azadirachtin: 7,
  'growth-regulator': 14,
  sulphur: 10,
  copper: 3,
  'multi-site-fungicide': 7,
  'single-site-fungicide': 7,
  pyrethrin: 7,
  spinosyn: 14,
  'slug-bait': 0,
  'foliar-systemic': 0,
}

/** A spray of which nobody knows what it is counts for weeks. */
const UNKNOWN_DAYS = 28

/** Something that was put on where helpers are to live. */
export interface PutOnBefore {
  name: string
  /** Day number. */
  day: number
  /** Methods of the library that it is for. */
  methods: readonly string[]
  /** Whether any of them is a chemical one, or nobody said. */
  chemical: boolean
}

/**
 * What still harms helpers that are put out on a day, with the day from which on each does no more.
 *
 * @returns those that still do, the longest last
 */
export function harmsHelpers(before: readonly PutOnBefore[], day: number): { name: string; from: number; until: number }[] {
  return before
    .filter((one) => one.day <= day)
    .map(({ name, day: from, methods, chemical }) => {
      const known = methods.flatMap((method) => HARMS_HELPERS_DAYS[method] ?? [])
      const days = known.length > 0 ? Math.max(...known) : chemical ? UNKNOWN_DAYS : 0
      return { name, from, until: from + days }
    })
    .filter(({ until, from }) => until > from && until >= day)
    .sort((a, b) => a.until - b.until)
}
