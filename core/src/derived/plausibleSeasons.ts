import { requireAtLeast, requireFinite } from '../guards.js'
import { monthDay } from '../time/civilDays.js'
import { drawNormal, type Random } from '../statistics/random.js'
import type { DayExtremes } from '../heat/rule.js'
import type { MonthlyNormal } from './normals.js'

/** A season that might have been: made from monthly normals, never measured. */
export interface PlausibleSeason {
  days: DayExtremes[]
  /** mm a day. */
  rain: Float64Array
}

/*
 * How days differ from the normals. Rules of thumb for temperate lands without a source of their own: what rests on them is
 * labelled "from typed monthly normals".
 */
const DAY_TO_DAY = 0.72
const DAY_SD_C = 3.2
const YEAR_SD_C = 0.7
const RANGE_SD = 0.22
const WET_AFTER_WET = 0.55
const MM_PER_WET_DAY = 5

/** Checks twelve normals; throws naming the month. */
export function requireNormals(normals: readonly MonthlyNormal[]): void {
  if (normals.length !== 12) throw new RangeError(`normals must hold 12 months, got ${normals.length}`)
  normals.forEach(({ min, max, rain }, m) => {
    requireFinite(`normals[${m}].min`, min)
    requireAtLeast(`normals[${m}].max`, max, min)
    requireAtLeast(`normals[${m}].rain`, rain, 0)
  })
}

/**
 * Values for each day whose monthly means are those given: straight lines between the middles of the months, the middles moved
 * until the means fit.
 */
function smoothYear(monthly: readonly number[]): (day: number) => number {
  const middles = [...monthly]
  const at = (month: number, ofMonth: number, length: number): number => {
    const position = (ofMonth + 0.5) / length
    const other = position < 0.5 ? (month + 11) % 12 : (month + 1) % 12
    const weight = Math.abs(position - 0.5)
    return (middles[month] as number) * (1 - weight) + (middles[other] as number) * weight
  }
  for (let round = 0; round < 20; round++) {
    for (let month = 0; month < 12; month++) {
      let sum = 0
      for (let d = 0; d < 30; d++) sum += at(month, d, 30)
      middles[month] = (middles[month] as number) + (monthly[month] as number) - sum / 30
    }
  }
  return (day) => {
    const { month, date, length } = monthDay(day)
    return at(month, date - 1, length)
  }
}

/**
 * Seasons that fit twelve monthly normals: warm and cold spells that last, years that differ, wet days in runs. The same random
 * numbers give the same seasons. They stand in for past seasons where fewer than five are known, and must be labelled so.
 *
 * @param normals January first: mean minimum and maximum in °C, rain in mm
 * @param from day number of the first day of each season made
 * @param length days of each
 * @param count seasons to make
 */
export function plausibleSeasons(
  normals: readonly MonthlyNormal[],
  from: number,
  length: number,
  count: number,
  random: Random,
): PlausibleSeason[] {
  requireNormals(normals)
  const low = smoothYear(normals.map(({ min }) => min))
  const high = smoothYear(normals.map(({ max }) => max))
  const mm = smoothYear(normals.map(({ rain }) => rain / 30.4))
  const usual = Array.from({ length }, (_, i) => ({ low: low(from + i), high: high(from + i), mm: Math.max(0, mm(from + i)) }))
  return Array.from({ length: count }, () => {
    const year = drawNormal(random, 0, YEAR_SD_C)
    let anomaly = drawNormal(random, 0, DAY_SD_C)
    let wet = false
    const rain = new Float64Array(length)
    const days = usual.map((day, i): DayExtremes => {
      anomaly = DAY_TO_DAY * anomaly + drawNormal(random, 0, DAY_SD_C * Math.sqrt(1 - DAY_TO_DAY ** 2))
      const share = Math.min(0.9, day.mm / MM_PER_WET_DAY)
      // Two states: wet days follow wet ones, and in the long run as many are wet as the normals ask for.
      const stays = Math.max(WET_AFTER_WET, share)
      wet = random() < (wet ? stays : (share * (1 - stays)) / (1 - share))
      if (wet && share > 0) rain[i] = (-Math.log(1 - random()) * day.mm) / share
      const mean = (day.low + day.high) / 2 + anomaly + year
      const half = ((day.high - day.low) / 2) * Math.max(0.3, 1 + drawNormal(random, 0, RANGE_SD))
      return { min: mean - half, max: mean + half }
    })
    return { days, rain }
  })
}
