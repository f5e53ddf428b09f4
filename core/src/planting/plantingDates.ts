import type { CropStageRule } from '../phenology/cropCalendar.js'
import { boundsOfShares, FEW_SEASONS_DAYS } from '../phenology/ensemble.js'
import type { Bounds } from '../statistics/quantile.js'
import type { Attack } from './attack.js'

/** Where a crop lies between the quickest and the slowest that practice knows; quick ones are quick throughout. */
const PACES = [0.1, 0.3, 0.5, 0.7, 0.9] as const

/** What comes to a crop, and between which of its stages. */
export interface Meeting {
  id: string
  attack: Attack
  from: string
  until: string
}

/** Frosts of the seasons that are known, in days of the season; null for a season that had none. */
export interface FrostDays {
  lastSpring: readonly (number | null)[]
  firstAutumn: readonly (number | null)[]
}

/** What a day of sowing or planting would bring. */
export interface PlantingDate {
  /** Day of the season. */
  day: number
  /** For each meeting the share of its whole attack that the crop would stand in, and of that what comes before anything is picked. */
  met: { id: string; share: Bounds; beforeHarvest: Bounds }[]
  /** First harvest, in days of the season: quick, usual, slow; null for a crop of which none is known. */
  harvest: Bounds | null
  /** Share of the known seasons in which frost would come over it after it is up, and before it is ripe; null where no season is known. */
  springFrost: number | null
  autumnFrost: number | null
  /** Whether it is warm enough to grow from then until something can be picked, at the usual pace; true where no season is known. */
  grows: boolean
}

/** °C of daily means below which crops hardly grow (from practice). */
const GROWS_FROM = 6

/** Days over which means are taken, so that one warm week in winter makes no spring. */
const SMOOTH_DAYS = 15

/**
 * Between which days of a season it is warm enough for crops to grow.
 *
 * @param means daily mean temperatures in °C through the season; NaN where a day is not known
 * @returns null where it never is, or nothing is known
 */
export function growingDays(means: ArrayLike<number>): { from: number; until: number } | null {
  const warm = (day: number): boolean => {
    const half = SMOOTH_DAYS >> 1
    let [sum, n] = [0, 0]
    for (let i = Math.max(0, day - half); i <= Math.min(means.length - 1, day + half); i++)
      if (!Number.isNaN(means[i] as number)) {
        sum += means[i] as number
        n++
      }
    return n > half && sum / n >= GROWS_FROM
  }
  let [from, until] = [-1, -1]
  for (let day = 0; day < means.length; day++)
    if (warm(day)) {
      if (from < 0) from = day
      until = day
    }
  return from < 0 ? null : { from, until }
}

/**
 * The day on which each stage begins for a crop that was begun on day 0, at a pace between 0 (quickest) and 1 (slowest). Stages that lie
 * before the beginning have begun with it; what was sown where it stays is not planted.
 *
 * @returns days by stage; stages that follow from nothing known are left out
 * @throws RangeError where the crop has no such beginning
 */
export function stageDays(stages: readonly CropStageRule[], begins: string, pace: number): Map<string, number> {
  const at = stages.findIndex(({ id }) => id === begins)
  if (at < 0) throw new RangeError(`begins must be a stage of the crop, got ${begins}`)
  const direct = begins === 'sown' && stages.some(({ id }) => id === 'emerged')
  const days = daysBy(stages, at, pace, direct)
  const last = stages.at(-1)?.id ?? ''
  // Of some only the way over a planting is known.
  return direct && !days.has(last) ? daysBy(stages, at, pace, false) : days
}

function daysBy(stages: readonly CropStageRule[], at: number, pace: number, direct: boolean): Map<string, number> {
  const days = new Map<string, number>()
  for (const [i, { id, after }] of stages.entries()) {
    if (i <= at) days.set(id, 0)
    else if (!(direct && id === 'planted')) {
      const bases = after.filter(({ stage }) => days.has(stage))
      const nearest = bases.sort((x, y) => indexIn(stages, y.stage) - indexIn(stages, x.stage))[0]
      if (nearest) days.set(id, (days.get(nearest.stage) as number) + nearest.days[0] + pace * (nearest.days[1] - nearest.days[0]))
    }
  }
  return days
}

const indexIn = (stages: readonly CropStageRule[], id: string): number => stages.findIndex((stage) => stage.id === id)

