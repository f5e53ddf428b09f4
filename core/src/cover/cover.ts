import { requireAtLeast, requireFinite } from '../guards.js'
import { studentQuantileExact } from '../statistics/student.js'

/** Classes in which the cover of a plant is judged by eye, with what lies between their limits, in % of the ground. */
export const COVER_CLASSES = {
  none: [0, 0],
  'under-1': [0, 1],
  '1-5': [1, 5],
  '5-25': [5, 25],
  '25-50': [25, 50],
  '50-75': [50, 75],
  'over-75': [75, 100],
} as const
export type CoverClass = keyof typeof COVER_CLASSES

/** Share of the ground, in %, with a 90 % interval. */
export interface Cover {
  mean: number
  low: number
  high: number
  plots: number
}

/** How cover goes from year to year, in percentage points a year, with a 90 % interval over the plots. */
export interface CoverTrend {
  perYear: number
  low: number
  high: number
  plots: number
}

const LEVEL = 0.9
/** With fewer plots nothing is known of how they differ. */
const FEWEST_PLOTS = 2
/** A tendency of fewer plots is that of the plots and not of the ground. */
const TREND_PLOTS = 3

const middleOf = (cover: CoverClass): number => (COVER_CLASSES[cover][0] + COVER_CLASSES[cover][1]) / 2
const mean = (values: readonly number[]): number => values.reduce((sum, value) => sum + value, 0) / values.length
const squares = (values: readonly number[], about: number): number => values.reduce((sum, value) => sum + (value - about) ** 2, 0)

/**
 * Mean cover of plots that lie at random in one ground, by the middles of their classes: a t interval over the plots, widened by what a class
 * leaves open, within 0 and 100 %. Of a single plot it is its class. Undefined without a plot.
 *
 * @example meanCover(['5-25', '5-25', '25-50', '1-5']).plots // 4
 */
export function meanCover(classes: readonly CoverClass[]): Cover | undefined {
  const plots = classes.length
  const [first] = classes
  if (first === undefined) return undefined
  const middle = mean(classes.map(middleOf))
  if (plots < FEWEST_PLOTS) return { mean: middle, low: COVER_CLASSES[first][0], high: COVER_CLASSES[first][1], plots }
  const spread = squares(classes.map(middleOf), middle) / (plots - 1)
  // Within its class any cover is as likely as any other.
  const open = mean(classes.map((one) => (COVER_CLASSES[one][1] - COVER_CLASSES[one][0]) ** 2 / 12))
  const half = studentQuantileExact((1 + LEVEL) / 2, plots - 1) * Math.sqrt((spread + open) / plots)
  return { mean: middle, low: Math.max(0, middle - half), high: Math.min(100, middle + half), plots }
}

/**
 * How cover goes from year to year: for each plot the line through its own looks, then the mean of these with a t interval over the plots
 * (summary measures; Matthews, Altman, Campbell & Royston 1990). What differs between plots from the beginning does not blur it. Undefined with
 * fewer than three plots that were looked at in two years or more.
 *
 * @param plots looks at each, at most one a year
 * @throws RangeError for a year that is no finite number
 * @example
 * const falling = [{ year: 2024, cover: '25-50' }, { year: 2026, cover: '5-25' }]
 * coverTrend([falling, falling, falling]).perYear // -11.25
 */
export function coverTrend(plots: readonly (readonly { year: number; cover: CoverClass }[])[]): CoverTrend | undefined {
  const slopes = plots.flatMap((looks, p) => {
    looks.forEach(({ year }, i) => requireFinite(`plots[${p}][${i}].year`, year))
    const about = mean(looks.map(({ year }) => year))
    const spread = squares(
      looks.map(({ year }) => year),
      about,
    )
    return looks.length < 2 || spread === 0
      ? []
      : [looks.reduce((sum, { year, cover }) => sum + (year - about) * middleOf(cover), 0) / spread]
  })
  if (slopes.length < TREND_PLOTS) return undefined
  const perYear = mean(slopes)
  const half =
    studentQuantileExact((1 + LEVEL) / 2, slopes.length - 1) * Math.sqrt(squares(slopes, perYear) / (slopes.length - 1) / slopes.length)
  return { perYear, low: perYear - half, high: perYear + half, plots: slopes.length }
}

/**
 * Of several looks in a season the one that lies nearest to the time of the year at which a plot is usually looked at: cover of June and of
 * August are two things. In the order of the seasons.
 *
 * @param looks `day`: day within its season
 * @throws RangeError for a day that is no finite number
 * @example oneLookASeason([{ season: 2025, day: 160 }, { season: 2026, day: 100 }, { season: 2026, day: 158 }]).map(({ day }) => day) // [160, 158]
 */
export function oneLookASeason<T extends { season: number; day: number }>(looks: readonly T[]): T[] {
  looks.forEach(({ day }, i) => requireFinite(`looks[${i}].day`, day))
  const days = looks.map(({ day }) => day).sort((a, b) => a - b)
  const usual = ((days[Math.floor((days.length - 1) / 2)] ?? 0) + (days[Math.floor(days.length / 2)] ?? 0)) / 2
  const off = ({ day }: T): number => Math.abs(day - usual)
  const best = new Map<number, T>()
  for (const look of looks) {
    const before = best.get(look.season)
    // Of two that lie as near the later one knows more.
    if (!before || off(look) < off(before) || (off(look) === off(before) && look.day > before.day)) best.set(look.season, look)
  }
  return [...best.values()].sort((a, b) => a.season - b.season)
}

const CM_PER_M = 100

/**
 * Plants for some ground, each as far from the next as `spacingCm` in rows that stand as far apart; the last one is bought whole.
 *
 * @throws RangeError for a negative area, or a spacing of less than 1 cm
 * @example plantsFor(50, 30) // 556
 */
export function plantsFor(areaM2: number, spacingCm: number): number {
  requireAtLeast('areaM2', areaM2, 0)
  requireAtLeast('spacingCm', spacingCm, 1)
  return Math.max(0, Math.ceil(areaM2 / (spacingCm / CM_PER_M) ** 2 - 1e-9))
}
