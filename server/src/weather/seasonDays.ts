import type { Block, ParsedInputOf, ResponseOf, WetEvent, weather } from '@bocado/contract'
import {
  chillPortions,
  civilDate,
  completeLateDays,
  countWet,
  dayNumber,
  fillDays,
  firstOpenDay,
  frostsOf,
  hasDay,
  knownPastYears,
  LEAD_DAYS,
  moisture,
  normalRange,
  offsetDay,
  quantileSorted,
  referenceEvapotranspiration,
  ROOT_ZONE_M,
  sameDayInYear,
  seasonLater,
  seasonStart,
  soilTemperature,
  springFrostRisk,
  standardDay,
  sunTimes,
  SURFACE_M,
  waterCapacity,
  wetHours,
  withWetEvents,
  type DailySeries,
  type HourlySeries,
  type Position,
  dayOfYear,
} from '@bocado/core'
import { listBlocks } from '../blocks/store.js'
import { listWetEvents, wetSpans } from '../blocks/wetEvents.js'
import { daysAhead, type DaysAhead } from '../forecasts/service.js'
import { fieldProblem } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { getSite, hemisphereOf } from '../sites/service.js'
import { placeDays, stationPosition, type PlaceDays } from './place.js'
import { getStation } from './stations.js'

type SeasonDays = ResponseOf<typeof weather.days>

const round = (value: number, digits: number): number => Number(value.toFixed(digits))
const known = (value: number | undefined, digits: number): number | null =>
  value === undefined || Number.isNaN(value) ? null : round(value, digits)

/** The block as which weather is looked at; null for the station itself. */
export async function blockOfQuery(deps: Deps, siteId: string, blockId: string | undefined): Promise<Block | null> {
  if (blockId === undefined) return null
  const block = (await listBlocks(deps.db, siteId)).find(({ id }) => id === blockId)
  if (!block) throw fieldProblem('blockId', 'choose a block of this site')
  return block
}

/** Wet hours at a place, with the wet events of its block. */
export function wetHoursAt({ hours }: PlaceDays, events: readonly WetEvent[], utcOffsetMinutes: number): Float64Array {
  const { rain, humidity, wetness } = hours.values
  return withWetEvents(wetHours({ rain, humidity, sensor: wetness }), hours.firstHour, wetSpans(events, utcOffsetMinutes))
}

/** Lowest, median and highest of each day's extremes over the members of a forecast. */
function spansAhead({ members }: DaysAhead, today: number, { offset }: PlaceDays): SeasonDays['ahead'] {
  const span = (values: readonly number[]) => {
    const sorted = Float64Array.from(values).sort()
    return { low: sorted[0] as number, middle: quantileSorted(sorted, 0.5), high: sorted.at(-1) as number }
  }
  return (members[0] ?? []).map((_, i) => {
    const day = members.flatMap((member) => (member[i] ? [offsetDay(member[i], offset)] : []))
    return { day: civilDate(today + i), min: span(day.map(({ min }) => min)), max: span(day.map(({ max }) => max)) }
  })
}

/** Chill portions at the end of each day from `from` to `until` (exclusive); ends at the first hour that is not known. */
function chillOf({ firstHour, values }: HourlySeries, from: number, until: number): Float64Array {
  const start = from * 24 - firstHour
  if (start < 0) return new Float64Array()
  let end = start
  while (end < Math.min(values.length, until * 24 - firstHour) && !Number.isNaN(values[end])) end++
  const hourly = chillPortions(values.subarray(start, end))
  return Float64Array.from({ length: Math.floor(hourly.length / 24) }, (_, d) => hourly[d * 24 + 23] as number)
}

/** Median of the chill that past seasons had by the same day; null where fewer than three know it. */
function usualChill(temperatures: HourlySeries, season: number, today: number, pastYears: readonly number[]): number | null {
  const past = pastYears.slice(0, 11).flatMap((years) => {
    const from = sameDayInYear(season, years) - LEAD_DAYS
    const until = sameDayInYear(today, years)
    const chill = chillOf(temperatures, from, until)
    return chill.length === until - from && chill.length > 0 ? [chill.at(-1) as number] : []
  })
  return past.length < 3 ? null : round(quantileSorted(Float64Array.from(past).sort(), 0.5), 1)
}

/** Days before a season from which the water in the soil is accounted, so that its start no longer matters. */
const WATER_SPIN_UP_DAYS = 240

