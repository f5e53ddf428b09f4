import { DateTime } from 'luxon'

/** The UTC moment of a day and a wall-clock time of the site, or null while either is missing. */
export function momentOf(day: string | null, time: string, zone: string): string | null {
  const parts = /^(\d{1,2})[:.]?(\d{2})$/.exec(time.trim())
  if (!day || !parts) return null
  const at = DateTime.fromISO(day, { zone }).set({ hour: Number(parts[1]), minute: Number(parts[2]) })
  return at.isValid ? at.toUTC().toISO({ suppressMilliseconds: true }) : null
}