/** The day of a stage, or of the next after it that is known: a crop that has no such stage goes on to the one that follows. */
function dayOfStage(stages: readonly CropStageRule[], days: ReadonlyMap<string, number>, id: string): number {
  const at = indexIn(stages, id)
  for (const stage of at < 0 ? [] : stages.slice(at)) {
    const day = days.get(stage.id)
    if (day !== undefined) return day
  }
  return Infinity
}

/**
 * For each day on which a crop may be sown or planted: how much of what comes to it it would meet, when something could be picked, and
 * how often frost came over it. Days that lie behind the season's end count for nothing: neither attack nor frost is known of them.
 *
 * @param p.stages of the crop, in their order
 * @param p.begins stage with which it begins there: `sown` or `planted`
 * @param p.frostKills whether a light frost ends it
 * @param p.growth between which days it is usually warm enough to grow; null where nobody knows
 * @param p.days days of the season that are looked at
 * @throws RangeError where the crop has no such beginning
 */
export function plantingDates(p: {
  stages: readonly CropStageRule[]
  begins: string
  meetings: readonly Meeting[]
  frost: FrostDays | null
  frostKills: boolean
  growth: { from: number; until: number } | null
  days: readonly number[]
}): PlantingDate[] {
  const paces = PACES.map((pace) => stageDays(p.stages, p.begins, pace))
  const spans = p.meetings.map(({ from, until }) =>
    paces.map((days) => ({
      from: dayOfStage(p.stages, days, from),
      until: dayOfStage(p.stages, days, until),
      picked: days.get('first-harvest') ?? Infinity,
    })),
  )
  const sums = p.meetings.map(({ attack }) => attack.ways.map(runningSum))
  const up = Math.min(...paces.map((days) => days.get('emerged') ?? 0))
  const [quick, usual, slow] = [0, 2, 4].map((i) => paces[i]?.get('first-harvest'))
  return p.days.map((day) => ({
    day,
    met: p.meetings.map(({ id, attack }, m) => {
      const values = (whole: boolean): Bounds => {
        const within = (offset: number): number[] =>
          (spans[m] ?? []).flatMap(({ from, until, picked }) =>
            (sums[m] ?? []).map((sum) => {
              const end = whole ? until : Math.min(until, Math.max(from, picked))
              return Math.max(0, sumBefore(sum, day + offset + end) - sumBefore(sum, day + offset + from))
            }),
          )
        const shares = within(0)
        // Seasons differ; where few are known, by about as much as a week makes.
        const [before, after] = [mean(within(-FEW_SEASONS_DAYS)), mean(within(FEW_SEASONS_DAYS))]
        const now = mean(shares)
        return boundsOfShares(shares, attack, Math.max(Math.abs(before - now), Math.abs(after - now)))
      }
      const share = values(true)
      const before = values(false)
      // Each has bounds of its own; a part is never more than the whole.
      const beforeHarvest = {
        p10: Math.min(before.p10, share.p10),
        p50: Math.min(before.p50, share.p50),
        p90: Math.min(before.p90, share.p90),
      }
      return { id, share, beforeHarvest }
    }),
    harvest:
      quick === undefined || usual === undefined || slow === undefined ? null : { p10: day + quick, p50: day + usual, p90: day + slow },
    springFrost: p.frost && p.frostKills ? shareOf(p.frost.lastSpring, (frost) => frost >= day + up) : p.frost ? 0 : null,
    autumnFrost:
      p.frost && p.frostKills
        ? mean(paces.map((days) => shareOf(p.frost!.firstAutumn, (frost) => frost < day + (days.get('first-harvest') ?? 0)) ?? 0))
        : p.frost
          ? 0
          : null,
    grows: !p.growth || (day >= p.growth.from && day + (usual ?? 0) <= p.growth.until),
  }))
}

/** The part of an attack that has come before each day, and at the end all of it. */
function runningSum(parts: Float64Array): Float64Array {
  const sums = new Float64Array(parts.length + 1)
  for (const [day, part] of parts.entries()) sums[day + 1] = (sums[day] as number) + part
  return sums
}

function sumBefore(sums: Float64Array, day: number): number {
  const held = Math.min(sums.length - 1, Math.max(0, day))
  const below = Math.floor(held)
  const low = sums[below] as number
  return low + ((sums[Math.min(below + 1, sums.length - 1)] as number) - low) * (held - below)
}

const mean = (values: readonly number[]): number =>
  values.length === 0 ? 0 : values.reduce((sum, value) => sum + value, 0) / values.length

const shareOf = (frosts: readonly (number | null)[], is: (frost: number) => boolean): number | null =>
  frosts.length === 0 ? null : frosts.filter((frost) => frost !== null && is(frost)).length / frosts.length
