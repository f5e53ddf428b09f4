import { DateTime } from 'luxon'

/**
 * The UTC moment of a day and a wall-clock time of the site, or null while either is missing, or where there is no such time on that
 * day: 25:00, or half past two in the night in which the clock goes forward.
 */
export function momentOf(day: string | null, time: string, zone: string): string | null {
  const parts = /^(\d{1,2})[:.]?(\d{2})$/.exec(time.trim())
  if (!day || !parts) return null
  const [hour, minute] = [Number(parts[1]), Number(parts[2])]
  const at = DateTime.fromISO(day, { zone }).set({ hour, minute })
  // What does not exist is moved on to what does: then the clock shows another time than was typed.
  if (!at.isValid || at.hour !== hour || at.minute !== minute) return null
  return at.toUTC().toISO({ suppressMilliseconds: true })
}
