import type { MonthlyNormal } from '../derived/normals.js'
import { plausibleSeasons } from '../derived/plausibleSeasons.js'
import type { HeatRule } from '../heat/rule.js'
import { dailyHeat } from '../heat/degreeDays.js'
import { quantileSorted } from '../statistics/quantile.js'
import { seededRandom } from '../statistics/random.js'
import { monthOf, seasonLater, type Hemisphere } from '../time/civilDays.js'
import { makeAnew, type Keep } from './keep.js'
import { heatFrom } from './placedModel.js'
import type { SeasonAtPlace } from './seasonAtPlace.js'

/** Heat that most of what lives by months follows more or less. */
const MONTHS_RULE: HeatRule = { method: 'single-sine', lower: 5 }
const REFERENCE_SEASONS = 12
const REFERENCE_SEED = 1871
/** Months whose middle has less heat behind it or ahead of it than this share of the year's are not moved by heat (from practice). */
const LEAST_SHARE = 0.03
/** No month is moved by more days than this (from practice). */
const MOST_DAYS = 60

/** Months in which something usually happens, as a place's heat has them. */
export interface MovedMonths {
  /** 1 to 12, in their order. */
  months: number[]
  /** Days by which the place runs ahead of (negative) or behind the region that they were given for; null where that is not known. */
  movedDays: number | null
}

/**
 * Usual months moved by the days by which a place's heat above 5 °C runs ahead of or behind its region's. Nothing is moved where the
 * weather of the season is not known to its end, or in the cold, where heat says little.
 *
 * @param months of the northern hemisphere, in their order; 11, 12, 1 is a winter
 * @param region twelve monthly normals of the region, from January in the north
 */
export function usualMonths(
  months: readonly number[],
  region: readonly MonthlyNormal[],
  at: Pick<SeasonAtPlace, 'weather' | 'hemisphere'>,
  keep: Keep = makeAnew,
): MovedMonths {
  const own = months.map((m) => (at.hemisphere === 'south' ? ((m + 5) % 12) + 1 : m))
  const none = { months: own, movedDays: null }
  const { firstDay, length } = at.weather
  const { median, knownDays } = heatFrom(at, { heat: MONTHS_RULE }, firstDay, keep)
  if (knownDays < length) return none
  const reference = keep(`region ${firstDay} ${at.hemisphere} ${JSON.stringify(region)}`, () => regionHeat(region, firstDay, at.hemisphere))
  const daysOf = own.map((m) => daysOfMonth(m, firstDay))
  const [first, last] = [daysOf[0], daysOf.at(-1)]
  // A winter lies on both sides of a season's first day.
  if (!first || !last || last.until <= first.from) return none
  const middle = Math.floor((first.from + last.until) / 2)
  const heat = reference[middle] as number
  const whole = reference.at(-1) ?? 0
  if (heat < LEAST_SHARE * whole || heat > (1 - LEAST_SHARE) * whole) return none
  const reached = median.findIndex((sum) => sum >= heat)
  const movedDays = Math.max(-MOST_DAYS, Math.min(MOST_DAYS, (reached < 0 ? length : reached) - middle))
  const moved = monthsWithin(first.from + movedDays, last.until + movedDays, firstDay, length)
  return { months: moved.length > 0 ? moved : own, movedDays }
}

/** Month of a day, 1 to 12. */
const month = (day: number): number => monthOf(day) + 1

/** The days of a season that are of a month. */
function daysOfMonth(wanted: number, firstDay: number): { from: number; until: number } {
  const days = Array.from({ length: 365 }, (_, i) => i).filter((i) => month(firstDay + i) === wanted)
  return { from: days[0] ?? 0, until: (days.at(-1) ?? 0) + 1 }
}

/** The months of which at least half lies between two days of a season; the one that has most where none does. */
function monthsWithin(from: number, until: number, firstDay: number, length: number): number[] {
  const counts = new Map<number, { inside: number; all: number }>()
  for (let i = 0; i < length; i++) {
    const of = month(firstDay + i)
    const count = counts.get(of) ?? { inside: 0, all: 0 }
    counts.set(of, { inside: count.inside + (i >= from && i < until ? 1 : 0), all: count.all + 1 })
  }
  const found = [...counts].filter(([, { inside, all }]) => inside >= all / 2).map(([of]) => of)
  if (found.length > 0) return found
  const most = [...counts].sort(([, a], [, b]) => b.inside - a.inside)[0]
  return most && most[1].inside > 0 ? [most[0]] : []
}

/** The region's heat through each day of a season, the middle of seasons made from its normals. */
function regionHeat(region: readonly MonthlyNormal[], firstDay: number, hemisphere: Hemisphere): number[] {
  const normals = hemisphere === 'south' ? region.map((_, m) => region[(m + 6) % 12] as MonthlyNormal) : region
  const length = seasonLater(firstDay, 1) - firstDay
  const seasons = plausibleSeasons(normals, firstDay, length, REFERENCE_SEASONS, seededRandom(REFERENCE_SEED)).map(({ days }) => {
    let sum = 0
    return Array.from(dailyHeat(days, MONTHS_RULE), (heat) => (sum += heat))
  })
  return Array.from({ length }, (_, i) =>
    quantileSorted(
      seasons.map((season) => season[i] ?? 0).sort((a, b) => a - b),
      0.5,
    ),
  )
}
