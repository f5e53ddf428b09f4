import { soilTemperature, type SoilCover } from '../derived/soil.js'
import { seasonLater } from '../time/civilDays.js'
import { fillDays, hasDay } from '../weather/dailySeries.js'
import type { PlaceRecord } from './seasonAtPlace.js'
import { probeMean } from './seasonDays.js'

/** What may outlive a winter, and the cold at which it does not. */
export interface CarryOverModel {
  /** In the upper 10 cm of the soil, or above it in the air. */
  medium: 'soil' | 'air'
  /** °C at or below which it freezes through. */
  killedBelow: number
}

/** What the last winter did to it. `doubtful`: as cold as that, as far as it can be told. */
export interface WinterVerdict {
  /** °C, and the day number on which it was that cold. */
  lowest: number
  day: number
  /** Whether a probe read the soil all winter; false where it is estimated from the air. Of the air always true. */
  read: boolean
  verdict: 'killed' | 'doubtful' | 'alive'
}

/** Days before a season's first and after it that are its winter: October to April in the north. */
const WINTER_BEFORE_DAYS = 92
const WINTER_AFTER_DAYS = 105
/** With less of the winter known nothing is said of it (from practice). */
const LEAST_KNOWN_SHARE = 0.9
/** How far the soil may be from its estimate, and the air of one spot from that of the station, in °C (from practice). */
const UNSURE_C = { soil: 1.5, air: 2 } as const

/**
 * Whether what winters in a place can have lived through the winter at a season's start: the lowest soil or air temperature against the
 * cold that kills it. A hint, no count of animals or tubers: deeper, or under snow, it is milder. null where the winter is not over, or
 * too little of it is known.
 *
 * @param firstDay of the season; its winter lies about it
 * @param today day number
 */
export function winterVerdict(
  { medium, killedBelow }: CarryOverModel,
  place: Pick<PlaceRecord, 'series' | 'hours'>,
  cover: SoilCover | null,
  firstDay: number,
  today: number,
): WinterVerdict | null {
  const [from, until] = [firstDay - WINTER_BEFORE_DAYS, firstDay + WINTER_AFTER_DAYS]
  if (today < until) return null
  const days = fillDays(place.series, from, Math.min(until, seasonLater(firstDay, 1)) - 1)
  const at = (day: number): number => day - days.firstDay
  const all = Array.from({ length: until - from }, (_, i) => from + i)
  const known = all.filter((day) => hasDay(days, day))
  if (known.length < LEAST_KNOWN_SHARE * all.length) return null
  const values = medium === 'air' ? all.map((day) => (hasDay(days, day) ? (days.min[at(day)] as number) : NaN)) : undefined
  const probed = medium === 'soil' ? all.map((day) => probeMean(place.hours, day)) : []
  const read = medium === 'air' || probed.filter((soil) => !Number.isNaN(soil)).length >= LEAST_KNOWN_SHARE * all.length
  const soil = (): ArrayLike<number> => {
    const mean = (day: number): number => ((days.min[at(day)] as number) + (days.max[at(day)] as number)) / 2
    return read
      ? probed
      : soilTemperature(
          all.map((day) => (hasDay(days, day) ? mean(day) : NaN)),
          cover ?? 'bare',
        )
  }
  let lowest = Infinity
  let coldest = from
  Array.from(values ?? soil()).forEach((value, i) => {
    if (!(value < lowest)) return
    lowest = value
    coldest = from + i
  })
  if (lowest === Infinity) return null
  const unsure = read && medium === 'soil' ? 0 : UNSURE_C[medium]
  const verdict = lowest <= killedBelow - unsure ? 'killed' : lowest <= killedBelow + unsure ? 'doubtful' : 'alive'
  return { lowest, day: coldest, read, verdict }
}
