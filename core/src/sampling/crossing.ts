import { requirePositive } from '../guards.js'
import { drawNormal, quantileSorted, seededRandom } from '../statistics/index.js'

/** Of fewer counts one does not say how something grows. */
const LEAST_COUNTS = 3
/** Nor of counts that lie closer together. */
const LEAST_DAYS = 7
/** Farther ahead than this growth is not drawn out. */
const MOST_DAYS = 28
const DRAWS = 2000
const CROSSING_SEED = 1798

/** A count of what breeds on; `day` a day number. */
export interface GrowthCount {
  day: number
  per100: number
  /** What a single find would have been, per hundred items: half of it stands for nothing found. */
  onePer100: number
}

/** When a threshold is reached if it goes on as it did: days from the last count, and growth. */
export interface Crossing {
  p10: number
  p50: number
  /** null: in more than one case of ten it is not reached within four weeks. */
  p90: number | null
  /** Days in which it doubles. */
  doublingDays: number
}

/**
 * The day on which what breeds on reaches a threshold, by exponential growth through its counts (least squares of the logarithm; bounds by
 * drawing line and scatter again and again). It is an outlook by what was counted alone: weather, food and enemies may change it.
 *
 * @param counts of one block since the last treatment, in their order
 * @returns null for fewer than three counts or counts within a week, where it is over already, and where it does not grow or takes longer than
 * four weeks
 * @throws RangeError for a threshold that is not above 0
 */
export function crossing(counts: readonly GrowthCount[], per100: number): Crossing | null {
  requirePositive('per100', per100)
  const last = counts.at(-1)
  const first = counts[0]
  if (!first || !last || counts.length < LEAST_COUNTS || last.day - first.day < LEAST_DAYS || last.per100 >= per100) return null
  const points = counts.map(({ day, per100: found, onePer100 }) => [day - last.day, Math.log(Math.max(found, onePer100 / 2))] as const)
  const n = points.length
  const [mx, my] = [points.reduce((s, [x]) => s + x, 0) / n, points.reduce((s, [, y]) => s + y, 0) / n]
  const sxx = points.reduce((s, [x]) => s + (x - mx) ** 2, 0)
  const rate = points.reduce((s, [x, y]) => s + (x - mx) * (y - my), 0) / sxx
  if (rate <= 0) return null
  const rest = points.reduce((s, [x, y]) => s + (y - my - rate * (x - mx)) ** 2, 0)
  const sd = Math.sqrt(rest / (n - 2))
  const random = seededRandom(CROSSING_SEED)
  const days = Array.from({ length: DRAWS }, () => {
    // The scatter itself is known from few counts only: drawn as t, by a χ² of n − 2.
    let chi = 0
    for (let i = 0; i < n - 2; i++) chi += drawNormal(random) ** 2
    const scatter = sd * Math.sqrt((n - 2) / Math.max(chi, 1e-9))
    const drawnRate = rate + drawNormal(random, 0, scatter / Math.sqrt(sxx))
    const level = my + drawNormal(random, 0, scatter / Math.sqrt(n)) - drawnRate * mx
    return drawnRate <= 0 ? Infinity : Math.max(0, (Math.log(per100) - level) / drawnRate)
  }).sort((a, b) => a - b)
  // Infinite days would make the steps between quantiles meaningless.
  const finite = days.map((day) => Math.min(day, 10 * MOST_DAYS))
  const [p10, p50, p90] = [0.1, 0.5, 0.9].map((p) => quantileSorted(finite, p)) as [number, number, number]
  if (p50 > MOST_DAYS) return null
  return { p10, p50, p90: p90 > MOST_DAYS ? null : p90, doublingDays: Math.LN2 / rate }
}
