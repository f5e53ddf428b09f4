import { civilDate, dayNumber, instantOfHour, isoInstant } from '@bocado/core'
import type { ParsedInputOf, weather } from '@bocado/contract'
import { csvOf } from '../http/csv.js'
import { fieldProblem } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { getSite } from '../sites/service.js'
import { heatOfStation } from './heat.js'
import { placeDays } from './place.js'
import { HOUR_VALUES } from './readingStore.js'
import { blockOfQuery, daysOfSeason } from './seasonDays.js'
import { getStation } from './stations.js'

const cell = (value: number | null): string => (value === null || Number.isNaN(value) ? '' : String(Number(value.toFixed(3))))

/** The days of a season up to yesterday as CSV, in SI units; minimum, maximum and rain can be imported again. */
export async function daysCsv(deps: Deps, siteId: string, stationId: string, query: ParsedInputOf<typeof weather.days>): Promise<string> {
  const { today } = await getSite(deps.db, deps.clock, siteId)
  const { days } = await daysOfSeason(deps, siteId, stationId, query)
  return csvOf({
    fields: [
      'date',
      'min_temperature_C',
      'max_temperature_C',
      'rain_mm',
      'filled_share',
      'wet_h',
      'wetness_unknown_h',
      'soil_10cm_C',
      'root_zone_water_share',
      'surface_water_share',
      'chill_portions',
    ],
    data: days
      .filter(({ day }) => day < today)
      .map((d) => [
        d.day,
        ...[d.min, d.max, d.rain, d.filled, d.wet, d.wetUnknown, d.soil, d.rootZone, d.surface, d.chill].map((value) => cell(value)),
      ]),
  })
}

/** The heat of a season by a rule as CSV: each day's, its sum, and the sums of past seasons on the same day. °C·d. */
export async function heatCsv(deps: Deps, siteId: string, stationId: string, query: ParsedInputOf<typeof weather.heat>): Promise<string> {
  const { current, past } = await heatOfStation(deps, siteId, stationId, query)
  const first = dayNumber(query.from)
  return csvOf({
    fields: ['date', 'heat_Cd', 'heat_sum_Cd', ...past.map(({ season }) => `heat_sum_${season.slice(0, 4)}_Cd`)],
    data: current.map((sum, i) => [
      civilDate(first + i),
      cell(sum - (current[i - 1] ?? 0)),
      cell(sum),
      ...past.map(({ cumulative }) => cell(cumulative[i] ?? null)),
    ]),
  })
}

const MOST_DAYS = 366 * 40
const COLUMN_UNITS: Readonly<Record<(typeof HOUR_VALUES)[number], string>> = {
  temperature: 'C',
  humidity: 'pct',
  rain: 'mm',
  wind: 'm/s',
  wetness: 'share',
  soil: 'C',
}

/**
 * The hours of a station as they are believed, as CSV: UTC with its mark, SI units, wind at the height of the sensor. It can be
 * imported again as it is.
 */
export async function hoursCsv(
  deps: Deps,
  siteId: string,
  stationId: string,
  { from, to, blockId }: { from: string; to: string; blockId?: string | undefined },
): Promise<string> {
  const station = await getStation(deps.db, siteId, stationId)
  const site = await getSite(deps.db, deps.clock, siteId)
  const [first, last] = [dayNumber(from), dayNumber(to)]
  if (last < first) throw fieldProblem('to', 'lies before the first day')
  if (last - first > MOST_DAYS) throw fieldProblem('to', 'is more than forty years after the first day')
  const { hours } = await placeDays(deps, site, station, await blockOfQuery(deps, siteId, blockId))
  const variables = HOUR_VALUES.filter((variable) => hours.values[variable].some((value) => !Number.isNaN(value)))
  const data: string[][] = []
  for (let hour = Math.max(first * 24, hours.firstHour); hour < Math.min((last + 1) * 24, hours.firstHour + hours.length); hour++) {
    const values = variables.map((variable) => cell(hours.values[variable][hour - hours.firstHour] ?? NaN))
    if (values.every((value) => value === '')) continue
    data.push([isoInstant(instantOfHour(hour, station.utcOffsetMinutes)), ...values])
  }
  return csvOf({ fields: ['at', ...variables.map((variable) => `${variable} (${COLUMN_UNITS[variable]})`)], data })
}
