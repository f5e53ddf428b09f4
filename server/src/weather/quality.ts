import {
  checkDrift,
  checkHours,
  dailyMeans,
  fillHours,
  type Drift,
  type Doubt,
  type HourlySeries,
  instantOfHour,
  MS_PER_MINUTE,
  standardDay,
  standardHour,
  unseenDays,
} from '@bocado/core'
import { LRUCache } from 'lru-cache'
import type { Queryable, Transaction } from '../database/index.js'
import { ContentSum } from './contentKey.js'
import { differenceOf, fixKey, listFixes, storeFixes, type StoredFix } from './fixStore.js'
import { HOUR_VALUES, type HourVariable } from './readingStore.js'
import { isNothing, type HourValues, type RawHours } from './stationHours.js'
import { listStations, markChecked, type StoredStation } from './store.js'

/** Hours of a station with what is believed of each: what is doubted lies over what was read. */
export interface StationHours extends HourValues {
  /** 1 where a temperature stands in for a reading. */
  filled: Uint8Array
}

/**
 * Lays what is believed over readings. A drift is a suspicion that a person has to share: until somebody accepts it the readings
 * stay in use.
 */
export function believed(
  raw: HourValues & Partial<Pick<RawHours, 'byHand'>>,
  fixes: readonly StoredFix[],
  utcOffsetMinutes: number,
): StationHours {
  const { byHand } = raw
  const values = { ...raw.values }
  for (const variable of new Set(fixes.map((fix) => fix.variable))) values[variable] = raw.values[variable].slice()
  const filled = new Uint8Array(raw.length)
  for (const { minutes, variable, value, flag, decision } of fixes) {
    const i = standardHour(minutes * MS_PER_MINUTE, utcOffsetMinutes) - raw.firstHour
    if (byHand?.get(variable)?.has(raw.firstHour + i)) continue
    if (decision === 'overruled' || (flag === 'drift' && decision === 'open') || i < 0 || i >= raw.length) continue
    values[variable][i] = value ?? NaN
    if (variable === 'temperature' && value !== null) filled[i] = 1
  }
  return { firstHour: raw.firstHour, length: raw.length, values, filled }
}

/** Where the readings of any station come from. */
export type RawOf = (db: Queryable, station: StoredStation) => Promise<RawHours>

/** What a check of single hours says of readings; they are never changed in place, so it holds as long as they do. */
const checked = new WeakMap<RawHours, Partial<Record<HourVariable, { doubts: Doubt[]; believed: HourlySeries }>>>()

/** Doubts of a variable, and its series with the doubted hours left out. */
function checkedSeries(hours: RawHours, variable: HourVariable): { doubts: Doubt[]; believed: HourlySeries } {
  const known = checked.get(hours) ?? {}
  checked.set(hours, known)
  return (known[variable] ??= checkSeries(hours, variable))
}

const HOURS_PER_DAY = 24

/** No doubt reaches further back than this: the longest gap that is one is shorter. */
const REACH_HOURS = 400

/** Doubts where only the last hours differ from readings that were checked: the earlier ones are those that were found then. */
function doubtsSince({ since, values, firstHour }: RawHours, variable: HourVariable): Doubt[] | undefined {
  const before = since && checked.get(since.raw)?.[variable]
  if (!before || since.raw.firstHour !== firstHour || isNothing(since.raw.values[variable])) return undefined
  const from = since.firstHour - firstHour - REACH_HOURS
  const start = from - REACH_HOURS
  if (start < 0) return undefined
  const late = checkHours(values[variable].subarray(start), variable).map(({ hour, flag }) => ({ hour: hour + start, flag }))
  return [...before.doubts.filter(({ hour }) => hour < from), ...late.filter(({ hour }) => hour >= from)]
}

/**
 * Doubts with the hours of days such as the place has never had.
 *
 * @param from day number; of earlier days they were found before
 */
function withUnseen({ firstHour, values }: RawHours, doubts: readonly Doubt[], from: number): Doubt[] {
  const doubted = new Set(doubts.map(({ hour }) => hour))
  const read = doubted.size > 0 ? values.temperature.slice() : values.temperature
  // What stands out by the hour alone is no weather, and says nothing of its day.
  for (const { hour, flag } of doubts) if (flag !== 'unseen') read[hour] = NaN
  const more = unseenDays({ firstHour, values: read }, from)
    .flatMap((day) =>
      Array.from({ length: HOURS_PER_DAY }, (_, h): Doubt => ({ hour: day * HOURS_PER_DAY + h - firstHour, flag: 'unseen' })),
    )
    .filter(({ hour }) => !doubted.has(hour) && !Number.isNaN(read[hour]))
  return more.length === 0 ? [...doubts] : [...doubts, ...more].sort((a, b) => a.hour - b.hour)
}

function checkSeries(hours: RawHours, variable: HourVariable): { doubts: Doubt[]; believed: HourlySeries } {
  const read = hours.values[variable]
  const byHand = hours.byHand.get(variable)
  const later = isNothing(read) ? [] : doubtsSince(hours, variable)
  const single = later ?? checkHours(read, variable)
  const from = later && hours.since ? Math.floor((hours.since.firstHour - REACH_HOURS) / HOURS_PER_DAY) : -Infinity
  const all = variable === 'temperature' && !isNothing(read) ? withUnseen(hours, single, from) : single
  const doubts = byHand ? all.filter(({ hour }) => !byHand.has(hours.firstHour + hour)) : all
  const values = doubts.length > 0 ? read.slice() : read
  for (const { hour } of doubts) values[hour] = NaN
  return { doubts, believed: { firstHour: hours.firstHour, values } }
}

