import type { HourWeather, ParsedInputOf, ResponseOf, treatments, weather } from '@bocado/contract'
import {
  arcAround,
  dayNumber,
  deltaT,
  dewPoint,
  isOnArc,
  meanDirection,
  MS_PER_MINUTE,
  offsetHours,
  quantileSorted,
  standardDay,
  sunTimes,
  vapourPressureDeficit,
  wetHoursAt,
  windAtTwoMetres,
  standardHour,
} from '@bocado/core'
import { listWetEvents, wettingsOf } from '../blocks/wetEvents.js'
import { hoursAhead, type HourAhead } from '../forecasts/service.js'
import type { Queryable } from '../database/index.js'
import type { Deps } from '../http/route.js'
import { getSite } from '../sites/service.js'
import { readingsBetween } from './corrections.js'
import { listCorrections } from './correctionStore.js'
import { doubtedBetween, type DoubtedReading } from './doubted.js'
import { placeDays, stationPosition } from './place.js'
import { blockOfQuery } from './seasonDays.js'
import { getStation } from './stations.js'
import type { StoredStation } from './store.js'

type DayHours = ResponseOf<typeof weather.hours>

const known = (value: number | undefined, digits: number): number | null =>
  value === undefined || Number.isNaN(value) ? null : Number(value.toFixed(digits))

const median = (values: readonly number[]): number | undefined =>
  values.length === 0 ? undefined : quantileSorted(Float64Array.from(values).sort(), 0.5)

/** Wind at 2 m; as it was read where nobody has said at what height. */
export const windAt2m = (windMs: number | undefined, heightM: number | null): number | undefined =>
  windMs === undefined || Number.isNaN(windMs) || heightM === null ? windMs : windAtTwoMetres(windMs, heightM)

/** What follows from temperature and humidity of an hour. */
function air(temperature: number | undefined, humidity: number | undefined): Pick<HourWeather, 'dewPoint' | 'vpd' | 'deltaT'> {
  if (temperature === undefined || humidity === undefined || Number.isNaN(temperature) || Number.isNaN(humidity))
    return { dewPoint: null, vpd: null, deltaT: null }
  const rh = Math.min(100, Math.max(0, humidity))
  return {
    dewPoint: known(dewPoint(temperature, rh), 1),
    vpd: known(vapourPressureDeficit(temperature, rh), 2),
    deltaT: known(deltaT(temperature, rh), 1),
  }
}

/** Where the wind of a forecast comes from, where most of its members have it from about there; null where they differ. */
function agreedDirection({ directions, speeds }: HourAhead): number | null {
  const mean = meanDirection(directions, speeds)
  const given = directions.filter((d) => !Number.isNaN(d))
  const near = given.filter((d) => isOnArc(d, arcAround([mean], AGREED_WITHIN)))
  return Number.isNaN(mean) || near.length * 2 < given.length ? null : known(mean, 0)
}
/** Degrees on either side within which members are taken to agree. */
const AGREED_WITHIN = 45

function forecastHour(hour: number, ahead: HourAhead): HourWeather {
  const temperature = median(ahead.temperature)
  const humidity = median(ahead.humidity)
  return {
    hour,
    temperature: known(temperature, 1),
    low: known(ahead.temperature.length > 0 ? Math.min(...ahead.temperature) : undefined, 1),
    high: known(ahead.temperature.length > 0 ? Math.max(...ahead.temperature) : undefined, 1),
    humidity: known(humidity, 0),
    rain: known(median(ahead.rain), 1),
    wind: known(median(ahead.wind), 1),
    direction: agreedDirection(ahead),
    ...air(temperature, humidity),
    wet: null,
    soil: null,
    doubts: [],
  }
}

