import { instantShown, MS_PER_DAY, MS_PER_HOUR, MS_PER_MINUTE } from '@bocado/core'
import type { WeatherMapping } from '@bocado/contract'
import { IANAZone } from 'luxon'

export type DateOrder = NonNullable<WeatherMapping['dateOrder']>

/** A date with time as the file shows it. `local` counts milliseconds as if the file's clock were UTC. */
export interface FileMoment {
  local: number
  hasTime: boolean
  /** The text says 24:00: the moment ends the day that it names. */
  endsDay?: boolean
  /** Minutes east of UTC, where the text says so itself. */
  offset: number | null
}

const MINUTES_PER_DAY = 1440
const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec']
const YEAR_FIRST = /^(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})(?:[T ,]+(.+))?$/
const YEAR_LAST = /^(\d{1,2})[-/. ](\d{1,2})[-/. ](\d{4}|\d{2})(?:[T ,]+(.+))?$/
const COMPACT = /^(\d{4})(\d{2})(\d{2})(?:[T ,]+(.+))?$/
const MONTH_NAMED = /^(\d{1,2})[- ]([A-Za-z]{3})[a-z]*\.?[-, ]+(\d{4})(?:[T ,]+(.+))?$/
const TIME = /^(\d{1,2}):?(\d{2})(?::(\d{2})(?:\.\d+)?)?\s*([AaPp])?\.?(?:[Mm]\.?)?\s*(Z|[+-]\d{2}:?\d{2})?$/

function dayOf(text: string, order: DateOrder): { y: number; m: number; d: number; rest: string | undefined } | undefined {
  const first = YEAR_FIRST.exec(text) ?? COMPACT.exec(text)
  if (first) return { y: Number(first[1]), m: Number(first[2]), d: Number(first[3]), rest: first[4] }
  const named = MONTH_NAMED.exec(text)
  if (named) return { y: Number(named[3]), m: MONTHS.indexOf((named[2] as string).toLowerCase()) + 1, d: Number(named[1]), rest: named[4] }
  const last = YEAR_LAST.exec(text)
  if (!last || order === 'ymd') return undefined
  const [a, b] = [Number(last[1]), Number(last[2])]
  const y = (last[3] as string).length === 2 ? fullYear(Number(last[3])) : Number(last[3])
  return order === 'mdy' ? { y, m: a, d: b, rest: last[4] } : { y, m: b, d: a, rest: last[4] }
}

/** The year of two digits: loggers of the last century wrote 98, and none has written of 2050 yet. */
const fullYear = (year: number): number => (year >= 50 ? 1900 : 2000) + year

/** Whether a text starts with day and month as numbers, so that the order matters. */
export const needsOrder = (text: string): boolean => YEAR_LAST.test(text.trim())

/** Reads a date, with its time if it has one. Undefined where the text is no such thing, or no day of the calendar. */
export function parseMoment(text: string, order: DateOrder): FileMoment | undefined {
  const day = dayOf(text.trim(), order)
  if (!day) return undefined
  const local = Date.UTC(day.y, day.m - 1, day.d)
  const check = new Date(local)
  if (check.getUTCMonth() !== day.m - 1 || check.getUTCDate() !== day.d) return undefined
  if (day.rest === undefined) return { local, hasTime: false, offset: null }
  const time = parseTime(day.rest)
  if (!time) return undefined
  const endsDay = time.minutes === MINUTES_PER_DAY
  return { local: local + time.minutes * MS_PER_MINUTE, hasTime: true, offset: time.offset, ...(endsDay ? { endsDay } : {}) }
}

/** Minutes after midnight, 0 to 1440; 24:00 is the next midnight. */
export function parseTime(text: string): { minutes: number; offset: number | null } | undefined {
  const parts = TIME.exec(text.trim())
  if (!parts) return undefined
  let hour = Number(parts[1])
  const minute = Number(parts[2])
  const half = parts[4]?.toLowerCase()
  if (half && (hour < 1 || hour > 12)) return undefined
  if (half === 'p' && hour < 12) hour += 12
  if (half === 'a' && hour === 12) hour = 0
  if (hour > 24 || minute > 59 || (hour === 24 && minute > 0)) return undefined
  return { minutes: hour * 60 + minute, offset: offsetOf(parts[5]) }
}

function offsetOf(text: string | undefined): number | null {
  if (!text) return null
  if (text === 'Z') return 0
  const sign = text.startsWith('-') ? -1 : 1
  return sign * (Number(text.slice(1, 3)) * 60 + Number(text.slice(-2)))
}

const [HOUR, DAY] = [MS_PER_HOUR, MS_PER_DAY]

/** A zone's wall clock. Most days have one offset; they are looked up once a day. */
export class WallClock {
  private readonly zone: IANAZone
  private readonly calmDays = new Map<number, number | null>()

  constructor(timeZone: string) {
    this.zone = IANAZone.create(timeZone)
  }

  /** UTC moments that a wall clock shows as `local`: one, two in the repeated autumn hour, none in the skipped spring hour. */
  momentsOf(local: number): number[] {
    const day = Math.floor(local / DAY)
    let calm = this.calmDays.get(day)
    if (calm === undefined) {
      const before = this.zone.offset(day * DAY - 14 * HOUR)
      calm = before === this.zone.offset(day * DAY + 38 * HOUR) ? before : null
      this.calmDays.set(day, calm)
    }
    if (calm !== null) return [instantShown(local, calm)]
    const offsets = [this.zone.offset(local - 26 * HOUR), this.zone.offset(local + 26 * HOUR)]
    const moments = [...new Set(offsets)]
      .map((offset) => ({ offset, utc: instantShown(local, offset) }))
      .filter(({ offset, utc }) => this.zone.offset(utc) === offset)
    return moments.map(({ utc }) => utc).sort((a, b) => a - b)
  }
}