/** Series of a variable of the other stations, with everything doubted left out: they fill, so they must not be filled. */
async function neighboursOf(db: Queryable, station: StoredStation, rawOf: RawOf): Promise<Record<HourVariable, HourlySeries[]>> {
  const result: Record<HourVariable, HourlySeries[]> = {
    temperature: [],
    humidity: [],
    rain: [],
    wind: [],
    wetness: [],
    soil: [],
    direction: [],
  }
  for (const other of await listStations(db, station.siteId)) {
    if (other.id === station.id || other.underCover !== station.underCover) continue
    const hours = await rawOf(db, other)
    if (hours.length === 0) continue
    for (const variable of HOUR_VALUES)
      if (!isNothing(hours.values[variable])) result[variable].push(checkedSeries(hours, variable).believed)
  }
  return result
}

/** Drift is a matter of days: a new hour changes none of it until its day is nearly over. */
const drifts = new LRUCache<string, { drift: Drift | undefined }>({ max: 500 })

const sums = new WeakMap<ReadonlyMap<number, number>, string>()

function sumOf(means: ReadonlyMap<number, number>): string {
  const known = sums.get(means) ?? new ContentSum().numbers(Float64Array.from([...means].flat())).text
  sums.set(means, known)
  return known
}

function knownDrift(
  series: HourlySeries,
  neighbours: readonly HourlySeries[],
  variable: 'temperature' | 'humidity',
  trusted: ReadonlySet<number>,
): Drift | undefined {
  const key = [variable, ...[series, ...neighbours].map((one) => sumOf(dailyMeans(one))), ...trusted].join(' ')
  const known = drifts.get(key) ?? { drift: checkDrift(series, neighbours, variable, trusted) }
  drifts.set(key, known)
  return known.drift
}

/** Hours of the days on which a sensor runs away from its neighbours. */
function driftDoubts(
  series: HourlySeries,
  doubts: readonly Doubt[],
  variable: HourVariable,
  neighbours: readonly HourlySeries[],
  trusted: ReadonlySet<number>,
): Doubt[] {
  if (variable !== 'temperature' && variable !== 'humidity') return []
  const doubted = new Set(doubts.map(({ hour }) => hour))
  const values = doubted.size > 0 ? series.values.slice() : series.values
  for (const hour of doubted) values[hour] = NaN
  const drift = knownDrift({ firstHour: series.firstHour, values }, neighbours, variable, trusted)
  return (drift?.days ?? [])
    .flatMap((day) => Array.from({ length: 24 }, (_, h): Doubt => ({ hour: day * 24 + h - series.firstHour, flag: 'drift' })))
    .filter(({ hour }) => hour >= 0 && hour < values.length && !Number.isNaN(values[hour]) && !doubted.has(hour))
}

/** A check of a station: what was believed of it before, and what its readings and those of its neighbours now say. */
export interface StationCheck {
  before: StoredFix[]
  found: StoredFix[]
}

/**
 * Checks the readings of a station and fills what is doubted. It stores nothing: what was found lies over the readings of whoever asks,
 * and is kept by `tendStations` soon after.
 */
export async function checkedStation(db: Queryable, station: StoredStation, rawOf: RawOf): Promise<StationCheck> {
  const hours = await rawOf(db, station)
  const before = await listFixes(db, station.id)
  const minutesOf = (hour: number): number => instantOfHour(hours.firstHour + hour, station.utcOffsetMinutes) / MS_PER_MINUTE
  const overruled = new Set(before.filter(({ decision }) => decision === 'overruled').map(fixKey))
  const accepted = new Set(before.filter(({ decision }) => decision === 'accepted').map(fixKey))
  const neighbours = await neighboursOf(db, station, rawOf)
  const fixes = HOUR_VALUES.flatMap((variable) => {
    const series = { firstHour: hours.firstHour, values: hours.values[variable] }
    const isDoubted = ({ hour }: Doubt): boolean =>
      !overruled.has(fixKey({ variable, minutes: minutesOf(hour) })) && !hours.byHand.get(variable)?.has(hours.firstHour + hour)
    const doubts = checkedSeries(hours, variable).doubts.filter(isDoubted)
    const believedDays = new Set(
      before
        .filter((fix) => fix.variable === variable && fix.decision === 'overruled' && fix.flag === 'drift')
        .map(({ minutes }) => standardDay(minutes * MS_PER_MINUTE, station.utcOffsetMinutes)),
    )
    const drifting = driftDoubts(series, doubts, variable, neighbours[variable], believedDays).filter(isDoubted)
    const all = [...doubts, ...drifting].sort((a, b) => a.hour - b.hour)
    return fillHours(series, all, variable, neighbours[variable]).map(({ hour, flag, value, method }): StoredFix => {
      const minutes = minutesOf(hour)
      return {
        minutes,
        variable,
        flag,
        value: Number.isNaN(value) ? null : value,
        method,
        decision: accepted.has(fixKey({ variable, minutes })) ? 'accepted' : 'open',
      }
    })
  })
  hours.since = undefined
  return { before, found: [...before.filter(({ decision }) => decision === 'overruled'), ...fixes] }
}

/** Keeps what a check of a station found. The station has to be locked by the writer. */
export async function keepCheck(tx: Transaction, station: StoredStation, { before, found }: StationCheck): Promise<void> {
  await storeFixes(tx, station, differenceOf(before, found))
  await markChecked(tx, station.id)
}
