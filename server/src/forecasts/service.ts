import { randomUUID } from 'node:crypto'
import type { ForecastIssueInput, ResponseOf, devices } from '@bocado/contract'
import { correctedDay, offsetHours, standardHour, MS_PER_HOUR, type DayExtremes, type LeadCorrection, type MemberHours } from '@bocado/core'
import { requireStation } from '../devices/token.js'
import { fieldProblem } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import type { StationDays } from '../weather/history.js'
import type { StoredStation } from '../weather/store.js'
import { forecastScore, scoredHeaders } from './score.js'
import { insertIssue, loadIssue, type ForecastIssue } from './store.js'

/** Takes in a forecast. Every issue is kept, so that forecasts can be held against what came. */
export async function takeForecast(
  { db: tx, clock }: Deps,
  stationId: string,
  token: string | undefined,
  issue: ForecastIssueInput,
): Promise<ResponseOf<typeof devices.issueForecast>> {
  const station = await requireStation(tx, stationId, token)
  const now = (await clock.now(tx)).getTime()
  if (Date.parse(issue.issuedAt) > now + 600_000) throw fieldProblem('issuedAt', 'lies in the future; set the clock of the service')
  tx.touch(station.siteId, 'weather')
  const id = await insertIssue(tx, { siteId: station.siteId, stationId }, randomUUID(), issue)
  return { id, issuedAt: issue.issuedAt }
}

/** A forecast older than this says no more about the days ahead than past years do. */
const STALE_AFTER_MS = 36 * MS_PER_HOUR

export interface DayAhead extends DayExtremes {
  /** NaN where the issue holds none. */
  rain: number
}

export interface DaysAhead {
  issuedAt: string
  /** Day number of the first day: today, or an earlier one that is not complete because the station is late. */
  firstDay: number
  /** For each member its days from the first on, complete days only: extremes in °C, rain in mm. */
  members: DayAhead[][]
  /** For each member the hours of these days from `firstHour` on, in standard time. */
  firstHour: number
  hours: MemberHours[]
  /** Past issues from which the forecast is corrected; 0 where it is not. */
  correctedFrom: number
  /** Everything that it rests on, for keys of what is made from it. */
  key: string
}

/** The issues of a station that still say something of the days ahead, newest first; found among those that are scored. */
async function freshHeaders({ db }: Deps, station: StoredStation, now: Date): Promise<{ id: string; issuedAt: string }[]> {
  const scored = await scoredHeaders(db, station.id, now)
  return scored.filter(({ issuedAt }) => Date.parse(issuedAt) > now.getTime() - STALE_AFTER_MS)
}

/** The fresh issues of a station, newest first, with their first hour in standard time. */
async function freshIssues(deps: Deps, station: StoredStation, now: Date): Promise<(ForecastIssue & { startsAt: number })[]> {
  const headers = await freshHeaders(deps, station, now)
  const issues = await Promise.all(headers.map(({ id }) => loadIssue(deps.db, deps.memo, id)))
  return issues.map((issue) => ({ ...issue, startsAt: hourOfStation(station, Date.parse(issue.firstHour)) }))
}

const hourOfStation = (station: StoredStation, moment: number): number => standardHour(moment, station.utcOffsetMinutes)

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
    // Of a direction an hour may say that there is none; that is what it says.
    if (value !== undefined) return value ?? NaN
  }
  return undefined
}

/** Days from the newest issue to the day, as its corrections are counted. */
const leadOf = (station: StoredStation, issue: ForecastIssue, day: number): number =>
  day - Math.floor(hourOfStation(station, Date.parse(issue.issuedAt)) / 24)

/**
 * The days ahead as the newest forecast of a station has them, from the midnight of the first day that is not complete, in standard time. Hours that were already
 * observed lie over the forecast's; hours that passed unobserved before it was issued come from the issue before it. The bias that
 * past issues showed is taken off. Undefined without a fresh issue.
 *
 * @param open the first day that is not complete, at the latest today
 * @param at the moment from which it is seen, to see it as it once was; now where it is not given
 */
