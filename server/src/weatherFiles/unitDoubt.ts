import type { WeatherMapping, WeatherVariable } from '@bocado/contract'
import {
  doubtedTemperatureUnit,
  monthDay,
  MS_PER_DAY,
  type Hemisphere,
  type MonthOfReadings,
  type TemperatureUnit,
  type UnitDoubt,
} from '@bocado/core'
import type { Queryable, Row } from '../database/index.js'
import type { MergeRows } from '../weather/readingStore.js'
import { HttpProblem } from '../http/problems.js'

/** What is known of the place of a file's readings, to tell what they may be. */
export interface KnownPlace {
  latitude: number | null
  hemisphere: Hemisphere
  /** Means of the months that are stored, °C. */
  usual: ReadonlyMap<number, number>
}

/** Hours of a month, over all years, that are enough to know what it is like. */
const LEAST_STORED = 240

/** Mean temperature of each month by what a station has stored. */
export async function storedMeans(db: Queryable, stationId: string): Promise<Map<number, number>> {
  const [rows] = await db.query<Row[]>(
    'SELECT MONTH(at) AS month, AVG(temperature) AS mean, COUNT(temperature) AS n FROM reading WHERE station_id = ? GROUP BY MONTH(at)',
    [stationId],
  )
  return new Map(rows.filter((row) => Number(row['n']) >= LEAST_STORED).map((row) => [Number(row['month']), Number(row['mean'])]))
}

/** The unit of a file's temperatures; undefined where it has none, or those of a day differ. */
function unitOf({ columns, interval }: WeatherMapping): TemperatureUnit | undefined {
  const wanted: readonly WeatherVariable[] = interval === 'hourly' ? ['temperature'] : ['min', 'max']
  const units = wanted.map((variable) => columns.find((c) => c.variable === variable)?.unit)
  const [first] = units
  return first !== undefined && units.every((unit) => unit === first) ? (first as TemperatureUnit) : undefined
}

class Months {
  private readonly sums = new Map<number, { sum: number; count: number }>()
  add(at: number, temperature: number): void {
    if (!Number.isFinite(temperature)) return
    const month = monthDay(Math.floor(at / MS_PER_DAY)).month + 1
    const one = this.sums.get(month) ?? { sum: 0, count: 0 }
    this.sums.set(month, { sum: one.sum + temperature, count: one.count + 1 })
  }
  means(): MonthOfReadings[] {
    return [...this.sums].map(([month, { sum, count }]) => ({ month, mean: sum / count, count }))
  }
}

/** Months of a file that was read: hourly temperature, or the middle of a day's minimum and maximum. */
function monthsOfRows({ keys, columns }: MergeRows, interval: WeatherMapping['interval']): MonthOfReadings[] {
  const months = new Months()
  const [first, second] = columns
  if (!first || first.length === 0) return []
  for (let i = 0; i < keys.length; i++) {
    const value = first[i] as number
    months.add(keys[i] as number, interval === 'hourly' ? value : (value + (second?.[i] ?? NaN)) / 2)
  }
  return months.means()
}

/** Months of lines that were understood for the preview. */
export function monthsOfLines(
  lines: readonly { at: number | null; values: Partial<Record<WeatherVariable, number>> }[],
): MonthOfReadings[] {
  const months = new Months()
  for (const { at, values } of lines) {
    const { temperature, min = NaN, max = NaN } = values
    if (at !== null) months.add(at, temperature ?? (min + max) / 2)
  }
  return months.means()
}

/** The doubt that months of a file leave of their unit; undefined where somebody has said that it is right. */
export function unitDoubt(months: readonly MonthOfReadings[], mapping: WeatherMapping, place: KnownPlace): UnitDoubt | undefined {
  const readAs = unitOf(mapping)
  if (!readAs || mapping.unitsChecked) return undefined
  return doubtedTemperatureUnit(months, readAs, (month) => place.usual.get(month), place)
}

const NAMES = ['January', 'February', 'March', 'April', 'May', 'June', 'July', 'August', 'September', 'October', 'November', 'December']

export function doubtWords({ months, share, better }: UnitDoubt, mapping: WeatherMapping): string {
  const [first = 1, last = 1] = [months[0], months.at(-1)]
  const named = months.length === 1 ? (NAMES[first - 1] as string) : `${NAMES[first - 1]} to ${NAMES[last - 1]}`
  return `Read as °${unitOf(mapping)}, ${Math.round(100 * share)} % of its temperatures are none that ${named} can have here; read as °${better} they fit. Choose °${better}, or say that the units are right.`
}

/** Stops an import whose temperatures are in doubt. */
export function requireLikelyUnit(rows: MergeRows, mapping: WeatherMapping, place: KnownPlace): void {
  const doubt = unitDoubt(monthsOfRows(rows, mapping.interval), mapping, place)
  if (!doubt) return
  const message = `${doubtWords(doubt, mapping)} Nothing was stored.`
  throw new HttpProblem(422, message, { fields: [{ path: 'mapping.units', message }] })
}

/** The same mapping with its temperatures in another unit. */
export const inUnit = (mapping: WeatherMapping, unit: TemperatureUnit): WeatherMapping => ({
  ...mapping,
  columns: mapping.columns.map((column) =>
    column.variable === 'temperature' || column.variable === 'min' || column.variable === 'max' ? { ...column, unit } : column,
  ),
})
