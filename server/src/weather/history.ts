import {
  dailyFromHours,
  dayNumber,
  hasDay,
  hoursFromExtremes,
  withDailyExtremes,
  type DailySeries,
  type HourlySeries,
  type Position,
} from '@bocado/core'
import type { Database, Queryable } from '../database/index.js'
import { listFixes } from './fixStore.js'
import { believed, checkStation, type StationHours } from './quality.js'
import { readDays } from './readingStore.js'
import { rawHours, type RawHours } from './stationHours.js'
import { findStation, type StoredStation } from './store.js'

export interface StationDays {
  series: DailySeries
  /** Rain in mm per day, by day number; a day with an unknown hour of rain has none. */
  rain: ReadonlyMap<number, number>
  /** The hours behind them, with what is believed of each. */
  hours: StationHours
  /**
   * Hourly temperatures without a gap where the days allow it: days of which only extremes are known, read or typed, have hours
   * made from these. `made` marks them.
   */
  temperatures: HourlySeries & { made: Uint8Array }
  typedDays: number
}

interface Memory {
  raw: RawHours | undefined
  version: number
  made: string
  days: Promise<StationDays> | undefined
}

/**
 * All years of the stations, as hours and as daily values, held in memory and kept at the version of their history. A new reading
 * only fetches the hours that changed.
 */
export class StationHistory {
  private readonly memories = new Map<string, Memory>()
  /** One station is refreshed by one at a time: two would fetch the same. */
  private readonly turns = new Map<string, Promise<unknown>>()

  async daysOf(database: Database, station: StoredStation, place: Position | undefined): Promise<StationDays> {
    const memory = this.memoryOf(station.id)
    const made = `${station.utcOffsetMinutes} ${place?.latitude} ${place?.longitude}`
    if (memory.days && memory.version === station.historyVersion && memory.made === made) return memory.days
    const days = this.makeDays(database, station, place)
    Object.assign(memory, { version: station.historyVersion, made, days })
    days.catch(() => (memory.days = undefined))
    return days
  }

  private memoryOf(stationId: string): Memory {
    const known = this.memories.get(stationId)
    if (known) return known
    const memory: Memory = { raw: undefined, version: -1, made: '', days: undefined }
    this.memories.set(stationId, memory)
    return memory
  }

  private rawOf = async (db: Queryable, station: StoredStation): Promise<RawHours> => {
    const turn = (this.turns.get(station.id) ?? Promise.resolve()).then(async () => {
      const memory = this.memoryOf(station.id)
      // Somebody asked later and was served earlier: their readings are newer than the ones asked for here.
      if (memory.raw && memory.raw.version > station.historyVersion && memory.raw.utcOffsetMinutes === station.utcOffsetMinutes)
        return memory.raw
      memory.raw = await rawHours(db, station, memory.raw)
      return memory.raw
    })
    this.turns.set(
      station.id,
      turn.catch(() => undefined),
    )
    return turn
  }

  private async makeDays(database: Database, station: StoredStation, place: Position | undefined): Promise<StationDays> {
    await checkStation(database, station, this.rawOf)
    const checked = (await findStation(database, station.siteId, station.id)) ?? station
    const raw = await this.rawOf(database, checked)
    const hours = believed(raw, await listFixes(database, station.id), checked.utcOffsetMinutes)
    const typed = await readDays(database, station.id)
    const series = withDailyExtremes(
      dailyFromHours({ firstHour: hours.firstHour, tempsC: hours.values.temperature, filled: hours.filled }),
      typed.map(({ day, min, max }) => ({ day: dayNumber(day), min, max })),
    )
    const rain = dailyRain(hours)
    for (const { day, rain: mm } of typed) if (mm !== null && !rain.has(dayNumber(day))) rain.set(dayNumber(day), mm)
    const temperatures = withMadeHours(hours, series, place, checked.utcOffsetMinutes)
    return { series, rain, hours, temperatures, typedDays: typed.length }
  }
}

function dailyRain({ firstHour, length, values }: StationHours): Map<number, number> {
  const rain = new Map<number, number>()
  for (let i = (24 - (((firstHour % 24) + 24) % 24)) % 24; i + 24 <= length; i += 24) {
    let sum = 0
    for (let k = i; k < i + 24; k++) sum += values.rain[k] as number
    if (!Number.isNaN(sum)) rain.set((firstHour + i) / 24, sum)
  }
  return rain
}

/** Hours read, and hours made from extremes for the runs of days that have no hours of their own. */
function withMadeHours(
  hours: StationHours,
  series: DailySeries,
  place: Position | undefined,
  utcOffsetMinutes: number,
): StationDays['temperatures'] {
  const read = hours.values.temperature
  if (!place || series.min.length === 0) return { firstHour: hours.firstHour, values: read, made: new Uint8Array(read.length) }
  const firstHour = series.firstDay * 24
  const values = new Float64Array(series.min.length * 24).fill(NaN)
  const made = new Uint8Array(values.length)
  for (let i = 0; i < read.length; i++) {
    const k = hours.firstHour + i - firstHour
    if (k >= 0 && k < values.length) values[k] = read[i] as number
  }
  const withoutHours = (d: number): boolean => {
    if (!hasDay(series, series.firstDay + d)) return false
    for (let k = d * 24; k < d * 24 + 24; k++) if (!Number.isNaN(values[k])) return false
    return true
  }
  for (let d = 0; d < series.min.length; d++) {
    let end = d
    while (end < series.min.length && withoutHours(end)) end++
    if (end === d) continue
    const days = Array.from({ length: end - d }, (_, i) => ({ min: series.min[d + i] as number, max: series.max[d + i] as number }))
    values.set(hoursFromExtremes(days, series.firstDay + d, place, utcOffsetMinutes), d * 24)
    made.fill(1, d * 24, end * 24)
    d = end
  }
  return { firstHour, values, made }
}
