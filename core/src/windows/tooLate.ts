import { requireAtLeast, requireFinite } from '../guards.js'
import { quantileSorted } from '../statistics/quantile.js'

/** What still helps once nothing reaches it any more, in the order in which it is thought of. */
export const lateHelps = ['harvest-early', 'cut-out', 'divide', 'clear-away', 'break-its-year'] as const
export type LateHelp = (typeof lateHelps)[number]

/** By which methods of the library each is done. */
const LATE_BY: Readonly<Record<LateHelp, readonly string[]>> = {
  'harvest-early': ['early-harvest'],
  'cut-out': ['prune-out', 'stem-surgery', 'leaf-removal'],
  divide: ['divide-reroot'],
  'clear-away': ['fallen-fruit', 'sanitation', 'cut-flower-heads', 'hand-pulling', 'stem-wraps'],
  'break-its-year': [
    'crop-rotation',
    'resistant-varieties',
    'escape-by-date',
    'clean-stock',
    'row-cover',
    'tillage',
    'open-canopy',
    'trap-crop',
    'mating-disruption',
  ],
}

/** Methods that are chosen when something is sown or planted: once it stands they reach nothing of what is there. */
export const AT_SOWING: readonly string[] = [
  'crop-rotation',
  'resistant-varieties',
  'escape-by-date',
  'clean-stock',
  'companions',
  'trap-crop',
  'stale-seedbed',
  'solarisation',
  'cover-crop',
  'plant-what-is-wanted',
]

/**
 * What still helps against an organism, of the ways to act that its entry names.
 *
 * @example lateHelpsBy(['fallen-fruit', 'spinosyn']) // [{ help: 'clear-away', methods: ['fallen-fruit'] }]
 */
export function lateHelpsBy(methods: readonly string[]): { help: LateHelp; methods: string[] }[] {
  const known = new Set(methods)
  return lateHelps.flatMap((help) => {
    const by = LATE_BY[help].filter((method) => known.has(method))
    return by.length > 0 ? [{ help, methods: by }] : []
  })
}

/** Records from which a weight of one's own is taken: fewer say little. */
export const OWN_WEIGHT_RECORDS = 2

/**
 * The weight of one fruit, head or bunch in kg, by harvests of which both weight and number are known; null where fewer than two are.
 *
 * @throws RangeError for a number below 1
 * @example ownWeight([{ kg: 10, pieces: 80 }, { kg: 6, pieces: 48 }]) // 0.125
 */
export function ownWeight(harvests: readonly { kg: number | null; pieces: number | null }[]): number | null {
  const whole = harvests.filter((one): one is { kg: number; pieces: number } => one.kg !== null && one.pieces !== null)
  if (whole.length < OWN_WEIGHT_RECORDS) return null
  for (const { pieces } of whole) requireAtLeast('pieces', pieces, 1)
  return whole.reduce((sum, { kg }) => sum + kg, 0) / whole.reduce((sum, { pieces }) => sum + pieces, 0)
}

/** Seasons from which a first frost is told: fewer say little. */
export const FROST_SEASONS = 5

/**
 * When the first frost of autumn comes, in days from the start of a season: an early year, and a usual one.
 *
 * @param firsts of past seasons; the last day of one without frost
 * @returns null where fewer than five are known
 * @example firstFrost([280, 270, 290, 275, 285]) // { early: 272, usual: 280, seasons: 5 }
 */
export function firstFrost(firsts: readonly number[]): { early: number; usual: number; seasons: number } | null {
  if (firsts.length < FROST_SEASONS) return null
  firsts.forEach((day, i) => requireFinite(`firsts[${i}]`, day))
  const sorted = [...firsts].sort((a, b) => a - b)
  return { early: quantileSorted(sorted, 0.1), usual: quantileSorted(sorted, 0.5), seasons: firsts.length }
}

/** Whether what is sown on a day ripens before frost: even if it is slow and the frost early; if it is quick and the frost usual; or not. */
export type BeforeFrost = 'surely' | 'perhaps' | 'no'

/**
 * @param harvest first and last day on which it may be picked first
 * @param frost of the same days; null: nobody knows, and then nothing is sure
 * @example ripens({ from: 220, until: 250 }, { early: 272, usual: 280 }) // 'surely'
 */
export function ripens(harvest: { from: number; until: number }, frost: { early: number; usual: number } | null): BeforeFrost {
  if (!frost) return 'perhaps'
  if (harvest.until < frost.early) return 'surely'
  return harvest.from < frost.usual ? 'perhaps' : 'no'
}
