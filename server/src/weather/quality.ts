import { checkDrift, checkHours, fillHours, type Fault, type HourlySeries } from '@bocado/core'
import { sqlInstant, type Database, type Queryable } from '../database/index.js'
import { inTransaction } from '../http/transaction.js'
import { listFixes, storeFixes, type StoredFix } from './fixStore.js'
import { HOUR_VALUES, type HourVariable } from './readingStore.js'
import type { HourValues, RawHours } from './stationHours.js'
import { findStation, listStations, type StoredStation } from './store.js'

/** Hours of a station with what is believed of each: what is doubted lies over what was read. */
export interface StationHours extends HourValues {
  /** 1 where a temperature stands in for a reading. */
  filled: Uint8Array
}

/**
 * Lays what is believed over readings. A drift is a suspicion that a person has to share: until somebody accepts it the readings
 * stay in use.
 */
export function believed(raw: HourValues, fixes: readonly StoredFix[], utcOffsetMinutes: number): StationHours {
  const values = { ...raw.values }
  for (const variable of new Set(fixes.map((fix) => fix.variable))) values[variable] = raw.values[variable].slice()
  const filled = new Uint8Array(raw.length)
  for (const { minutes, variable, value, flag, decision } of fixes) {
    const i = Math.floor((minutes + utcOffsetMinutes) / 60) - raw.firstHour
    if (decision === 'overruled' || (flag === 'drift' && decision === 'open') || i < 0 || i >= raw.length) continue
    values[variable][i] = value ?? NaN
    if (variable === 'temperature' && value !== null) filled[i] = 1
  }
  return { firstHour: raw.firstHour, length: raw.length, values, filled }
}

/** Where the readings of any station come from. */
export type RawOf = (db: Queryable, station: StoredStation) => Promise<RawHours>

/** Series of a variable of the other stations, with everything doubted left out: they fill, so they must not be filled. */
async function neighboursOf(db: Queryable, station: StoredStation, rawOf: RawOf): Promise<Record<HourVariable, HourlySeries[]>> {
  const result: Record<HourVariable, HourlySeries[]> = { temperature: [], humidity: [], rain: [], wind: [], wetness: [], soil: [] }
  for (const other of await listStations(db, station.siteId)) {
    if (other.id === station.id || other.underCover !== station.underCover) continue
    const hours = await rawOf(db, other)
    if (hours.length === 0) continue
    for (const variable of HOUR_VALUES) {
      const values = hours.values[variable].slice()
      for (const { hour } of checkHours(values, variable)) values[hour] = NaN
      result[variable].push({ firstHour: hours.firstHour, values })
    }
  }
  return result
}

/** Hours of the days on which a sensor runs away from its neighbours. */
function driftFaults(
  series: HourlySeries,
  faults: readonly Fault[],
  variable: HourVariable,
  neighbours: readonly HourlySeries[],
  trusted: ReadonlySet<number>,
): Fault[] {
  if (variable !== 'temperature' && variable !== 'humidity') return []
  const doubted = new Set(faults.map(({ hour }) => hour))
  const values = series.values.slice()
  for (const hour of doubted) values[hour] = NaN
  const drift = checkDrift({ firstHour: series.firstHour, values }, neighbours, variable, trusted)
  return (drift?.days ?? [])
    .flatMap((day) => Array.from({ length: 24 }, (_, h): Fault => ({ hour: day * 24 + h - series.firstHour, flag: 'drift' })))
    .filter(({ hour }) => hour >= 0 && hour < values.length && !Number.isNaN(values[hour]) && !doubted.has(hour))
}

/**
 * Checks the readings of a station and fills what is doubted, if its history has changed since they were checked last; only what
 * then differs is written. A server that died in between only leaves the check to whoever asks next.
 */
export async function checkStation(database: Database, station: StoredStation, rawOf: RawOf): Promise<void> {
  if (station.checkedVersion === station.historyVersion) return
  await inTransaction(database, async (tx) => {
    await tx.query('SELECT id FROM station WHERE id = ? FOR UPDATE', [station.id])
    const now = await findStation(tx, station.siteId, station.id)
    if (!now || now.checkedVersion === now.historyVersion) return
    const hours = await rawOf(tx, now)
    const before = await listFixes(tx, station.id)
    const minutesOf = (hour: number): number => (hours.firstHour + hour) * 60 - now.utcOffsetMinutes
    const overruled = new Set(before.filter(({ decision }) => decision === 'overruled').map((fix) => `${fix.variable} ${fix.minutes}`))
    const neighbours = await neighboursOf(tx, now, rawOf)
    const fixes = HOUR_VALUES.flatMap((variable) => {
      const series = { firstHour: hours.firstHour, values: hours.values[variable] }
      const isDoubted = ({ hour }: Fault): boolean => !overruled.has(`${variable} ${minutesOf(hour)}`)
      const faults = checkHours(series.values, variable).filter(isDoubted)
      const believedDays = new Set(
        before
          .filter((fix) => fix.variable === variable && fix.decision === 'overruled' && fix.flag === 'drift')
          .map(({ minutes }) => Math.floor((minutes + now.utcOffsetMinutes) / 1440)),
      )
      const drifting = driftFaults(series, faults, variable, neighbours[variable], believedDays).filter(isDoubted)
      const all = [...faults, ...drifting].sort((a, b) => a.hour - b.hour)
      return fillHours(series, all, variable, neighbours[variable]).map(({ hour, flag, value, method }) => ({
        minutes: minutesOf(hour),
        at: sqlInstant(new Date(minutesOf(hour) * 60_000)),
        variable,
        flag,
        value: Number.isNaN(value) ? null : value,
        method,
        decision: 'open' as const,
      }))
    })
    await storeFixes(tx, now, before, fixes)
  })
}