/** The hours of a day: what was read and is believed, later ones from the forecast, or made from the day's extremes. */
export async function dayHours(
  deps: Deps,
  siteId: string,
  stationId: string,
  { day: date, blockId }: ParsedInputOf<typeof weather.hours>,
): Promise<DayHours> {
  const { db } = deps
  const station = await getStation(db, siteId, stationId)
  const site = await getSite(db, deps.clock, siteId)
  const block = await blockOfQuery(deps, siteId, blockId)
  const place = await placeDays(deps, site, station, block)
  const day = dayNumber(date)
  const today = standardDay((await deps.clock.now(db)).getTime(), station.utcOffsetMinutes)
  const position = stationPosition(station, site)
  const { hours, temperatures } = place
  const events = block ? (await listWetEvents(db, siteId, date)).filter((event) => event.blockId === block.id) : []
  const watered = wettingsOf(events, station.utcOffsetMinutes)
  const wet = wetHoursAt(place, watered)
  // A watering is known also of hours that the station has not sent yet.
  const wasWatered = (hour: number): boolean => watered.some(({ from, until }) => hour + 1 > from && hour < until)
  const stationDays = await deps.history.daysOf(db, station, position)
  const doubted = doubtedBetween(stationDays, station.utcOffsetMinutes, day * 24, day * 24 + 24)
  const issued = day >= today && day < today + 14 ? await hoursAhead(deps, station, stationDays, day) : undefined
  const ahead = issued && shifted(issued, day, place.offset)

  const typed = stationDays.typed.find((one) => one.day === date)
  let source: DayHours['source'] = 'none'
  const result = Array.from({ length: 24 }, (_, hour): HourWeather => {
    const i = day * 24 + hour - hours.firstHour
    const k = day * 24 + hour - temperatures.firstHour
    const at = (variable: keyof typeof hours.values): number | undefined =>
      i >= 0 && i < hours.length ? hours.values[variable][i] : undefined
    const temperature = k >= 0 ? temperatures.values[k] : undefined
    const read = [temperature, at('humidity'), at('rain'), at('wind')].some((value) => value !== undefined && !Number.isNaN(value))
    const coming = ahead?.[hour]
    if (!read && coming) {
      if (source === 'none') source = 'forecast'
      return { ...forecastHour(hour, coming), ...(wasWatered(day * 24 + hour) ? { wet: true } : {}) }
    }
    if (read) source = temperatures.made[k] === 1 ? (typed ? 'typed' : 'extremes') : 'read'
    const isWet = i >= 0 && i < wet.length ? (wet[i] as number) : wasWatered(day * 24 + hour) ? 1 : NaN
    return {
      hour,
      temperature: known(temperature, 1),
      low: null,
      high: null,
      humidity: known(at('humidity'), 0),
      rain: known(at('rain'), 1),
      wind: known(windAt2m(at('wind'), station.sensorHeightM), 1),
      direction: known(at('direction'), 0),
      ...air(temperature, at('humidity')),
      wet: Number.isNaN(isWet) ? null : isWet === 1,
      soil: known(at('soil'), 1),
      doubts: doubted.filter((doubt) => doubt.hour === day * 24 + hour).map(asDoubt),
    }
  })
  const sun = position ? sunTimes(day, position, station.utcOffsetMinutes) : undefined
  return {
    source,
    sun: sun ? { sunrise: sun.sunrise, sunset: sun.sunset, dawn: sun.dawn, dusk: sun.dusk } : null,
    hours: result,
    typed: typed ? { min: typed.min, max: typed.max, rain: typed.rain, by: typed.by } : null,
    byHand: await hoursByHand(db, station, day),
  }
}

/** Single hours of a day that somebody put right, and what was read in them. */
async function hoursByHand(db: Queryable, station: StoredStation, day: number): Promise<DayHours['byHand']> {
  const corrections = await listCorrections(db, station.id)
  const ofDay = corrections.flatMap(({ kind, variable, value, fromMinutes, note, by, id, rowVersion }) => {
    const hour = standardHour(fromMinutes * MS_PER_MINUTE, station.utcOffsetMinutes) - day * 24
    return kind === 'value' && variable !== null && value !== null && hour >= 0 && hour < 24
      ? [{ minutes: fromMinutes, row: { hour, variable, value, note, by, id, rowVersion } }]
      : []
  })
  const [first] = ofDay
  if (!first) return []
  const minutes = ofDay.map((one) => one.minutes)
  const readingOf = await readingsBetween(db, station.id, Math.min(...minutes), Math.max(...minutes), corrections)
  return ofDay.map((one) => ({ ...one.row, read: readingOf(one.row.variable, one.minutes) ?? null })).sort((a, b) => a.hour - b.hour)
}

/** The members of a forecast as they are at a place. */
function shifted(ahead: readonly HourAhead[], day: number, offset: { min: number; max: number }): HourAhead[] {
  const members = ahead[0]?.temperature.length ?? 0
  const moved = Array.from({ length: members }, (_, m) =>
    offsetHours(
      day * 24,
      Float64Array.from(ahead, (hour) => hour.temperature[m] ?? NaN),
      offset,
    ),
  )
  return ahead.map((hour, h) => ({
    ...hour,
    temperature: moved.map((member) => member[h] as number).filter((value) => !Number.isNaN(value)),
  }))
}

function asDoubt({ variable, flag, reading, value, decision }: DoubtedReading): HourWeather['doubts'][number] {
  const inUse = decision === 'overruled' || (flag === 'drift' && decision === 'open') ? reading : value
  return { variable, flag, read: known(reading ?? undefined, 2), inUse: known(inUse ?? undefined, 2) }
}

/** What is believed of the hour of a moment, for the record of a treatment; wind at 2 m. */
export async function weatherAt(
  deps: Deps,
  siteId: string,
  blockId: string,
  moment: string,
  stationId: string | undefined,
): Promise<ResponseOf<typeof treatments.weatherAt>> {
  if (stationId === undefined) return { tempC: null, humidityPct: null, windMs: null, windFrom: null }
  const station = await getStation(deps.db, siteId, stationId)
  const site = await getSite(deps.db, deps.clock, siteId)
  const { hours, temperatures } = await placeDays(deps, site, station, await blockOfQuery(deps, siteId, blockId))
  const hour = standardHour(Date.parse(moment), station.utcOffsetMinutes)
  const i = hour - hours.firstHour
  const k = hour - temperatures.firstHour
  return {
    tempC: known(temperatures.made[k] === 1 ? undefined : temperatures.values[k], 2),
    humidityPct: known(hours.values.humidity[i], 0),
    windMs: known(windAt2m(hours.values.wind[i], station.sensorHeightM), 1),
    windFrom: known(hours.values.direction[i], 0),
  }
}
