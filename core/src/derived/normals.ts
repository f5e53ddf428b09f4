import { quantileSorted } from '../statistics/quantile.js'
import { monthOf, sameDayInYear, yearOf } from '../time/civilDays.js'
import { hasDay, type DailySeries } from '../weather/dailySeries.js'

const HALF_WIDTH_DAYS = 5
const LEAST_YEARS = 3
const MOST_YEARS = 30

/** Years before `season` of which a series knows the time around the hundredth day. */
export function knownPastYears(series: DailySeries, season: number): number[] {
  const years: number[] = []
  for (let y = -1; y >= -MOST_YEARS; y--) if (hasDay(series, sameDayInYear(season + 100, y))) years.push(y)
  return years
}

/**
 * The usual range of a day: 10th percentile of the minima and 90th of the maxima of past years within five days of the date, in
 * °C. undefined with fewer than three years.
 */
export function normalRange(series: DailySeries, day: number, pastYears: readonly number[]): { low: number; high: number } | undefined {
  const lows: number[] = []
  const highs: number[] = []
  let years = 0
  for (const y of pastYears) {
    const centre = sameDayInYear(day, y)
    const before = lows.length
    for (let d = centre - HALF_WIDTH_DAYS; d <= centre + HALF_WIDTH_DAYS; d++) {
      if (!hasDay(series, d)) continue
      lows.push(series.min[d - series.firstDay] as number)
      highs.push(series.max[d - series.firstDay] as number)
    }
    if (lows.length > before) years++
  }
  if (years < LEAST_YEARS) return undefined
  return { low: quantileSorted(Float64Array.from(lows).sort(), 0.1), high: quantileSorted(Float64Array.from(highs).sort(), 0.9) }
}

/** Mean daily minimum and maximum in °C and mean rain in mm of one month. */
export interface MonthlyNormal {
  min: number
  max: number
  rain: number
}

const LEAST_DAYS_OF_MONTH = 20

/**
 * The twelve monthly normals of a series, January first, each with the number of years behind it; undefined for a month of which no
 * year has at least twenty days.
 *
 * @param rain mm by day number; a day that is not there is not known
 */
export function monthlyNormals(
  series: DailySeries,
  rain: ReadonlyMap<number, number>,
): (({ years: number } & MonthlyNormal & { rainYears: number }) | undefined)[] {
  const months = new Map<string, { month: number; n: number; min: number; max: number; rainDays: number; rain: number }>()
  for (let i = 0; i < series.min.length; i++) {
    const day = series.firstDay + i
    if (!hasDay(series, day)) continue
    const month = monthOf(day)
    const key = `${yearOf(day)}-${month}`
    const known = months.get(key) ?? { month, n: 0, min: 0, max: 0, rainDays: 0, rain: 0 }
    known.n++
    known.min += series.min[i] as number
    known.max += series.max[i] as number
    const mm = rain.get(day)
    if (mm !== undefined) {
      known.rainDays++
      known.rain += mm
    }
    months.set(key, known)
  }
  return Array.from({ length: 12 }, (_, month) => {
    const full = [...months.values()].filter((m) => m.month === month && m.n >= LEAST_DAYS_OF_MONTH)
    if (full.length === 0) return undefined
    const wet = full.filter((m) => m.rainDays >= LEAST_DAYS_OF_MONTH)
    const mean = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0) / Math.max(1, values.length)
    return {
      years: full.length,
      min: mean(full.map((m) => m.min / m.n)),
      max: mean(full.map((m) => m.max / m.n)),
      rainYears: wet.length,
      rain: mean(wet.map((m) => (m.rain / m.rainDays) * 30.4)),
    }
  })
}
