import { randomUUID } from 'node:crypto'
import type { ForecastIssueInput, ResponseOf, devices } from '@bocado/contract'
import { dayNumber, type DayExtremes } from '@bocado/core'
import { requireStation } from '../devices/token.js'
import { fieldProblem } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { inTransaction } from '../http/transaction.js'
import type { StationDays } from '../weather/history.js'
import type { StoredStation } from '../weather/store.js'
import { insertIssue, issuesBetween } from './store.js'

/** Takes in a forecast. Every issue is kept, so that forecasts can be held against what came. */
export async function takeForecast(
  deps: Deps,
  stationId: string,
  token: string | undefined,
  issue: ForecastIssueInput,
): Promise<ResponseOf<typeof devices.issueForecast>> {
  return inTransaction(deps.database, async (tx) => {
    const station = await requireStation(tx, stationId, token)
    const now = (await deps.clock.now(tx)).getTime()
    if (Date.parse(issue.issuedAt) > now + 600_000) throw fieldProblem('issuedAt', 'lies in the future; set the clock of the service')
    const id = await insertIssue(tx, { siteId: station.siteId, stationId }, randomUUID(), issue)
    return { id, issuedAt: issue.issuedAt }
  })
}

/** A forecast older than this says no more about the days ahead than past years do. */
const STALE_AFTER_MS = 36 * 3_600_000

export interface DaysAhead {
  issuedAt: string
  /** For each member its daily extremes in °C, today first, complete days only. */
  members: DayExtremes[][]
}

/**
 * The days ahead as the newest forecast of a station has them, from today's midnight in standard time. Hours that were already
 * observed lie over the forecast's; hours that passed unobserved before it was issued come from the issue before it.
 * Undefined without a fresh issue.
 */
export async function daysAhead(deps: Deps, station: StoredStation, days: StationDays, today: string): Promise<DaysAhead | undefined> {
  const now = await deps.clock.now(deps.database)
  const issues = await issuesBetween(deps.database, station.id, new Date(now.getTime() - STALE_AFTER_MS), now)
  const [newest] = issues
  if (!newest) return undefined
  const standardHour = (moment: number): number => Math.floor((moment / 60_000 + station.utcOffsetMinutes) / 60)
  const firstHours = issues.map(({ firstHour }) => standardHour(Date.parse(firstHour)))
  const nowHour = standardHour(now.getTime())
  const midnight = dayNumber(today) * 24
  const { hours: observed } = days
  const hourOf = (hour: number, m: number): number | undefined => {
    const read = hour < nowHour ? observed.values.temperature[hour - observed.firstHour] : undefined
    if (read !== undefined && !Number.isNaN(read)) return read
    for (const [i, { members }] of issues.entries()) {
      const value = members[m % members.length]?.temperature[hour - (firstHours[i] as number)]
      if (value !== undefined) return value
    }
    return undefined
  }
  const members = newest.members.map((_, m) => completeDays(midnight, (hour) => hourOf(hour, m)))
  const complete = Math.min(...members.map(({ length }) => length))
  return complete > 0 ? { issuedAt: newest.issuedAt, members: members.map((member) => member.slice(0, complete)) } : undefined
}

/** Extremes of the days from an hour on, as long as all of their hours are known. */
function completeDays(from: number, hourOf: (hour: number) => number | undefined): DayExtremes[] {
  const extremes: DayExtremes[] = []
  for (let start = from; ; start += 24) {
    const hours = Array.from({ length: 24 }, (_, h) => hourOf(start + h)).filter((value) => value !== undefined)
    if (hours.length < 24) return extremes
    extremes.push({ min: Math.min(...hours), max: Math.max(...hours) })
  }
}
