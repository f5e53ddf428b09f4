import { frostOfSeason, type FrostOfSeason } from '../derived/frost.js'
import { knownPastYears, normalRange } from '../derived/normals.js'
import { soilTemperature, type SoilCover, type SoilTexture } from '../derived/soil.js'
import { soilWater, type SoilWater } from '../derived/soilWater.js'
import type { Position } from '../derived/sun.js'
import { countWet } from '../derived/wetness.js'
import { chillByDay, usualChill } from '../heat/seasonChill.js'
import { seasonLater } from '../time/civilDays.js'
import { fillDays, hasDay } from '../weather/dailySeries.js'
import { LEAD_DAYS } from '../weather/seasonWeather.js'
import { wetHoursAt } from './hoursOfSeason.js'
import type { PlaceHours, PlaceRecord, Wetting } from './seasonAtPlace.js'

/** What is known of one day at a place; NaN: not known. */
export interface PlaceDay {
  /** Day number. */
  day: number
  /** Extremes in °C, filled where they were not read; and the share of the day that was filled. */
  min: number
  max: number
  filled: number
  /** mm; under a cover none is known. */
  rain: number
  /** Wet hours, and hours of which it is not known. */
  wet: number
  wetUnknown: number
  /** °C: by the probe where it read, otherwise estimated. */
  soil: number
  /** Water in root zone and upper 5 cm, as share of what they hold. */
  rootZone: number
  surface: number
  /** Chill portions since 120 days before the season. */
  chill: number
}

/** A season of a place day by day, up to yesterday, and what follows from it. */
export interface SeasonDays {
  days: PlaceDay[]
  /** The usual range of each day in °C; undefined where fewer than three years know it. */
  normal: ({ low: number; high: number } | undefined)[]
  pastYears: number[]
  /** Whether a probe read the soil on any day. */
  probed: boolean
  /** Days since the season's start whose rain is not known and counts as dry in the soil. */
  unknownRainDays: number
  frost: FrostOfSeason
  usualChill: number | undefined
}

/** Days before a season from which the water in the soil is accounted, so that its start no longer matters (from practice). */
const WATER_SPIN_UP_DAYS = 240
/** A daily mean of the probe needs this many hours (from practice). */
const LEAST_HOURS = 18

/**
 * Daily mean of the soil probe in °C.
 *
 * @returns NaN where fewer than 18 hours were read
 */
export function probeMean({ firstHour, values }: Pick<PlaceHours, 'firstHour' | 'values'>, day: number): number {
  let sum = 0
  let n = 0
  for (let i = day * 24 - firstHour, k = 0; k < 24; i++, k++) {
    const value = values.soil[i]
    if (value === undefined || Number.isNaN(value)) continue
    sum += value
    n++
  }
  return n >= LEAST_HOURS ? sum / n : NaN
}

/** mm that reached the soil of a place by day: rain and what was watered; undefined where rain is not known. */
function waterOf(place: PlaceRecord, watered: ReadonlyMap<number, number>): (day: number) => number | undefined {
  return (day) => {
    // Inside, only what was watered reaches the soil, and that is known; outside, rain that is not known stays so.
    const fallen = place.covered ? 0 : place.rain.get(day)
    return fallen === undefined ? undefined : fallen + (watered.get(day) ?? 0)
  }
}

function wateredByDay(wettings: readonly Wetting[]): Map<number, number> {
  const watered = new Map<number, number>()
  for (const { from, waterMm } of wettings) {
    const day = Math.floor(from / 24)
    if (waterMm !== null) watered.set(day, (watered.get(day) ?? 0) + waterMm)
  }
  return watered
}

/**
 * A season of a place day by day. Every value of a day from today on is NaN.
 *
 * @param p.season first day of the season
 * @param p.today day number; the station's day
 * @param p.position undefined where nobody said where it is; water in the soil is then not known
 */
export function seasonDays(p: {
  place: PlaceRecord
  position: Position | undefined
  ground: { texture: SoilTexture; cover: SoilCover }
  wettings: readonly Wetting[]
  season: number
  today: number
}): SeasonDays {
  const { place, season, today, ground } = p
  const { series, hours, temperatures } = place
  const end = seasonLater(season, 1)
  const until = Math.min(end, today)
  const filled = fillDays(series, season, until - 1)
  const pastYears = knownPastYears(series, season)
  const wet = wetHoursAt(place, p.wettings)
  const watered = wateredByDay(p.wettings)
  // Under a cover the soil is only known from the first watering on that somebody entered.
  const waterFrom = place.covered ? Math.min(until, ...watered.keys()) : Math.max(season - WATER_SPIN_UP_DAYS, series.firstDay)
  const water =
    p.position && until > waterFrom
      ? soilWater(series, waterOf(place, watered), { from: waterFrom, until }, p.position.latitude, ground.texture)
      : undefined
  const soilFrom = Math.max(series.firstDay, season - LEAD_DAYS)
  const means = Float64Array.from({ length: Math.max(0, until - soilFrom) }, (_, k) => {
    const i = soilFrom + k - filled.firstDay
    return ((filled.min[i] ?? NaN) + (filled.max[i] ?? NaN)) / 2
  })
  const soil = soilTemperature(means, ground.cover)
  const chill = chillByDay(temperatures, season - LEAD_DAYS, until)
  let probed = false
  const days: PlaceDay[] = []
  const normal: SeasonDays['normal'] = []
  for (let day = season; day < end; day++) {
    normal.push(normalRange(series, day, pastYears))
    if (day >= until) {
      days.push({ ...NOTHING, day })
      continue
    }
    const i = day - filled.firstDay
    const has = hasDay(filled, day)
    const from = day * 24 - hours.firstHour
    const wetDay = from + 24 <= 0 || from >= hours.length ? undefined : countWet(wet, from)
    const probe = probeMean(hours, day)
    if (!Number.isNaN(probe)) probed = true
    days.push({
      day,
      min: has ? (filled.min[i] as number) : NaN,
      max: has ? (filled.max[i] as number) : NaN,
      filled: has ? (filled.filled[i] as number) : 0,
      rain: place.covered ? NaN : (place.rain.get(day) ?? NaN),
      wet: wetDay?.wet ?? NaN,
      wetUnknown: wetDay?.unknown ?? 24,
      soil: Number.isNaN(probe) ? (soil[day - soilFrom] ?? NaN) : probe,
      rootZone: water?.root.fill[day - waterFrom] ?? NaN,
      surface: water?.surface.fill[day - waterFrom] ?? NaN,
      chill: chill[day - season + LEAD_DAYS] ?? NaN,
    })
  }
  return {
    days,
    normal,
    pastYears,
    probed,
    unknownRainDays: unknownRainSince(water, season - waterFrom),
    frost: frostOfSeason({ series, filled, season, today, pastYears }),
    usualChill: usualChill(temperatures, season, until, pastYears),
  }
}

const NOTHING = {
  min: NaN,
  max: NaN,
  filled: 0,
  rain: NaN,
  wet: NaN,
  wetUnknown: 0,
  soil: NaN,
  rootZone: NaN,
  surface: NaN,
  chill: NaN,
} as const

function unknownRainSince(water: SoilWater | undefined, index: number): number {
  if (!water) return 0
  const { unknownRain } = water.root
  return (unknownRain.at(-1) ?? 0) - (unknownRain[Math.max(0, index) - 1] ?? 0)
}
