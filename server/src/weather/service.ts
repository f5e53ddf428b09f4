import type { ParsedInputOf, ResponseOf, Station, weather } from '@bocado/contract'
import { civilDate, dayNumber, fillDays, hasDay, quantileSorted, sameDayInYear, seasonLater, type DailySeries } from '@bocado/core'
import { IANAZone } from 'luxon'
import type { Clock } from '../clock.js'
import { sqlInstant, type Queryable, type Write } from '../database/index.js'
import { daysAhead, type DaysAhead } from '../forecasts/service.js'
import { HttpProblem, fieldProblem } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { getSite } from '../sites/service.js'
import { mergeDays, readHourAt } from './readingStore.js'
import { extentOf, findStation, insertStation, listStations, lockStation, type StoredStation } from './store.js'

/** Standard time of a zone: the smaller of its two offsets, in minutes east of UTC. */
export function standardOffset(timeZone: string, year: number): number {
  const zone = IANAZone.create(timeZone)
  return Math.min(zone.offset(Date.UTC(year, 0, 1)), zone.offset(Date.UTC(year, 6, 1)))
}

/** A device that pushes every hour is silent when two of them are missing. */
const SILENT_AFTER_MS = 3 * 3_600_000

async function presented(db: Queryable, station: StoredStation, now: Date): Promise<Station> {
  const { id, name, utcOffsetMinutes, rowVersion, sensorHeightM, device, lastHour } = station
  const silent = lastHour !== null && now.getTime() - Date.parse(lastHour) > SILENT_AFTER_MS
  return { id, name, utcOffsetMinutes, rowVersion, sensorHeightM, device, lastHour, silent, ...(await extentOf(db, station)) }
}

export async function getStations(db: Queryable, clock: Clock, siteId: string): Promise<Station[]> {
  const now = await clock.now(db)
  return Promise.all((await listStations(db, siteId)).map((station) => presented(db, station, now)))
}

export async function getStation(db: Queryable, siteId: string, stationId: string): Promise<StoredStation> {
  const station = await findStation(db, siteId, stationId)
  if (!station) throw new HttpProblem(404, 'There is no such station at this site.')
  return station
}

export async function addStation(w: Write, deps: Deps, input: ParsedInputOf<typeof weather.addStation>): Promise<Station> {
  const site = await getSite(w.tx, deps.clock, w.siteId)
  const utcOffsetMinutes = standardOffset(site.timeZone, Number(site.today.slice(0, 4)))
  const id = await insertStation(w, { ...input, utcOffsetMinutes })
  return presented(w.tx, await getStation(w.tx, w.siteId, id), await deps.clock.now(w.tx))
}

export async function typeDays(
  w: Write,
  deps: Deps,
  stationId: string,
  input: ParsedInputOf<typeof weather.typeDays>,
): Promise<ResponseOf<typeof weather.typeDays>> {
  await getStation(w.tx, w.siteId, stationId)
  const site = await getSite(w.tx, deps.clock, w.siteId)
  const seen = new Set<string>()
  input.days.forEach(({ day }, i) => {
    if (day > site.today) throw fieldProblem(`days.${i}.day`, `${day} lies in the future; enter days up to ${site.today}`)
    if (seen.has(day)) throw fieldProblem(`days.${i}.day`, `${day} stands twice; enter each day once`)
    seen.add(day)
  })
  await lockStation(w, stationId)
  return mergeDays(
    w,
    stationId,
    null,
    input.days.map(({ day, min, max, rain }) => [day, min, max, rain]),
  )
}

const NORMAL_HALF_WIDTH_DAYS = 5

