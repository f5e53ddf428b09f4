import { randomUUID } from 'node:crypto'
import type { ForecastIssueInput, ResponseOf, devices } from '@bocado/contract'
import { correctedDay, dayNumber, offsetHours, type DayExtremes, type LeadCorrection } from '@bocado/core'
import { requireStation } from '../devices/token.js'
import { fieldProblem } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { inTransaction } from '../http/transaction.js'
import type { StationDays } from '../weather/history.js'
import type { StoredStation } from '../weather/store.js'
import { forecastScore } from './score.js'
import { insertIssue, issuesBetween, loadIssue, type ForecastIssue } from './store.js'

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
  /** Past issues from which the forecast is corrected; 0 where it is not. */
  correctedFrom: number
  /** Everything that it rests on, for keys of what is made from it. */
  key: string
}

/** The fresh issues of a station, newest first, with their first hour in standard time. */
async function freshIssues(deps: Deps, station: StoredStation, now: Date): Promise<(ForecastIssue & { startsAt: number })[]> {
  const headers = await issuesBetween(deps.database, station.id, new Date(now.getTime() - STALE_AFTER_MS), now)
  const issues = await Promise.all(headers.map(({ id }) => loadIssue(deps.database, deps.memo, id)))
  return issues.map((issue) => ({ ...issue, startsAt: standardHour(station, Date.parse(issue.firstHour)) }))
}

const standardHour = (station: StoredStation, moment: number): number => Math.floor((moment / 60_000 + station.utcOffsetMinutes) / 60)

type ForecastVariable = keyof ForecastIssue['members'][number]

/** What a member of the newest issue gives for an hour; hours that it does not hold come from the issue before it. */
function issuedHour(
  issues: Awaited<ReturnType<typeof freshIssues>>,
  variable: ForecastVariable,
  hour: number,
  m: number,
): number | undefined {
  for (const { members, startsAt } of issues) {
    const value = members[m % members.length]?.[variable]?.[hour - startsAt]
    if (value !== undefined) return value
  }
  return undefined
}

/** Days from the newest issue to the day, as its corrections are counted. */
const leadOf = (station: StoredStation, issue: ForecastIssue, day: number): number =>
  day - Math.floor(standardHour(station, Date.parse(issue.issuedAt)) / 24)

/**
 * The days ahead as the newest forecast of a station has them, from today's midnight in standard time. Hours that were already
 * observed lie over the forecast's; hours that passed unobserved before it was issued come from the issue before it. The bias that
 * past issues showed is taken off. Undefined without a fresh issue.
 */
export async function daysAhead(deps: Deps, station: StoredStation, days: StationDays, today: string): Promise<DaysAhead | undefined> {
  const now = await deps.clock.now(deps.database)
  const headers = await issuesBetween(deps.database, station.id, new Date(now.getTime() - STALE_AFTER_MS), now)
  if (!headers[0]) return undefined
  const nowHour = standardHour(station, now.getTime())
  const { corrections, issues: scored, key: scoreKey } = await forecastScore(deps, station, days, now, dayNumber(today))
  const key = `${scoreKey} ${headers[0].id} ${headers.length} ${nowHour}`
  return deps.memo.get(`ahead ${key}`, async () => {
    const issues = await freshIssues(deps, station, now)
    const newest = issues[0] as ForecastIssue
    const midnight = dayNumber(today) * 24
    const { hours: observed } = days
    const hourOf = (hour: number, m: number): number | undefined => {
      const read = hour < nowHour ? observed.values.temperature[hour - observed.firstHour] : undefined
      return read !== undefined && !Number.isNaN(read) ? read : issuedHour(issues, 'temperature', hour, m)
    }
    const members = newest.members.map((_, m) => completeDays(midnight, (hour) => hourOf(hour, m)))
    const complete = Math.min(...members.map(({ length }) => length))
    if (complete === 0) return undefined
    const correctionOn = (d: number): LeadCorrection | undefined => {
      const lead = leadOf(station, newest, dayNumber(today) + d)
      return corrections.find((correction) => correction.lead === lead)
    }
    return {
      issuedAt: newest.issuedAt,
      members: members.map((member) => member.slice(0, complete).map((day, d) => correctedDay(day, correctionOn(d)))),
      correctedFrom: corrections.some(({ min, max }) => min !== 0 || max !== 0) ? scored : 0,
      key,
    }
  })
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

/** One hour over the members of a forecast: values by member, in SI units; a variable that the issue lacks is empty. */
export interface HourAhead {
  temperature: number[]
  humidity: number[]
  rain: number[]
  wind: number[]
}

/** The hours of a day as the newest forecast has them, corrected as `daysAhead` does; undefined where it holds none of that day. */
export async function hoursAhead(
  deps: Deps,
  station: StoredStation,
  days: StationDays,
  day: number,
  today: number,
): Promise<HourAhead[] | undefined> {
  const now = await deps.clock.now(deps.database)
  const issues = await freshIssues(deps, station, now)
  const newest = issues[0]
  if (!newest) return undefined
  const { corrections } = await forecastScore(deps, station, days, now, today)
  const correction = corrections.find(({ lead }) => lead === leadOf(station, newest, day))
  const memberHours = (variable: ForecastVariable, m: number): Float64Array =>
    Float64Array.from({ length: 24 }, (_, h) => issuedHour(issues, variable, day * 24 + h, m) ?? NaN)
  const members = newest.members.map((_, m) => {
    const temperature = memberHours('temperature', m)
    return {
      temperature: correction ? offsetHours(day * 24, temperature, { min: -correction.min, max: -correction.max }) : temperature,
      humidity: memberHours('humidity', m),
      rain: memberHours('rain', m),
      wind: memberHours('wind', m),
    }
  })
  if (members.every(({ temperature }) => temperature.every(Number.isNaN))) return undefined
  const at = (variable: ForecastVariable, h: number): number[] =>
    members.map((member) => member[variable][h] as number).filter((value) => !Number.isNaN(value))
  return Array.from({ length: 24 }, (_, h) => ({
    temperature: at('temperature', h),
    humidity: at('humidity', h),
    rain: at('rain', h),
    wind: at('wind', h),
  }))
}
