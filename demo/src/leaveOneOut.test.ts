import {
  boundsOfDates,
  civilDate,
  dailyFromHours,
  datesOf,
  dayNumber,
  drawNormal,
  ensembleOf,
  resolveEvents,
  sameDayInYear,
  seasonHeat,
  seasonWeather,
  seededRandom,
  type DailySeries,
} from '@bocado/core'
import { findOrganism, modelOf } from '@bocado/library'
import { expect, test } from 'vitest'
import { STATIONS } from './site.js'
import { CURRENT_YEAR, FIRST_YEAR, inventWeather, STANDARD_OFFSET_HOURS, type InventedStation } from './weather.js'

/** Daily extremes of the demonstration's first station, as the application makes them from its hours. */
function benchDays(): DailySeries {
  const hours = inventWeather(STATIONS[0] as InventedStation, Date.UTC(CURRENT_YEAR, 11, 31))
  const first = Math.floor((hours[0]?.at ?? 0) / 3_600_000) + STANDARD_OFFSET_HOURS
  const tempsC = new Float64Array(hours.length).fill(NaN)
  for (const { at, temperature } of hours) tempsC[Math.floor(at / 3_600_000) + STANDARD_OFFSET_HOURS - first] = temperature ?? NaN
  return dailyFromHours({ firstHour: first, tempsC })
}

/** The days of a calendar year laid onto another one, month by month and day by day. */
function layYear(from: DailySeries, year: number, onto: DailySeries, asYear: number): void {
  const start = dayNumber(`${asYear}-01-01`)
  for (let day = start; day < dayNumber(`${asYear + 1}-01-01`); day++) {
    const i = sameDayInYear(day, year - asYear) - from.firstDay
    const k = day - onto.firstDay
    onto.min[k] = from.min[i] ?? NaN
    onto.max[k] = from.max[i] ?? NaN
  }
}

/** One year as the current season with all others before it, as somebody would stand who has not seen it yet. */
function leftOut(series: DailySeries, year: number): DailySeries {
  const others = YEARS.filter((y) => y !== year)
  const firstDay = dayNumber(`${CURRENT_YEAR - others.length}-01-01`)
  const length = dayNumber(`${CURRENT_YEAR + 1}-01-01`) - firstDay
  const laid: DailySeries = { firstDay, min: new Float64Array(length), max: new Float64Array(length), filled: new Float64Array(length) }
  others.forEach((other, i) => layYear(series, other, laid, CURRENT_YEAR - others.length + i))
  layYear(series, year, laid, CURRENT_YEAR)
  return laid
}

const YEARS = Array.from({ length: CURRENT_YEAR - FIRST_YEAR }, (_, i) => FIRST_YEAR + i)

test('the bounds of forecast dates hold about 80 % of the seasons that were left out, on the weather of the demonstration', () => {
  const series = benchDays()
  const model = modelOf(findOrganism('codling-moth')!)
  const events = resolveEvents(model).filter(({ id }) => ['hatch', 'leave-fruit', 'hatch-2'].includes(id))
  const random = seededRandom(2026)
  const season = dayNumber(`${CURRENT_YEAR}-01-01`)
  const biofix = dayNumber(`${CURRENT_YEAR}-05-08`)
  const missed: string[] = []
  let inside = 0
  for (const year of YEARS) {
    const laid = leftOut(series, year)
    const came = seasonHeat(seasonWeather({ series: laid, firstDay: season, today: season + 365 }), model.heat, biofix)
    const issued = biofix + 7 - laid.firstDay
    const known: DailySeries = {
      ...laid,
      min: laid.min.slice(0, issued),
      max: laid.max.slice(0, issued),
      filled: laid.filled.slice(0, issued),
    }
    const ahead = seasonHeat(seasonWeather({ series: known, firstDay: season, today: biofix + 7 }), model.heat, biofix)
    expect(ahead.seasons, String(year)).toBe(YEARS.length - 1)
    const ensemble = ensembleOf(ahead, seededRandom(year))
    for (const event of events) {
      const { p10, p90 } = boundsOfDates(datesOf(event, 0.5, ensemble.members, ensemble.scores), ensemble)
      // The season's own figure lies off the published one by its error.
      const [date] = datesOf(event, 0.5, came.members, [drawNormal(random, 0, 1)])
      if (date! >= p10 - 0.5 && date! <= p90 + 0.5) inside++
      else missed.push(`${event.id} of ${year}: ${civilDate(season + Math.floor(date!))}`)
    }
  }
  const forecasts = YEARS.length * events.length
  // Events of one season go together: as if there were half as many, the standard error of the share is about 10 %.
  const error = Math.sqrt((0.8 * 0.2) / (forecasts / 2))
  expect(inside / forecasts, missed.join(', ')).toBeGreaterThan(0.8 - 2 * error)
  expect(inside / forecasts).toBeLessThanOrEqual(0.8 + 2 * error)
})
