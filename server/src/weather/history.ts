import { dailyFromHours, dayNumber, withDailyExtremes, type DailySeries } from '@bocado/core'
import type { Queryable } from '../database/index.js'
import { readDays, readHours, type StoredStation } from './store.js'

export interface StationDays {
  series: DailySeries
  /** Rain in mm per day from hours, by day number; a day with a missing hour of rain has none. */
  rain: ReadonlyMap<number, number>
}

/** All years of a station as daily values, made once per version of its history. */
export class StationHistory {
  private readonly made = new Map<string, { version: number; days: Promise<StationDays> }>()

  async daysOf(db: Queryable, station: StoredStation): Promise<StationDays> {
    const known = this.made.get(station.id)
    if (known?.version === station.historyVersion) return known.days
    const days = makeDays(db, station)
    this.made.set(station.id, { version: station.historyVersion, days })
    days.catch(() => this.made.delete(station.id))
    return days
  }
}

async function makeDays(db: Queryable, station: StoredStation): Promise<StationDays> {
  const rows = await readHours(db, station.id)
  const typed = await readDays(db, station.id)
  const standardHour = (utcMinutes: number): number => Math.floor((utcMinutes + station.utcOffsetMinutes) / 60)
  const first = standardHour(rows[0]?.[0] ?? 0)
  const last = standardHour(rows.at(-1)?.[0] ?? 0)
  const tempsC = new Float64Array(rows.length === 0 ? 0 : last - first + 1).fill(NaN)
  const rainHours = new Map<number, { sum: number; hours: number }>()
  for (const [utcMinutes, temperature, rain] of rows) {
    const hour = standardHour(utcMinutes)
    if (temperature !== null) tempsC[hour - first] = temperature
    if (rain === null) continue
    const day = Math.floor(hour / 24)
    const sofar = rainHours.get(day)
    if (sofar) {
      sofar.sum += rain
      sofar.hours++
    } else rainHours.set(day, { sum: rain, hours: 1 })
  }
  const rain = new Map<number, number>()
  for (const [day, { sum, hours }] of rainHours) if (hours === 24) rain.set(day, sum)
  for (const day of typed) if (day.rain !== null && !rain.has(dayNumber(day.day))) rain.set(dayNumber(day.day), day.rain)
  const series = withDailyExtremes(
    dailyFromHours({ firstHour: first, tempsC }),
    typed.map(({ day, min, max }) => ({ day: dayNumber(day), min, max })),
  )
  return { series, rain }
}
