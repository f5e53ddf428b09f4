import { requireWithin } from '../guards.js'
import { deltaT } from '../treatment/wetBulb.js'
import { isOnArc, type Arc } from '../units/compass.js'

/** What of the weather decides whether an hour can be used: °C, %, mm within the hour and m/s at 2 m; NaN where it is not known. */
export interface HourOfWeather {
  temperature: number
  humidity: number
  rain: number
  wind: number
  /** Degrees from which the wind blows; without it, or where it is NaN, nobody can say where it carries anything. */
  direction?: number
  /** Of the soil at 10 cm, of that day; needed where soil binds. */
  soil?: number
}

/** Hours of a civil day, standard time; null where the sun does not rise, set, dawn or dim. */
export interface DayLight {
  sunrise: number | null
  sunset: number | null
  dawn: number | null
  dusk: number | null
}

/** What binds a way to act. Each limit that does not is left out. */
export interface HourLimits {
  /** Highest wind, m/s at 2 m. */
  maxWind?: number
  minTemperature?: number
  maxTemperature?: number
  /** Lowest and highest Delta T, °C, between which drops neither hang in the air nor dry on their way. */
  deltaT?: readonly [low: number, high: number]
  /** Drops are fine enough that still air under an inversion carries them away. */
  inversion?: boolean
  /** Hours after it within which rain would wash it off; 0 binds the hour itself. */
  rainFastHours?: number
  /** Rain of so many mm in an hour stops the work. */
  maxRain?: number
  /** Only while one sees: from civil dawn to civil dusk. */
  daylight?: boolean
  /** Only out of the sun: from civil dusk to civil dawn. */
  dark?: boolean
  /** What flowers there: 'never' where the label forbids it in bloom; otherwise the hours for which its residue harms bees. */
  bees?: 'never' | number
  /** Directions from which the wind carries drops to what is kept clear of them. */
  towards?: readonly Arc[]
  /** Coolest and warmest soil, °C at 10 cm, in which what is put into it lives. */
  soil?: readonly [coolest: number, warmest: number]
  /** Hours of the day, from midnight, that a rule of the place forbids. */
  closed?: readonly (readonly [from: number, until: number])[]
  /** Hour of the day until which nobody may enter: of what was sprayed there. */
  entryFrom?: number
}

/** Why an hour cannot be used. */
export const hourBlocks = [
  'rule',
  'entry',
  'bees',
  'wind',
  'towards',
  'inversion',
  'rain',
  'temperature',
  'delta-t',
  'soil',
  'dark',
  'sun',
] as const
export type HourBlock = (typeof hourBlocks)[number]
/** What is not known of an hour and would have to be. */
export const hourDoubts = ['wind', 'rain', 'temperature', 'humidity', 'soil', 'sun'] as const
export type HourDoubt = (typeof hourDoubts)[number]

/** How an hour stands: usable where nothing blocks it and nothing is unknown. */
export interface HourVerdict {
  blocks: HourBlock[]
  unknown: HourDoubt[]
}

/** From so long before sunset until so long after sunrise the air may lie still under an inversion. */
export const INVERSION_BEFORE_SUNSET_H = 1
export const INVERSION_AFTER_SUNRISE_H = 1.5
/** Below this wind, m/s, an inversion is taken to be there in these hours. */
export const INVERSION_BELOW_WIND = 1.5
/** Rain of less than this, mm in an hour, washes nothing off. */
export const WASHES_OFF_MM = 0.2

/**
 * Why an hour cannot be used, and what is not known of it.
 *
 * @param hours hours of weather in their order
 * @param h index of the hour, of which the first is that of midnight of the first of `light`
 * @param light one for each civil day of `hours`, and of the day after where there is one
 * @throws RangeError for an index outside the hours
 */
