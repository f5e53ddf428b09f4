import {
  civilDate,
  dailyFromHours,
  dailyHeat,
  dayNumber,
  drawNormal,
  drawPoisson,
  sameDayInYear,
  seededRandom,
  shareReached,
  type HeatRule,
  type Random,
  MS_PER_HOUR,
} from '@bocado/core'
import { STANDARD_OFFSET_HOURS, inventWeather, type InventedStation } from './weather.js'

/** How codling moth truly goes at Hollin Bench: a little later and tighter than the library has it, so that records have a truth to find. */
export const TRUE_CODLING_MOTH = {
  rule: { method: 'single-sine', lower: 10, upper: 31.1, cutoff: 'horizontal' } satisfies HeatRule,
  /** °C·d from 1 January at which 3 % of the moths fly, and between years. */
  flight: 92,
  betweenYears: 6,
  spread: 62,
  /** °C·d from there to the first hatch. */
  hatch: 157,
} as const

/** What was written down of a past season. */
export interface PastRecords {
  season: string
  hungOn: string
  checks: { day: string; caught: number }[]
  hatch: { seenOn: string; lookedBefore: string }
}

/** Three past seasons of a trap in Old Apples and of the first hatch, drawn from the truth and seen as people see it. */
export function inventPastRecords(station: InventedStation, seasons: readonly string[]): PastRecords[] {
  const random = seededRandom(1957)
  return heatOf(station, seasons, TRUE_CODLING_MOTH.rule).map(({ season, heat }) => recordsOf(random, season, heat))
}

/** How creeping thistle truly flowers in Lower Meadow, of which the library has no figure. */
export const TRUE_THISTLE = { rule: { method: 'single-sine', lower: 8 } satisfies HeatRule, flowers: 585, betweenYears: 10 } as const

/** The days on which the first thistles were seen in flower, each a few days after a walk without any. */
export function inventThistleDates(station: InventedStation, seasons: readonly string[]): { seenOn: string; lookedBefore: string }[] {
  const random = seededRandom(1963)
  return heatOf(station, seasons, TRUE_THISTLE.rule).map(({ season, heat }) => {
    const wanted = TRUE_THISTLE.flowers + drawNormal(random, 0, TRUE_THISTLE.betweenYears)
    const opened = dayNumber(season) + heat.findIndex((sum) => sum >= wanted)
    const late = Math.floor(3 * random())
    return { seenOn: civilDate(opened + late), lookedBefore: civilDate(opened + late - 3) }
  })
}

/** °C·d from each season's first day through each of its days. */
export function heatOf(station: InventedStation, seasons: readonly string[], rule: HeatRule): { season: string; heat: number[] }[] {
  const hours = inventWeather(station, Date.parse(`${Number(seasons.at(-1)?.slice(0, 4)) + 1}-01-02`))
  const first = Math.floor((hours[0]?.at ?? 0) / MS_PER_HOUR) + STANDARD_OFFSET_HOURS
  const temps = new Float64Array(Math.round(((hours.at(-1)?.at ?? 0) - (hours[0]?.at ?? 0)) / MS_PER_HOUR) + 1).fill(NaN)
  for (const { at, temperature } of hours) temps[Math.floor(at / MS_PER_HOUR) + STANDARD_OFFSET_HOURS - first] = temperature ?? NaN
  const series = dailyFromHours({ firstHour: first, tempsC: temps })
  return seasons.map((season) => {
    const firstDay = dayNumber(season)
    const from = firstDay - series.firstDay
    const days = Array.from({ length: sameDayInYear(firstDay, 1) - firstDay }, (_, i) => ({
      min: series.min[from + i] as number,
      max: series.max[from + i] as number,
    }))
    let sum = 0
    return { season, heat: Array.from(dailyHeat(days, rule), (gained) => (sum += gained)) }
  })
}

function recordsOf(random: Random, season: string, heat: readonly number[]): PastRecords {
  const { flight, betweenYears, spread, hatch } = TRUE_CODLING_MOTH
  const firstDay = dayNumber(season)
  const begins = flight + drawNormal(random, 0, betweenYears)
  // 3 % lie 1.88 standard deviations before the middle; the few that a normal tail sends out before the flight begins stay in.
  const reached = (sum: number): number => shareReached(sum, { kind: 'normal', median: begins + 1.88 * spread, sd: spread })
  const flown = (day: number): number => Math.max(0, reached(heat[day - firstDay] ?? 0) - reached(begins))
  const moths = 170 + 60 * random()
  const hung = dayNumber(`${season.slice(0, 4)}-04-20`)
  const checks: PastRecords['checks'] = []
  for (let before = hung, i = 0; i < 20; i++) {
    const day = before + (i % 2 === 0 ? 3 : 4)
    const rough = Math.exp(drawNormal(random, 0, 0.25))
    checks.push({ day: civilDate(day), caught: drawPoisson(random, moths * (flown(day) - flown(before)) * rough) })
    before = day
  }
  const hatched = firstDay + heat.findIndex((sum) => sum >= begins + hatch + drawNormal(random, 0, betweenYears))
  const gap = 1 + Math.floor(3 * random())
  return { season, hungOn: civilDate(hung), checks, hatch: { seenOn: civilDate(hatched + 1), lookedBefore: civilDate(hatched + 1 - gap) } }
}
