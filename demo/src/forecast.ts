import { drawNormal, seededRandom, withinCircle, MS_PER_HOUR } from '@bocado/core'
import { STANDARD_OFFSET_HOURS, type InventedHour } from './weather.js'

/** A new issue every six hours, ten days and the rest of today ahead, twelve members. */
export const ISSUE_EVERY_HOURS = 6
export const HOURS_AHEAD = 264
export const MEMBERS = 12

export interface Issue {
  issuedAt: string
  firstHour: string
  members: { temperature: number[]; humidity: number[]; rain: number[]; wind: number[]; direction: (number | null)[] }[]
}

/** °C by which the service sees nights too warm: it does not know where cold air pools. */
const WARM_NIGHTS = 0.9

/** Whether an hour is one of the night, in standard time. */
const isNight = (at: number): boolean => (((at / MS_PER_HOUR + STANDARD_OFFSET_HOURS) % 24) + 24) % 24 < 7

const round = (value: number, digits: number): number => Number(value.toFixed(digits))
const iso = (at: number): string => new Date(at).toISOString().replace('.000Z', 'Z')

/**
 * A forecast as a service would make it: the weather that will come, blurred more the further ahead. All members share an
 * error (the forecast may be wrong as a whole) and each has one of its own; both grow with the days. Later days may also get
 * their rain at another hour, and nights are always a little too warm. The same moment gives the same issue.
 */
export function makeIssue(truth: readonly InventedHour[], issuedAt: number): Issue {
  const from = truth.findIndex(({ at }) => at >= issuedAt)
  const ahead = from < 0 ? [] : truth.slice(from, from + HOURS_AHEAD)
  const random = seededRandom(issuedAt / MS_PER_HOUR)
  const shared = wander(random, ahead.length)
  const turning = seededRandom(issuedAt / MS_PER_HOUR + 1)
  const members = Array.from({ length: MEMBERS }, () => {
    const own = wander(random, ahead.length)
    const turned = wander(turning, ahead.length)
    const late = Math.round(drawNormal(random, 0, 3))
    const warmer = (h: number): number => (0.3 + 0.011 * h) * (0.5 * (shared[h] ?? 0) + (own[h] ?? 0))
    const shifted = (h: number): InventedHour | undefined => ahead[Math.min(ahead.length - 1, Math.max(0, h + Math.round((late * h) / 72)))]
    return {
      temperature: ahead.map((hour, h) => round((hour.temperature ?? 0) + warmer(h) + (isNight(hour.at) ? WARM_NIGHTS : 0), 1)),
      humidity: ahead.map((_, h) => Math.min(100, Math.max(5, Math.round((shifted(h)?.humidity ?? 60) - 2 * warmer(h))))),
      rain: ahead.map((_, h) => shifted(h)?.rain ?? 0),
      wind: ahead.map((hour, h) => round(Math.max(0, (hour.wind ?? 0) * (1 + 0.002 * h * (own[h] ?? 0))), 1)),
      direction: ahead.map(({ direction }, h) =>
        direction === null ? null : Math.round(withinCircle(direction + (8 + 0.25 * h) * (turned[h] ?? 0))) % 360,
      ),
    }
  })
  return { issuedAt: iso(issuedAt), firstHour: iso(ahead[0]?.at ?? issuedAt), members }
}

/** A slow wander around nothing, of unit spread: errors of neighbouring hours belong together. */
function wander(random: () => number, length: number): Float64Array {
  const steps = new Float64Array(length)
  let value = drawNormal(random)
  for (let i = 0; i < length; i++) {
    value = 0.97 * value + drawNormal(random, 0, Math.sqrt(1 - 0.97 ** 2))
    steps[i] = value
  }
  return steps
}

/** The moment of the newest issue at a time: every six hours, at 0, 6, 12 and 18 UTC. */
export const newestIssueAt = (now: number): number => Math.floor(now / (ISSUE_EVERY_HOURS * MS_PER_HOUR)) * ISSUE_EVERY_HOURS * MS_PER_HOUR
