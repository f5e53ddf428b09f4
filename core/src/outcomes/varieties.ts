import { group, sum } from 'd3-array'
import { requireFinite } from '../guards.js'
import { normalQuantile } from '../statistics/normal.js'
import { shareWithInterval } from '../statistics/share.js'
import { INTERVAL_LEVEL, STATED_AREA_SD_LOG, type Interval } from './checkComparison.js'

/** Looks at most so many days apart count as side by side. */
export const SIDE_BY_SIDE_DAYS = 7

/** One look at one variety in one place: so many units of a part of the plant, and how many of them were hit. */
export interface VarietyLook {
  variety: string
  /** Where and when it grew beside others, as block and season: only looks that share it are compared. */
  place: string
  /** Day of the look, as a number on one axis. */
  day: number
  looked: number
  hit: number
}

/** A variety against those that stood beside it. */
export interface BesideOthers {
  /** Its share of hit units over that of the others; below 1: hit less. */
  ratio: number
  interval: Interval
  /** Places in which it stood beside others. */
  places: number
  verdict: 'less' | 'not-separable' | 'more'
}

export interface VarietyStanding {
  variety: string
  /** Sums over the last look in each place. */
  looked: number
  hit: number
  /** Share of units hit, with the interval of counting alone. */
  share: number
  interval: Interval
  places: number
  /** null where it never stood beside another. */
  besideOthers: BesideOthers | null
}

interface Tally {
  looked: number
  hit: number
}

/**
 * How varieties bore a pest or a disease, each against those that stood beside it in the same place and were looked at
 * within a week of it. Damage adds up over a season, so of several looks in a place only the last at which there was
 * something to compare counts. In each place the log of the ratio of shares is taken (0.5 added to all four counts where a
 * share is 0 or 1), with the variance of the counts and that by which two plots drift apart anyway; places are then
 * weighted by the inverse of that variance, as random effects with a stated variance between them (DerSimonian & Laird
 * 1986). Intervals hold at 90 %.
 *
 * @param looks All of the same part of the plant; in any order. Not changed.
 * @returns The varieties that are hit least beside others first, those without a comparison last.
 * @throws RangeError naming the look: for no units, a negative count, more hit than looked at, a day that is no number.
 */
export function varietyStandings(looks: readonly VarietyLook[], options: { areaSdLog?: number } = {}): VarietyStanding[] {
  looks.forEach(({ day, hit, looked }, i) => {
    requireFinite(`looks[${i}].day`, day)
    try {
      shareWithInterval(hit, looked, INTERVAL_LEVEL)
    } catch (error) {
      throw new RangeError(`looks[${i}].${(error as Error).message}`, { cause: error })
    }
  })
  const drift = 2 * (options.areaSdLog ?? STATED_AREA_SD_LOG) ** 2
  const places = [...group(looks, ({ place }) => place).values()]
  const compared = places.map(sideBySide).filter((tallies) => tallies.size > 1)
  const standings = [...new Set(looks.map(({ variety }) => variety))].map((variety): VarietyStanding => {
    const last = places.flatMap((inPlace) => lastLook(inPlace, variety) ?? [])
    const [looked, hit] = [sum(last, (l) => l.looked), sum(last, (l) => l.hit)]
    const { share, low, high } = shareWithInterval(hit, looked, INTERVAL_LEVEL)
    const besideOthers = pooled(
      compared.flatMap((tallies) => logRatio(tallies, variety) ?? []),
      drift,
    )
    return { variety, looked, hit, share, interval: { low, high }, places: last.length, besideOthers }
  })
  const rank = ({ besideOthers }: VarietyStanding): number => besideOthers?.ratio ?? Infinity
  return standings.sort((a, b) => rank(a) - rank(b) || a.share - b.share)
}

function lastLook(looks: readonly VarietyLook[], variety: string): VarietyLook | undefined {
  return looks.filter((look) => look.variety === variety).sort((a, b) => b.day - a.day)[0]
}

/** The last week of a place in which two varieties or more were looked at, by variety; empty where there was none. */
function sideBySide(looks: readonly VarietyLook[]): Map<string, Tally> {
  const newestFirst = [...looks].sort((a, b) => b.day - a.day)
  for (const { day: until } of newestFirst) {
    const week = new Map<string, Tally>()
    for (const look of newestFirst) {
      if (look.day <= until && look.day >= until - SIDE_BY_SIDE_DAYS && !week.has(look.variety)) week.set(look.variety, look)
    }
    if (week.size > 1) return week
  }
  return new Map()
}

function logRatio(tallies: ReadonlyMap<string, Tally>, variety: string): { log: number; variance: number } | null {
  const own = tallies.get(variety)
  if (!own) return null
  const rest = [...tallies].filter(([name]) => name !== variety).map(([, tally]) => tally)
  const others: Tally = { looked: sum(rest, (t) => t.looked), hit: sum(rest, (t) => t.hit) }
  const plain = [own, others].every(({ hit, looked }) => hit > 0 && hit < looked)
  const [a, b] = [own, others].map(({ hit, looked }) => (plain ? { hit, looked } : { hit: hit + 0.5, looked: looked + 1 })) as [
    Tally,
    Tally,
  ]
  return {
    log: Math.log(a.hit / a.looked / (b.hit / b.looked)),
    variance: 1 / a.hit - 1 / a.looked + 1 / b.hit - 1 / b.looked,
  }
}

function pooled(ratios: readonly { log: number; variance: number }[], drift: number): BesideOthers | null {
  if (ratios.length === 0) return null
  const weights = ratios.map(({ variance }) => 1 / (variance + drift))
  const weight = sum(weights)
  const log = sum(ratios, ({ log }, i) => log * (weights[i] as number)) / weight
  const half = normalQuantile(1 - (1 - INTERVAL_LEVEL) / 2) / Math.sqrt(weight)
  const interval = { low: Math.exp(log - half), high: Math.exp(log + half) }
  return {
    ratio: Math.exp(log),
    interval,
    places: ratios.length,
    verdict: interval.high < 1 ? 'less' : interval.low > 1 ? 'more' : 'not-separable',
  }
}