export function hourVerdict(hours: readonly HourOfWeather[], h: number, limits: HourLimits, light: readonly DayLight[]): HourVerdict {
  requireWithin('h', h, 0, hours.length - 1)
  const { temperature, humidity, rain, wind, soil = NaN, direction = NaN } = hours[h] as HourOfWeather
  const blocks: HourBlock[] = []
  const unknown: HourDoubt[] = []
  const hour = h % 24
  const day = light[Math.floor(h / 24)]
  const block = (reason: HourBlock, known: boolean, doubt: HourDoubt, holds: () => boolean): void => {
    if (!known) unknown.push(doubt)
    else if (holds()) blocks.push(reason)
  }
  if (limits.closed?.some(([from, until]) => hour + 1 > from && hour < until)) blocks.push('rule')
  if (limits.entryFrom !== undefined && hour < limits.entryFrom) blocks.push('entry')
  if (limits.bees !== undefined) {
    if (limits.bees === 'never') blocks.push('bees')
    else {
      const dark = nightAt(day, light[Math.floor(h / 24) + 1], hour)
      if (dark === undefined) unknown.push('sun')
      else if (dark === null || hour + 1 + limits.bees > dark) blocks.push('bees')
    }
  }
  if (limits.maxWind !== undefined) block('wind', !Number.isNaN(wind), 'wind', () => wind > (limits.maxWind as number))
  // Where the direction is not known the way is not closed: it is seen on the spot, and the board says where it must not blow to.
  if (limits.towards?.some((arc) => isOnArc(direction, arc))) blocks.push('towards')
  if (limits.inversion === true && stillHours(day, hour)) block('inversion', !Number.isNaN(wind), 'wind', () => wind < INVERSION_BELOW_WIND)
  if (limits.rainFastHours !== undefined) {
    const after = hours.slice(h, h + 1 + Math.ceil(limits.rainFastHours))
    block('rain', after.some((one) => one.rain >= WASHES_OFF_MM) || after.every((one) => !Number.isNaN(one.rain)), 'rain', () =>
      after.some((one) => one.rain >= WASHES_OFF_MM),
    )
  } else if (limits.maxRain !== undefined) block('rain', !Number.isNaN(rain), 'rain', () => rain > (limits.maxRain as number))
  if (limits.minTemperature !== undefined || limits.maxTemperature !== undefined)
    block(
      'temperature',
      !Number.isNaN(temperature),
      'temperature',
      () => temperature < (limits.minTemperature ?? -Infinity) || temperature > (limits.maxTemperature ?? Infinity),
    )
  if (limits.deltaT) {
    const [low, high] = limits.deltaT
    const isKnown = !Number.isNaN(temperature) && !Number.isNaN(humidity)
    block('delta-t', isKnown, 'humidity', () => {
      const depression = deltaT(temperature, Math.min(100, Math.max(0, humidity)))
      return depression < low || depression > high
    })
  }
  if (limits.soil) {
    const [coolest, warmest] = limits.soil
    block('soil', !Number.isNaN(soil), 'soil', () => soil < coolest || soil > warmest)
  }
  if (limits.daylight === true || limits.dark === true) {
    const dark = nightAt(day, undefined, hour)
    if (dark === undefined) unknown.push('sun')
    else if (limits.daylight === true && dark !== null) blocks.push('dark')
    else if (limits.dark === true && dark === null) blocks.push('sun')
  }
  return { blocks, unknown }
}

/** The hour of the coming dawn, counted from midnight of the day, where an hour lies wholly in the night; null by day; undefined where it is not known. */
function nightAt(day: DayLight | undefined, next: DayLight | undefined, hour: number): number | null | undefined {
  if (!day) return undefined
  // Where the sun does not dim there is no night; where it does not dawn there is nothing else.
  if (day.dusk === null || day.dawn === null) return day.sunrise === null ? 48 : null
  if (hour + 1 <= day.dawn) return day.dawn
  if (hour >= day.dusk) return 24 + (next?.dawn ?? day.dawn)
  return null
}

/** Whether an inversion may lie over an hour; by day it does not, and where nobody knows the sun it may. */
function stillHours(day: DayLight | undefined, hour: number): boolean {
  if (!day || day.sunrise === null || day.sunset === null) return true
  return hour < day.sunrise + INVERSION_AFTER_SUNRISE_H || hour + 1 > day.sunset - INVERSION_BEFORE_SUNSET_H
}

/** An hour over the members of a forecast. */
export interface HourOverMembers {
  /** Members in which it can be used. */
  usable: number
  /** Members in which nothing that is known blocks it, and something is not known. */
  unknown: number
  /** Members that each reason blocks; of none where it is left out. */
  blocked: Partial<Record<HourBlock, number>>
}

export interface HoursOverMembers {
  hours: HourOverMembers[]
  /** For each day the members in which at least one hour of it can be used, from the first hour that is asked for on. */
  days: number[]
}

/**
 * Hours over the members of a forecast: in how many of them each can be used, and what blocks it in the others.
 *
 * @param members hours of weather of each member, of the same days
 * @param limitsOn what binds on a day, counted from that of the first hour
 * @param from index of the first hour that can still be used
 */
export function usableHours(
  members: readonly (readonly HourOfWeather[])[],
  limitsOn: (day: number) => HourLimits,
  light: readonly DayLight[],
  from = 0,
): HoursOverMembers {
  const length = members[0]?.length ?? 0
  const hours: HourOverMembers[] = Array.from({ length }, () => ({ usable: 0, unknown: 0, blocked: {} }))
  const days = new Array<number>(Math.ceil(length / 24)).fill(0)
  const limits = days.map((_, day) => limitsOn(day))
  for (const member of members) {
    const seen = new Set<number>()
    for (let h = 0; h < length; h++) {
      const { blocks, unknown } = hourVerdict(member, h, limits[Math.floor(h / 24)] as HourLimits, light)
      const hour = hours[h] as HourOverMembers
      for (const reason of blocks) hour.blocked[reason] = (hour.blocked[reason] ?? 0) + 1
      if (blocks.length > 0) continue
      if (unknown.length > 0) hour.unknown++
      else {
        hour.usable++
        if (h >= from) seen.add(Math.floor(h / 24))
      }
    }
    for (const day of seen) days[day] = (days[day] as number) + 1
  }
  return { hours, days }
}

/** How many hours each limit costs: those that it alone keeps from being used in at least half of the members. */
export function hoursCost(hours: readonly HourOverMembers[], members: number, from = 0): { reason: HourBlock; hours: number }[] {
  const cost = new Map<HourBlock, number>()
  for (const { blocked } of hours.slice(from)) {
    const strong = hourBlocks.filter((reason) => (blocked[reason] ?? 0) * 2 >= members)
    const [only] = strong
    if (only !== undefined && strong.length === 1) cost.set(only, (cost.get(only) ?? 0) + 1)
  }
  return [...cost].map(([reason, count]) => ({ reason, hours: count })).sort((a, b) => b.hours - a.hours)
}
