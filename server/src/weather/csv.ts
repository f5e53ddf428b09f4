import {
  civilDate,
  dayNumber,
  fahrenheitDaysFromCelsiusDays,
  fahrenheitFromCelsius,
  inchesFromMillimetres,
  instantOfHour,
  isoInstant,
  mphFromMetresPerSecond,
} from '@bocado/core'
import type { ParsedInputOf, Site, weather } from '@bocado/contract'
import { csvOf } from '../http/csv.js'
import { fieldProblem } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { getSite } from '../sites/service.js'
import { heatOfStation } from './heat.js'
import { placeDays } from './place.js'
import { HOUR_VALUES } from './readingStore.js'
import { blockOfQuery, daysOfSeason } from './seasonDays.js'
import { getStation } from './stations.js'

/** How figures leave in the units of a site; each column says its unit. */
interface Columns {
  temperature: [unit: string, shown: (c: number) => number]
  rain: [unit: string, shown: (mm: number) => number]
  wind: [unit: string, shown: (ms: number) => number]
  heat: [unit: string, shown: (cd: number) => number]
}
const same = (value: number): number => value
const COLUMNS: Readonly<Record<Site['units'], Columns>> = {
  metric: { temperature: ['C', same], rain: ['mm', same], wind: ['m/s', same], heat: ['Cd', same] },
  us: {
    temperature: ['F', fahrenheitFromCelsius],
    rain: ['in', inchesFromMillimetres],
    wind: ['mph', mphFromMetresPerSecond],
    heat: ['Fd', fahrenheitDaysFromCelsiusDays],
  },
}
const inUnit = (value: number | null, [, shown]: readonly [string, (si: number) => number]): number | null =>
  value === null ? null : shown(value)

const cell = (value: number | null): string => (value === null || Number.isNaN(value) ? '' : String(Number(value.toFixed(3))))

/** The days of a season up to yesterday as CSV, in the site's units; minimum, maximum and rain can be imported again. */
export async function daysCsv(deps: Deps, siteId: string, stationId: string, query: ParsedInputOf<typeof weather.days>): Promise<string> {
  const { today, units } = await getSite(deps.db, deps.clock, siteId)
  const { temperature, rain } = COLUMNS[units]
  const { days } = await daysOfSeason(deps, siteId, stationId, query)
  return csvOf({
    fields: [
      'date',
      `min_temperature_${temperature[0]}`,
      `max_temperature_${temperature[0]}`,
      `rain_${rain[0]}`,
      'filled_share',
      'wet_h',
      'wetness_unknown_h',
      `soil_10cm_${temperature[0]}`,
      'root_zone_water_share',
      'surface_water_share',
      'chill_portions',
    ],
    data: days
      .filter(({ day }) => day < today)
      .map((d) => [
        d.day,
        ...[
          inUnit(d.min, temperature),
          inUnit(d.max, temperature),
          inUnit(d.rain, rain),
          d.filled,
          d.wet,
          d.wetUnknown,
          inUnit(d.soil, temperature),
          d.rootZone,
          d.surface,
          d.chill,
        ].map((value) => cell(value)),
      ]),
  })
}

/** The heat of a season by a rule as CSV: each day's, its sum, and the sums of past seasons on the same day. °C·d or °F·d. */
export async function heatCsv(deps: Deps, siteId: string, stationId: string, query: ParsedInputOf<typeof weather.heat>): Promise<string> {
  const { current, past } = await heatOfStation(deps, siteId, stationId, query)
  const { heat } = COLUMNS[(await getSite(deps.db, deps.clock, siteId)).units]
  const first = dayNumber(query.from)
  return csvOf({
    fields: ['date', `heat_${heat[0]}`, `heat_sum_${heat[0]}`, ...past.map(({ season }) => `heat_sum_${season.slice(0, 4)}_${heat[0]}`)],
    data: current.map((sum, i) => [
      civilDate(first + i),
      cell(inUnit(sum - (current[i - 1] ?? 0), heat)),
      cell(inUnit(sum, heat)),
      ...past.map(({ cumulative }) => cell(inUnit(cumulative[i] ?? null, heat))),
    ]),
  })
}

const MOST_DAYS = 366 * 40
const hourColumns = ({
  temperature,
  rain,
  wind,
}: Columns): Readonly<Record<(typeof HOUR_VALUES)[number], readonly [string, (si: number) => number]>> => ({
  temperature,
  humidity: ['pct', same],
  rain,
  wind,
  wetness: ['share', same],
  soil: temperature,
  direction: ['deg', same],
})

/**
 * The hours of a station as they are believed, as CSV: UTC with its mark, the site's units, wind at the height of the sensor. It can be
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
  const columns = hourColumns(COLUMNS[site.units])
  const data: string[][] = []
  for (let hour = Math.max(first * 24, hours.firstHour); hour < Math.min((last + 1) * 24, hours.firstHour + hours.length); hour++) {
    const values = variables.map((variable) => cell(inUnit(hours.values[variable][hour - hours.firstHour] ?? NaN, columns[variable])))
    if (values.every((value) => value === '')) continue
    data.push([isoInstant(instantOfHour(hour, station.utcOffsetMinutes)), ...values])
  }
  return csvOf({ fields: ['at', ...variables.map((variable) => `${variable} (${columns[variable][0]})`)], data })
}