export async function daysAhead(
  deps: Deps,
  station: StoredStation,
  days: StationDays,
  open: number,
  at?: Date,
): Promise<DaysAhead | undefined> {
  const now = at ?? (await deps.clock.now(deps.db))
  const headers = await freshHeaders(deps, station, now)
  if (!headers[0]) return undefined
  const nowHour = hourOfStation(station, now.getTime())
  const { corrections, issues: scored, key: scoreKey } = await forecastScore(deps, station, days, now)
  // What was read of the days that are not over lies over the forecast.
  const key = `${scoreKey} ${headers[0].id} ${headers.length} ${nowHour} ${open} ${days.contentBefore(Math.floor(nowHour / 24) + 1)}`
  return deps.memo.get(`ahead ${key}`, async () => {
    const issues = await freshIssues(deps, station, now)
    const newest = issues[0] as ForecastIssue
    const midnight = open * 24
    const { hours: observed } = days
    const hourOf = (variable: IssuedVariable, hour: number, m: number): number => {
      const read = hour < nowHour ? observed.values[variable][hour - observed.firstHour] : undefined
      return read !== undefined && !Number.isNaN(read) ? read : (issuedHour(issues, variable, hour, m) ?? NaN)
    }
    const correctionOn = (d: number): LeadCorrection | undefined => {
      const lead = leadOf(station, newest, open + d)
      return corrections.find((correction) => correction.lead === lead)
    }
    const raw = newest.members.map((_, m) => completeHours(midnight, (variable, hour) => hourOf(variable, hour, m)))
    const complete = Math.min(...raw.map(({ temperature }) => temperature.length / 24))
    if (complete === 0) return undefined
    const hours = raw.map((member) => ({
      ...cut(member, complete * 24),
      temperature: corrected(member.temperature, complete, midnight, correctionOn),
    }))
    return {
      issuedAt: newest.issuedAt,
      firstDay: open,
      members: raw.map((member) =>
        Array.from({ length: complete }, (_, d) => {
          const { min, max } = correctedDay(extremesOf(member.temperature, d), correctionOn(d))
          return { min, max, rain: member.rain.subarray(d * 24, d * 24 + 24).reduce((a, b) => a + b, 0) }
        }),
      ),
      firstHour: midnight,
      hours,
      correctedFrom: corrections.some(({ min, max }) => min !== 0 || max !== 0) ? scored : 0,
      key,
    }
  })
}

type IssuedVariable = keyof MemberHours

/** The hours of the days from an hour on, as long as the temperature of all of a day's hours is known. */
function completeHours(from: number, hourOf: (variable: IssuedVariable, hour: number) => number): MemberHours {
  const temperature: number[] = []
  for (let start = from; ; start += 24) {
    const hours = Array.from({ length: 24 }, (_, h) => hourOf('temperature', start + h))
    if (hours.some(Number.isNaN)) break
    temperature.push(...hours)
  }
  const others = (variable: IssuedVariable) => Float64Array.from(temperature, (_, i) => hourOf(variable, from + i))
  return { temperature: Float64Array.from(temperature), humidity: others('humidity'), rain: others('rain') }
}

const cut = ({ temperature, humidity, rain }: MemberHours, length: number): MemberHours => ({
  temperature: temperature.subarray(0, length),
  humidity: humidity.subarray(0, length),
  rain: rain.subarray(0, length),
})

function extremesOf(temperature: Float64Array, d: number): DayExtremes {
  const hours = temperature.subarray(d * 24, d * 24 + 24)
  return { min: Math.min(...hours), max: Math.max(...hours) }
}

