import { dailyFromHours, dayNumber, withDailyExtremes, type DailySeries } from '@bocado/core'
import type { Database } from '../database/index.js'
import { believedHours, checkStation, type StationHours } from './quality.js'
import { readDays } from './readingStore.js'
import { findStation, type StoredStation } from './store.js'

export interface StationDays {
  series: DailySeries
  /** Rain in mm per day, by day number; a day with an unknown hour of rain has none. */
  rain: ReadonlyMap<number, number>
  /** The hours behind them, with what is believed of each. */
  hours: StationHours
}

/** All years of a station as daily values, made once per version of its history. */
export class StationHistory {
  private readonly made = new Map<string, { version: number; days: Promise<StationDays> }>()

  async daysOf(database: Database, station: StoredStation): Promise<StationDays> {
    const known = this.made.get(station.id)
    if (known?.version === station.historyVersion) return known.days
    const days = makeDays(database, station)
    this.made.set(station.id, { version: station.historyVersion, days })
    days.catch(() => this.made.delete(station.id))
    return days
  }
}

async function makeDays(database: Database, station: StoredStation): Promise<StationDays> {
  await checkStation(database, station)
  const checked = (await findStation(database, station.siteId, station.id)) ?? station
  const hours = await believedHours(database, checked)
  const typed = await readDays(database, station.id)
  const series = withDailyExtremes(
    dailyFromHours({ firstHour: hours.firstHour, tempsC: hours.values.temperature, filled: hours.filled }),
    typed.map(({ day, min, max }) => ({ day: dayNumber(day), min, max })),
  )
  const rain = dailyRain(hours)
  for (const { day, rain: mm } of typed) if (mm !== null && !rain.has(dayNumber(day))) rain.set(dayNumber(day), mm)
  return { series, rain, hours }
}

function dailyRain({ firstHour, values }: StationHours): Map<number, number> {
  const rain = new Map<number, number>()
  for (let i = (24 - (((firstHour % 24) + 24) % 24)) % 24; i + 24 <= values.rain.length; i += 24) {
    const sum = values.rain.subarray(i, i + 24).reduce((a, b) => a + b, 0)
    if (!Number.isNaN(sum)) rain.set((firstHour + i) / 24, sum)
  }
  return rain
}
