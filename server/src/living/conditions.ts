import type { Block, Living, Product, SoilReading } from '@bocado/contract'
import {
  dayNumber,
  LIVING_DAYS,
  livingConditions,
  openIndex,
  LEAD_DAYS,
  READING_DAYS,
  soilOffset,
  soilTemperature,
  type LivingNeeds,
  type SeasonDay,
} from '@bocado/core'
import type { Method } from '@bocado/library'
import type { GroundWeather } from '../weather/groundWeather.js'

/** Soil forgets the air in about so many days. */
const SOIL_LEAD_DAYS = 60

/** So many past seasons continue each member of a forecast: more would not move four in five. */
const TAILS_EACH = 3

export interface NeedsOf extends LivingNeeds {
  floorFrom: 'label' | 'usual'
}

/** Whether something of the shelf is living: said by its form, or by what it is. */
export const isLiving = ({ formulation }: Pick<Product, 'formulation'>, methods: readonly Method[]): boolean =>
  formulation === 'living' || methods.some(({ living }) => living)

/** What a living product needs, by its label, else by what is usual for its kind; null where neither says it. */
export function needsOf(product: Pick<Product, 'strain' | 'soilMinC'>, methods: readonly Method[]): NeedsOf | null {
  const of = methods.flatMap((method) => [...method.strains.filter(({ id }) => id === product.strain), method])
  const ceiling = of.find((one) => one.ceiling)?.ceiling?.value
  if (ceiling === undefined) return null
  const soil = of.find((one) => 'soilFloor' in one && one.soilFloor) as { soilFloor: { value: number } } | undefined
  if (soil || product.soilMinC !== null) {
    const floor = product.soilMinC ?? soil?.soilFloor.value ?? 0
    return { medium: 'soil', floor, ceiling, floorFrom: product.soilMinC !== null ? 'label' : 'usual' }
  }
  const air = of.find((one) => one.airFloor)?.airFloor?.value
  return air === undefined ? null : { medium: 'air', floor: air, ceiling, floorFrom: 'usual' }
}

const meanOf = (day: SeasonDay | undefined): number => (day ? (day.min + day.max) / 2 : NaN)

/** The days of a season in the ways it may go, from its lead days on: what was observed, then each member with some past seasons. */
function waysOf({ weather }: Pick<GroundWeather, 'weather'>): (SeasonDay | undefined)[][] {
  const { observed, forecast, tails } = weather
  return forecast.flatMap((ahead, f) =>
    tails.length === 0
      ? [[...observed, ...ahead]]
      : Array.from({ length: Math.min(TAILS_EACH, tails.length) }, (_, k) => [
          ...observed,
          ...ahead,
          ...(tails[(f * TAILS_EACH + k) % tails.length]?.days ?? []),
        ]),
  )
}

/** What something living would live in on a day and in the two weeks after it; null where nothing is known of that day. */
export function conditionsOn(
  day: number,
  needs: NeedsOf,
  at: GroundWeather,
  ground: Pick<Block, 'soilCover'>,
  readings: readonly SoilReading[],
): Living['conditions'] {
  const first = day - at.weather.firstDay + LEAD_DAYS
  const all = waysOf(at)
  const shortest = Math.min(...all.map(({ length }) => length))
  const days = Math.min(LIVING_DAYS + 1, shortest - first)
  // What is behind the last day that is known, or before the season, is not looked at.
  if (days < 1 || first < 0) return null
  const rounded = (value: number): number => Math.round(value * 100) / 100
  const said = (ways: number[][], peaks: number[][], offset: NonNullable<Living['conditions']>['offset']): Living['conditions'] => {
    const known = ways.every((way) => way.every((value) => !Number.isNaN(value)))
    if (!known) return null
    const { onTheDay, warmEnough, coolEnough, verdict } = livingConditions(needs, ways, peaks)
    return {
      ...needs,
      onTheDay: rounded(onTheDay),
      warmEnough: rounded(warmEnough),
      coolEnough: rounded(coolEnough),
      days: days - 1,
      verdict,
      offset,
    }
  }
  if (needs.medium === 'air') {
    const part = all.map((way) => way.slice(first, first + days))
    return said(
      part.map((way) => way.map(meanOf)),
      part.map((way) => way.map((one) => one?.max ?? NaN)),
      null,
    )
  }
  const from = Math.max(0, first - SOIL_LEAD_DAYS)
  const soils = all.map((way) => Array.from(soilTemperature(way.slice(from, first + days).map(meanOf), ground.soilCover)))
  const offset = offsetThere(at, ground, readings)
  const ways = soils.map((soil) => soil.slice(first - from).map((value) => value + (offset?.celsius ?? 0)))
  return said(ways, ways, offset && { ...offset, celsius: rounded(offset.celsius) })
}

/** How the soil of a place differs from the estimate: by a thermometer there, else by the probe of its station. */
function offsetThere(
  at: GroundWeather,
  { soilCover }: Pick<Block, 'soilCover'>,
  readings: readonly SoilReading[],
): NonNullable<Living['conditions']>['offset'] {
  const { weather, today, place } = at
  const open = openIndex(weather) + LEAD_DAYS
  const from = Math.max(0, open - SOIL_LEAD_DAYS - READING_DAYS)
  const estimate = soilTemperature(weather.observed.slice(from, open).map(meanOf), soilCover)
  const estimated = (day: number): number | undefined => {
    const i = day - weather.firstDay + LEAD_DAYS - from
    // What was read today is held against yesterday: today is not over.
    return estimate[Math.min(i, estimate.length - 1)]
  }
  const there = soilOffset(
    readings.map(({ readOn, celsius }) => ({ day: dayNumber(readOn), celsius })),
    estimated,
    today,
  )
  if (there) return { ...there, by: 'read-there' }
  const probe = place ? soilOffset(probeDays(place.hours, today), estimated, today) : null
  return probe && { ...probe, by: 'probe' }
}

/** Days whose probe of the soil was read for most of their hours, with the mean. */
function probeDays({ firstHour, length, values }: NonNullable<GroundWeather['place']>['hours'], today: number) {
  const found: { day: number; celsius: number }[] = []
  for (let day = today - READING_DAYS; day < today; day++) {
    const from = day * 24 - firstHour
    if (from < 0 || from + 24 > length) continue
    const read = Array.from({ length: 24 }, (_, h) => values.soil[from + h] as number).filter((value) => !Number.isNaN(value))
    if (read.length >= MOST_OF_A_DAY) found.push({ day, celsius: read.reduce((sum, value) => sum + value, 0) / read.length })
  }
  return found
}
const MOST_OF_A_DAY = 18
