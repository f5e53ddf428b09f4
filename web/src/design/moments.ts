import { MS_PER_HOUR, writtenDay } from '@bocado/core/time'
import { parseAbsolute, parseDate, Time, toCalendarDateTime, toZoned } from '@internationalized/date'

/**
 * The UTC moment of a day and a wall-clock time of the site ("22:05", "10:05 pm", "7 am"), or null while either is missing, or where there is no such time on that
 * day: 25:00, or half past two in the night in which the clock goes forward. Of an hour that comes twice it is the first.
 */
export function momentOf(day: string | null, time: string, zone: string): string | null {
  const parts = /^(\d{1,2})(?:[:.]?(\d{2}))?\s*(?:([ap])\.?m\.?)?$/i.exec(time.trim())
  if (day === null || writtenDay(day)?.day !== day || !parts) return null
  const half = parts[3]?.toLowerCase()
  // A bare number may be an hour or a slip; with "pm" behind it, it is an hour.
  if (parts[2] === undefined && half === undefined) return null
  const [written, minute] = [Number(parts[1]), Number(parts[2] ?? 0)]
  if (half !== undefined && (written < 1 || written > 12)) return null
  const hour = half === undefined ? written : (written % 12) + (half === 'p' ? 12 : 0)
  if (hour > 23 || minute > 59) return null
  const at = toZoned(toCalendarDateTime(parseDate(day), new Time(hour, minute)), zone, 'compatible')
  // What does not exist is moved on to what does: then the clock shows another time than was typed.
  if (at.hour !== hour || at.minute !== minute) return null
  return iso(at.toDate().getTime())
}

/** A moment some hours after another. */
export const hoursAfter = (moment: string, hours: number): string => iso(Date.parse(moment) + Math.round(hours * MS_PER_HOUR))

const iso = (ms: number): string => new Date(ms).toISOString().replace('.000Z', 'Z')

/** Day and wall-clock time of a moment at the site. */
export function wallClockOf(moment: string, zone: string): { day: string; time: string } {
  const at = parseAbsolute(moment, zone)
  const two = (n: number): string => String(n).padStart(2, '0')
  return { day: `${at.year}-${two(at.month)}-${two(at.day)}`, time: `${two(at.hour)}:${two(at.minute)}` }
}
