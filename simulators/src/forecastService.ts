import { setTimeout as sleep } from 'node:timers/promises'
import { drawNormal, seededRandom } from '@bocado/core'
import type { InventedHour } from '@bocado/demo'
import type { DeviceSettings } from './weatherStation.js'

const HOUR = 3_600_000
/** A new issue every six hours, ten days and the rest of today ahead, twelve members. */
export const ISSUE_EVERY_HOURS = 6
export const HOURS_AHEAD = 264
export const MEMBERS = 12

export interface Issue {
  issuedAt: string
  firstHour: string
  members: { temperature: number[]; humidity: number[]; rain: number[]; wind: number[] }[]
}

const round = (value: number, digits: number): number => Number(value.toFixed(digits))
const iso = (at: number): string => new Date(at).toISOString().replace('.000Z', 'Z')

/**
 * A forecast as a service would make it: the weather that will come, blurred more the further ahead. All members share an
 * error (the forecast may be wrong as a whole) and each has one of its own; both grow with the days. Later days may also get
 * their rain at another hour. The same moment gives the same issue.
 */
export function makeIssue(truth: readonly InventedHour[], issuedAt: number): Issue {
  const from = truth.findIndex(({ at }) => at >= issuedAt)
  const ahead = from < 0 ? [] : truth.slice(from, from + HOURS_AHEAD)
  const random = seededRandom(issuedAt / HOUR)
  const shared = wander(random, ahead.length)
  const members = Array.from({ length: MEMBERS }, () => {
    const own = wander(random, ahead.length)
    const late = Math.round(drawNormal(random, 0, 3))
    const warmer = (h: number): number => (0.3 + 0.011 * h) * (0.5 * (shared[h] ?? 0) + (own[h] ?? 0))
    const shifted = (h: number): InventedHour | undefined => ahead[Math.min(ahead.length - 1, Math.max(0, h + Math.round((late * h) / 72)))]
    return {
      temperature: ahead.map((hour, h) => round((hour.temperature ?? 0) + warmer(h), 1)),
      humidity: ahead.map((_, h) => Math.min(100, Math.max(5, Math.round((shifted(h)?.humidity ?? 60) - 2 * warmer(h))))),
      rain: ahead.map((_, h) => shifted(h)?.rain ?? 0),
      wind: ahead.map((hour, h) => round(Math.max(0, (hour.wind ?? 0) * (1 + 0.002 * h * (own[h] ?? 0))), 1)),
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
export const newestIssueAt = (now: number): number => Math.floor(now / (ISSUE_EVERY_HOURS * HOUR)) * ISSUE_EVERY_HOURS * HOUR

/** Delivers a forecast for a station whenever a new one is due by the time of the demonstration, until it is stopped. */
export async function runForecastService(settings: DeviceSettings, truth: readonly InventedHour[], stopped: AbortSignal): Promise<void> {
  const delivered = new Set<number>()
  while (!stopped.aborted) {
    try {
      const { now } = (await (await fetch(`${settings.address}/api/v1/demo/clock`)).json()) as { now: string | null }
      const due = newestIssueAt(now ? Date.parse(now) : Date.now())
      const issue = delivered.has(due) ? undefined : makeIssue(truth, due)
      if (issue && (issue.members[0]?.temperature.length ?? 0) >= 24) {
        const response = await fetch(`${settings.address}/api/v1/stations/${settings.stationId}/forecast-issues`, {
          method: 'POST',
          headers: { 'Content-Type': 'application/json', Authorization: `Bearer ${settings.token}` },
          body: JSON.stringify(issue),
        })
        if (!response.ok) throw new Error(`the forecast was refused: ${response.status} ${await response.text()}`)
      }
      delivered.add(due)
    } catch (error) {
      if (stopped.aborted) return
      console.error(error instanceof Error ? error.message : error)
    }
    await sleep(1000, undefined, { signal: stopped }).catch(() => undefined)
  }
}
