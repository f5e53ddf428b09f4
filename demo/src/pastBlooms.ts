import {
  civilDate,
  dailyFromHours,
  dailyHeat,
  dayNumber,
  drawNormal,
  sameDayInYear,
  seededRandom,
  type HeatRule,
  MS_PER_HOUR,
} from '@bocado/core'
import { indicators } from '@bocado/library'
import { LANE } from './site.js'
import { CURRENT_YEAR, STANDARD_OFFSET_HOURS, inventWeather, type InventedStation } from './weather.js'

/** How springs differ at Hollin Bench beyond what the thermometer says: shared by all that lives there in a year, in °C·d. */
const SHARED_SD = 9
/** What each plant differs by on its own. */
const OWN_SD = 4
/** Past seasons of which the lane was written down. */
export const BLOOM_SEASONS = [2018, 2019, 2020, 2021, 2022, 2023, 2024, 2025] as const
/** Share of the entries that nobody made. */
const FORGOTTEN = 0.12
const EVENTS = ['first-open', 'full-bloom'] as const
const BLOOM_RULE: HeatRule = { method: 'single-sine', lower: 10 }

export interface InventedBloom {
  plantId: string
  event: (typeof EVENTS)[number]
  seenFrom: string
}

/** °C·d through each day of a year, from 1 January, as an invented station reads it. */
export function heatOfYears(station: InventedStation, rule: HeatRule, until: number): Map<number, number[]> {
  // As it truly was: what a doubted sensor read brings nothing into bloom.
  const hours = inventWeather({ ...station, doubts: false }, until)
  const first = Math.floor((hours[0]?.at ?? 0) / MS_PER_HOUR) + STANDARD_OFFSET_HOURS
  const temps = new Float64Array(Math.round(((hours.at(-1)?.at ?? 0) - (hours[0]?.at ?? 0)) / MS_PER_HOUR) + 1).fill(NaN)
  for (const { at, temperature } of hours) temps[Math.floor(at / MS_PER_HOUR) + STANDARD_OFFSET_HOURS - first] = temperature ?? NaN
  const series = dailyFromHours({ firstHour: first, tempsC: temps })
  const years = new Map<number, number[]>()
  for (const year of [...BLOOM_SEASONS, CURRENT_YEAR]) {
    const firstDay = dayNumber(`${year}-01-01`)
    const from = firstDay - series.firstDay
    const length = Math.min(sameDayInYear(firstDay, 1) - firstDay, series.min.length - from)
    const days = Array.from({ length }, (_, i) => ({ min: series.min[from + i] as number, max: series.max[from + i] as number }))
    // A day of which too many hours are missing counts as the one before it.
    days.forEach((day, i) => {
      if (Number.isNaN(day.min) || Number.isNaN(day.max)) days[i] = days[i - 1] ?? { min: 0, max: 0 }
    })
    let sum = 0
    years.set(
      year,
      Array.from(dailyHeat(days, rule), (gained) => (sum += gained)),
    )
  }
  return years
}

/** Shared shift of each year, so that blooms and pests feel the same spring. */
export function sharedShifts(): Map<number, number> {
  const random = seededRandom(1807)
  return new Map([...BLOOM_SEASONS, CURRENT_YEAR].map((year) => [year, drawNormal(random, 0, SHARED_SD)]))
}

/** Eight seasons of the lane as somebody wrote them down, with gaps, and two days that were written down wrongly. */
export function inventBlooms(station: InventedStation): { past: InventedBloom[]; current: InventedBloom[] } {
  const random = seededRandom(1735)
  const heat = heatOfYears(station, BLOOM_RULE, Date.UTC(CURRENT_YEAR, 5, 13))
  const shifts = sharedShifts()
  const past: InventedBloom[] = []
  const current: InventedBloom[] = []
  for (const year of [...BLOOM_SEASONS, CURRENT_YEAR])
    for (const plantId of LANE) {
      const plant = indicators.find(({ id }) => id === plantId)
      for (const event of EVENTS) {
        const figure = plant?.events.find(({ id }) => id === event)?.heat.value
        const forgotten = random() < FORGOTTEN
        const own = drawNormal(random, 0, OWN_SD)
        if (figure === undefined) continue
        const shift = year === CURRENT_YEAR ? -9 : (shifts.get(year) ?? 0)
        const wanted = Math.max(4, figure + shift + own)
        const curve = heat.get(year) ?? []
        const day = curve.findIndex((sum) => sum >= wanted)
        if (day < 0 || forgotten) continue
        const bloom = { plantId, event, seenFrom: civilDate(dayNumber(`${year}-01-01`) + day + Math.floor(3 * random())) }
        if (year === CURRENT_YEAR) {
          if (bloom.seenFrom <= `${CURRENT_YEAR}-06-11`) current.push(bloom)
        } else past.push(bloom)
      }
    }
  // The lilac of 2020 and the locust of 2023 stand in the notebook under another month.
  for (const [plantId, year, days] of [
    ['common-lilac', 2020, 21],
    ['black-locust', 2023, -18],
  ] as const)
    for (const bloom of past)
      if (bloom.plantId === plantId && bloom.seenFrom.startsWith(String(year)) && bloom.event === 'first-open')
        bloom.seenFrom = civilDate(dayNumber(bloom.seenFrom) + days)
  return { past, current }
}