/** Water in the soil at the end of each day from `from` on, with that of waterings. */
function soilWater(
  series: DailySeries,
  rainOf: (day: number) => number | undefined,
  from: number,
  until: number,
  latitude: number,
  texture: NonNullable<Block['soilTexture']>,
) {
  const rain = new Float64Array(until - from).fill(NaN)
  const et0 = new Float64Array(until - from).fill(NaN)
  for (let day = from; day < until; day++) {
    rain[day - from] = rainOf(day) ?? NaN
    if (!hasDay(series, day)) continue
    const i = day - series.firstDay
    et0[day - from] = referenceEvapotranspiration({ min: series.min[i] as number, max: series.max[i] as number }, latitude, dayOfYear(day))
  }
  return {
    root: moisture(rain, et0, waterCapacity(texture, ROOT_ZONE_M)),
    surface: moisture(rain, et0, waterCapacity(texture, SURFACE_M)),
  }
}

/** Daily mean of the soil probe; NaN where fewer than 18 hours were read. */
function probeMean({ hours }: PlaceDays, day: number): number {
  let sum = 0
  let n = 0
  for (let i = day * 24 - hours.firstHour, k = 0; k < 24; i++, k++) {
    const value = hours.values.soil[i]
    if (value === undefined || Number.isNaN(value)) continue
    sum += value
    n++
  }
  return n >= 18 ? sum / n : NaN
}

interface Making {
  place: PlaceDays
  position: Position | undefined
  block: Block | null
  events: readonly WetEvent[]
  utcOffsetMinutes: number
  ahead: DaysAhead | undefined
  season: number
  today: number
  seasons: string[]
}

function makeSeasonDays(m: Making): SeasonDays {
  const { place, season, today } = m
  const { series, rain, temperatures, hours } = place
  const end = seasonLater(season, 1)
  const until = Math.min(end, today)
  const filled = fillDays(series, season, until - 1)
  const pastYears = knownPastYears(series, season)
  const wet = wetHoursAt(place, m.events, m.utcOffsetMinutes)
  const dayWet = (day: number) => {
    const from = day * 24 - hours.firstHour
    return from + 24 <= 0 || from >= hours.length ? null : countWet(wet, from)
  }
  const watered = new Map<number, number>()
  for (const { waterMm, startedAt } of m.events) {
    const day = standardDay(Date.parse(startedAt), m.utcOffsetMinutes)
    if (waterMm !== null) watered.set(day, (watered.get(day) ?? 0) + waterMm)
  }
  // Inside, only what was watered reaches the soil, and that is known; outside, rain that is not known stays so.
  const waterOn = (day: number): number | undefined => {
    const fallen = place.covered ? 0 : rain.get(day)
    return fallen === undefined ? undefined : fallen + (watered.get(day) ?? 0)
  }
  const texture = m.block?.soilTexture ?? 'loam'
  // Under a cover the soil is only known from the first watering on that somebody entered.
  const waterFrom = place.covered ? Math.min(until, ...watered.keys()) : Math.max(season - WATER_SPIN_UP_DAYS, series.firstDay)
  const water = m.position && until > waterFrom ? soilWater(series, waterOn, waterFrom, until, m.position.latitude, texture) : undefined
  const soilFrom = Math.max(series.firstDay, season - LEAD_DAYS)
  const means = Float64Array.from({ length: Math.max(0, until - soilFrom) }, (_, k) => {
    const i = soilFrom + k - filled.firstDay
    return ((filled.min[i] ?? NaN) + (filled.max[i] ?? NaN)) / 2
  })
  const soil = soilTemperature(means, m.block?.soilCover ?? 'bare')
  let probed = false
  const chill = chillOf(temperatures, season - LEAD_DAYS, until)

  const days: SeasonDays['days'] = []
  const normal: SeasonDays['normal'] = []
  for (let day = season; day < end; day++) {
    const past = day < until
    const i = day - filled.firstDay
    const has = past && hasDay(filled, day)
    const wetDay = past ? dayWet(day) : null
    const probe = past ? probeMean(place, day) : NaN
    if (!Number.isNaN(probe)) probed = true
    days.push({
      day: civilDate(day),
      min: has ? round(filled.min[i] as number, 2) : null,
      max: has ? round(filled.max[i] as number, 2) : null,
      rain: past && !place.covered ? known(rain.get(day), 2) : null,
      filled: has ? round(filled.filled[i] as number, 4) : 0,
      wet: wetDay ? wetDay.wet : null,
      wetUnknown: wetDay ? wetDay.unknown : past ? 24 : 0,
      soil: past ? known(Number.isNaN(probe) ? soil[day - soilFrom] : probe, 1) : null,
      rootZone: past ? known(water?.root.fill[day - waterFrom], 3) : null,
      surface: past ? known(water?.surface.fill[day - waterFrom], 3) : null,
      chill: past ? known(chill[day - season + LEAD_DAYS], 2) : null,
    })
    const range = normalRange(series, day, pastYears)
    normal.push(range ? { low: round(range.low, 2), high: round(range.high, 2) } : null)
  }
  const frosts = frostsOf(fillDays(series, season, until - 1), season, 0, until)
  const pastFrosts = pastYears.map((years) => frostsOf(series, seasonLater(season, years)))
  const sun = m.position && sunTimes(Math.min(today, end - 1), m.position, m.utcOffsetMinutes)
  return {
    days,
    normal,
    pastSeasons: pastYears.length,
    seasons: m.seasons,
    ahead: m.ahead && today < end ? spansAhead(m.ahead, today, place) : [],
    forecast:
      m.ahead && today < end ? { issuedAt: m.ahead.issuedAt, members: m.ahead.members.length, correctedFrom: m.ahead.correctedFrom } : null,
    soil: {
      source: probed ? 'probe' : 'estimated',
      texture,
      assumed: m.block?.soilTexture == null,
      unknownRainDays: water
        ? (water.root.unknownRain.at(-1) ?? 0) - (water.root.unknownRain[Math.max(0, season - waterFrom) - 1] ?? 0)
        : 0,
    },
    frost: {
      springKnown: frosts.springKnown,
      lastSpring: frosts.lastSpring === null ? null : civilDate(frosts.lastSpring),
      firstAutumn: frosts.firstAutumn === null ? null : civilDate(frosts.firstAutumn),
      risk: today < season + 196 && today >= season ? springFrostRisk(today, pastFrosts, season) : null,
      seasons: pastFrosts.filter(({ springKnown }) => springKnown).length,
    },
    usualChill: usualChill(temperatures, season, Math.min(today, end), pastYears),
    sun: sun ? { sunrise: sun.sunrise, sunset: sun.sunset, dayLength: sun.dayLength } : null,
  }
}