/** The range of daily means, 10th to 90th percentile of past years within five days of a date; undefined under 3 years. */
function normalRange(series: DailySeries, day: number, pastYears: readonly number[]): { low: number; high: number } | null {
  const lows: number[] = []
  const highs: number[] = []
  let years = 0
  for (const years_ of pastYears) {
    const centre = sameDayInYear(day, years_)
    let any = false
    for (let d = centre - NORMAL_HALF_WIDTH_DAYS; d <= centre + NORMAL_HALF_WIDTH_DAYS; d++) {
      if (!hasDay(series, d)) continue
      any = true
      lows.push(series.min[d - series.firstDay] as number)
      highs.push(series.max[d - series.firstDay] as number)
    }
    if (any) years++
  }
  if (years < 3) return null
  return { low: quantileSorted(Float64Array.from(lows).sort(), 0.1), high: quantileSorted(Float64Array.from(highs).sort(), 0.9) }
}

/** Lowest, median and highest of each day's extremes over the members of a forecast. */
function spansAhead({ members }: DaysAhead, today: number): ResponseOf<typeof weather.days>['ahead'] {
  const span = (values: readonly number[]) => {
    const sorted = Float64Array.from(values).sort()
    return { low: sorted[0] as number, middle: quantileSorted(sorted, 0.5), high: sorted.at(-1) as number }
  }
  return (members[0] ?? []).map((_, i) => ({
    day: civilDate(today + i),
    min: span(members.flatMap((member) => member[i]?.min ?? [])),
    max: span(members.flatMap((member) => member[i]?.max ?? [])),
  }))
}

export async function seasonDays(deps: Deps, siteId: string, stationId: string, season: string): Promise<ResponseOf<typeof weather.days>> {
  const station = await getStation(deps.database, siteId, stationId)
  const site = await getSite(deps.database, deps.clock, siteId)
  const known = await deps.history.daysOf(deps.database, station)
  const { series, rain } = known
  const ahead = await daysAhead(deps, station, known, site.today)
  const start = dayNumber(season)
  const end = seasonLater(start, 1)
  const yesterday = Math.min(end, dayNumber(site.today)) - 1
  const filled = fillDays(series, start, yesterday)
  const pastYears = [-1, -2, -3, -4, -5, -6, -7, -8, -9, -10, -11, -12, -13, -14, -15].filter((y) =>
    hasDay(series, sameDayInYear(start + 100, y)),
  )
  const days: ResponseOf<typeof weather.days>['days'] = []
  const normal: ResponseOf<typeof weather.days>['normal'] = []
  for (let day = start; day < end; day++) {
    const known = day <= yesterday && hasDay(filled, day)
    const i = day - filled.firstDay
    days.push({
      day: civilDate(day),
      min: known ? (filled.min[i] as number) : null,
      max: known ? (filled.max[i] as number) : null,
      rain: day <= yesterday ? (rain.get(day) ?? null) : null,
      filled: known ? (filled.filled[i] as number) : 0,
    })
    normal.push(normalRange(series, day, pastYears))
  }
  return {
    days,
    normal,
    pastSeasons: pastYears.length,
    ahead: ahead ? spansAhead(ahead, dayNumber(site.today)) : [],
    forecast: ahead ? { issuedAt: ahead.issuedAt, members: ahead.members.length } : null,
  }
}

/** The station that a block follows: its own choice, otherwise the first of the site. */
export async function stationFor(db: Queryable, siteId: string, stationId: string | null): Promise<StoredStation | undefined> {
  return stationId ? findStation(db, siteId, stationId) : (await listStations(db, siteId))[0]
}

/** What was read in the hour of a moment, for the record of a treatment. */
export async function weatherAt(
  db: Queryable,
  station: StoredStation | undefined,
  moment: string,
): Promise<{ tempC: number | null; humidityPct: number | null; windMs: number | null }> {
  const hour = sqlInstant(moment).replace(/:\d\d:\d\d$/, ':00:00')
  const read = station && (await readHourAt(db, station.id, hour))
  return { tempC: read?.temperature ?? null, humidityPct: read?.humidity ?? null, windMs: read?.wind ?? null }
}