/** Hours shifted so that each day's extremes are the corrected ones. */
function corrected(temperature: Float64Array, days: number, midnight: number, on: (d: number) => LeadCorrection | undefined): Float64Array {
  const result = new Float64Array(days * 24)
  for (let d = 0; d < days; d++) {
    const hours = temperature.slice(d * 24, d * 24 + 24)
    const correction = on(d)
    result.set(correction ? offsetHours(midnight + d * 24, hours, { min: -correction.min, max: -correction.max }) : hours, d * 24)
  }
  return result
}

/** One hour over the members of a forecast: values by member, in SI units; a variable that the issue lacks is empty. */
export interface HourAhead {
  temperature: number[]
  humidity: number[]
  rain: number[]
  wind: number[]
  /** From which it blows, hour by hour of the same members as `speeds`. */
  directions: number[]
  speeds: number[]
}

/** The 24 hours of a day as one member has them; NaN where the issue holds none. */
type MemberHours24 = Record<ForecastVariable, Float64Array>

/** The hours of a day, member by member, its bias taken off; undefined without a fresh issue. */
async function memberHoursOn(deps: Deps, station: StoredStation, days: StationDays, day: number): Promise<MemberHours24[] | undefined> {
  const now = await deps.clock.now(deps.db)
  const issues = await freshIssues(deps, station, now)
  const newest = issues[0]
  if (!newest) return undefined
  const { corrections } = await forecastScore(deps, station, days, now)
  const correction = corrections.find(({ lead }) => lead === leadOf(station, newest, day))
  const memberHours = (variable: ForecastVariable, m: number): Float64Array =>
    Float64Array.from({ length: 24 }, (_, h) => issuedHour(issues, variable, day * 24 + h, m) ?? NaN)
  return newest.members.map((_, m) => {
    const temperature = memberHours('temperature', m)
    return {
      temperature: correction ? offsetHours(day * 24, temperature, { min: -correction.min, max: -correction.max }) : temperature,
      humidity: memberHours('humidity', m),
      rain: memberHours('rain', m),
      wind: memberHours('wind', m),
      direction: memberHours('direction', m),
    }
  })
}

/** The hours of a day as the newest forecast has them, corrected as `daysAhead` does; undefined where it holds none of that day. */
export async function hoursAhead(deps: Deps, station: StoredStation, days: StationDays, day: number): Promise<HourAhead[] | undefined> {
  const members = await memberHoursOn(deps, station, days, day)
  if (!members) return undefined
  if (members.every(({ temperature }) => temperature.every(Number.isNaN))) return undefined
  const at = (variable: ForecastVariable, h: number): number[] =>
    members.map((member) => member[variable][h] as number).filter((value) => !Number.isNaN(value))
  return Array.from({ length: 24 }, (_, h) => ({
    temperature: at('temperature', h),
    humidity: at('humidity', h),
    rain: at('rain', h),
    wind: at('wind', h),
    directions: members.map(({ direction }) => direction[h] as number),
    speeds: members.map(({ wind }) => wind[h] as number),
  }))
}

/**
 * The hours of several days ahead, member by member and in their order, as what is done by the hour needs them; NaN where the issue holds
 * none. Undefined without a fresh issue.
 */
export async function memberHoursAhead(
  deps: Deps,
  station: StoredStation,
  days: StationDays,
  firstDay: number,
  count: number,
): Promise<MemberHours24[] | undefined> {
  const each = await Promise.all(Array.from({ length: count }, (_, d) => memberHoursOn(deps, station, days, firstDay + d)))
  const [first] = each
  if (!first) return undefined
  const joined = (variable: ForecastVariable, m: number): Float64Array =>
    Float64Array.from(each.flatMap((day) => [...(day?.[m]?.[variable] ?? new Float64Array(24).fill(NaN))]))
  return first.map((_, m) => ({
    temperature: joined('temperature', m),
    humidity: joined('humidity', m),
    rain: joined('rain', m),
    wind: joined('wind', m),
    direction: joined('direction', m),
  }))
}
