import { checkHours, fillHours, type HourlySeries } from '@bocado/core'
import { sqlInstant, type Database, type Queryable } from '../database/index.js'
import { inTransaction } from '../http/transaction.js'
import { listFixes, replaceFixes, type StoredFix } from './fixStore.js'
import { HOUR_VALUES, readHours, type HourRow, type HourVariable } from './readingStore.js'
import { findStation, listStations, type StoredStation } from './store.js'

/** Hours of a station by variable, in its standard time; what is doubted lies over what was read. */
export interface StationHours {
  firstHour: number
  values: Record<HourVariable, Float64Array>
  /** 1 where a temperature stands in for a reading. */
  filled: Uint8Array
}

const standardHour = (minutes: number, station: StoredStation): number => Math.floor((minutes + station.utcOffsetMinutes) / 60)

/** The readings as they came. */
function rawHours(rows: readonly HourRow[], station: StoredStation): StationHours {
  const firstHour = standardHour(rows[0]?.[0] ?? 0, station)
  const length = rows.length === 0 ? 0 : standardHour(rows.at(-1)?.[0] ?? 0, station) - firstHour + 1
  const empty = (): Float64Array => new Float64Array(length).fill(NaN)
  const values = { temperature: empty(), humidity: empty(), rain: empty(), wind: empty() }
  for (const row of rows) {
    const i = standardHour(row[0], station) - firstHour
    HOUR_VALUES.forEach((variable, v) => {
      const value = row[v + 1]
      if (value !== null && value !== undefined) values[variable][i] = value
    })
  }
  return { firstHour, values, filled: new Uint8Array(length) }
}

function lay(fixes: readonly StoredFix[], hours: StationHours, station: StoredStation): StationHours {
  for (const { minutes, variable, value, decision } of fixes) {
    const i = standardHour(minutes, station) - hours.firstHour
    if (decision === 'overruled' || i < 0 || i >= hours.filled.length) continue
    hours.values[variable][i] = value ?? NaN
    if (variable === 'temperature' && value !== null) hours.filled[i] = 1
  }
  return hours
}

/** All hours of a station with what is believed of them. */
export async function believedHours(db: Queryable, station: StoredStation): Promise<StationHours> {
  const hours = rawHours(await readHours(db, station.id), station)
  return lay(await listFixes(db, station.id), hours, station)
}

/** Series of a variable of the other stations, with everything doubted left out: they fill, so they must not be filled. */
async function neighboursOf(db: Queryable, station: StoredStation): Promise<Record<HourVariable, HourlySeries[]>> {
  const result: Record<HourVariable, HourlySeries[]> = { temperature: [], humidity: [], rain: [], wind: [] }
  for (const other of await listStations(db, station.siteId)) {
    if (other.id === station.id) continue
    const hours = rawHours(await readHours(db, other.id), other)
    if (hours.filled.length === 0) continue
    for (const variable of HOUR_VALUES) {
      for (const { hour } of checkHours(hours.values[variable], variable)) hours.values[variable][hour] = NaN
      result[variable].push({ firstHour: hours.firstHour, values: hours.values[variable] })
    }
  }
  return result
}

/**
 * Checks the readings of a station and fills what is doubted, if its history has changed since they were checked last. A
 * server that died in between only leaves the check to whoever asks next.
 */
export async function checkStation(database: Database, station: StoredStation): Promise<void> {
  if (station.checkedVersion === station.historyVersion) return
  await inTransaction(database, async (tx) => {
    await tx.query('SELECT id FROM station WHERE id = ? FOR UPDATE', [station.id])
    const now = await findStation(tx, station.siteId, station.id)
    if (!now || now.checkedVersion === now.historyVersion) return
    const hours = rawHours(await readHours(tx, station.id), now)
    const overruled = new Set(
      (await listFixes(tx, station.id)).filter(({ decision }) => decision === 'overruled').map((fix) => `${fix.variable} ${fix.minutes}`),
    )
    const neighbours = await neighboursOf(tx, now)
    const fixes = HOUR_VALUES.flatMap((variable) => {
      const minutesOf = (hour: number): number => (hours.firstHour + hour) * 60 - now.utcOffsetMinutes
      const faults = checkHours(hours.values[variable], variable).filter(({ hour }) => !overruled.has(`${variable} ${minutesOf(hour)}`))
      const filled = fillHours({ firstHour: hours.firstHour, values: hours.values[variable] }, faults, variable, neighbours[variable])
      return filled.map(({ hour, flag, value, method }) => ({
        minutes: minutesOf(hour),
        at: sqlInstant(new Date(minutesOf(hour) * 60_000)),
        variable,
        flag,
        value: Number.isNaN(value) ? null : value,
        method,
        decision: 'open' as const,
      }))
    })
    await replaceFixes(tx, now, fixes)
  })
}