/** First days of the seasons of which a series knows anything. */
function seasonsOf(series: DailySeries, current: number, hemisphere: 'north' | 'south'): string[] {
  const seasons: string[] = []
  for (let start = seasonStart(series.firstDay, hemisphere); start < current; start = seasonLater(start, 1)) seasons.push(civilDate(start))
  return [...seasons, civilDate(current)]
}

/** A season of a station day by day, as it is at a block where one is named. */
export async function seasonDays(
  deps: Deps,
  siteId: string,
  stationId: string,
  { season, blockId }: ParsedInputOf<typeof weather.days>,
): Promise<SeasonDays> {
  const station = await getStation(deps.db, siteId, stationId)
  const site = await getSite(deps.db, deps.clock, siteId)
  const block = await blockOfQuery(deps, siteId, blockId)
  const firstDay = dayNumber(season)
  const hemisphere = hemisphereOf(site)
  if (seasonStart(firstDay, hemisphere) !== firstDay)
    throw fieldProblem('season', `must be the first day of a season, such as ${site.season.start}`)
  const place = await placeDays(deps, site, station, block)
  const position = stationPosition(station, site)
  const days = await deps.history.daysOf(deps.db, station, position)
  const now = await deps.clock.now(deps.db)
  const today = standardDay(now.getTime(), station.utcOffsetMinutes)
  const ahead = await daysAhead(deps, station, days, today)
  // What a late station has not sent of days that are over is made from what it did send.
  const series = completeLateDays(place.series, place.temperatures, firstOpenDay(place.series, today), today)
  const events = block ? (await listWetEvents(deps.db, siteId, civilDate(firstDay - 400))).filter((e) => e.blockId === block.id) : []
  const eventsKey = events.map(({ id, rowVersion }) => `${id}@${rowVersion}`).join()
  const key = `days ${place.keyBefore(today)} ${ahead?.key} ${season} ${today} ${block?.id}@${block?.rowVersion} ${eventsKey}`
  return deps.memo.get(key, () =>
    makeSeasonDays({
      place: { ...place, series },
      position,
      block,
      events,
      utcOffsetMinutes: station.utcOffsetMinutes,
      ahead,
      season: firstDay,
      today,
      seasons: place.series.min.length > 0 ? seasonsOf(place.series, dayNumber(site.season.start), hemisphere) : [site.season.start],
    }),
  )
}
