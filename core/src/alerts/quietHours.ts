import { requireWithin } from '../guards.js'

/**
 * Whether an hour of the clock lies in quiet hours, which may go over midnight.
 *
 * @param hour of the clock, 0 to 24
 * @param quiet first hour, and the hour at which they end; null: there are none
 * @example isQuiet(23, { from: 21, until: 6 }) // true
 * @example isQuiet(6, { from: 21, until: 6 }) // false
 */
export function isQuiet(hour: number, quiet: { from: number; until: number } | null): boolean {
  requireWithin('hour', hour, 0, 24)
  if (!quiet || quiet.from === quiet.until) return false
  return quiet.from < quiet.until ? hour >= quiet.from && hour < quiet.until : hour >= quiet.from || hour < quiet.until
}

/**
 * Whole hours from an hour of the clock until something may be sent: none outside quiet hours.
 *
 * @example hoursUntilLoud(23, { from: 21, until: 6 }) // 7
 * @example hoursUntilLoud(12, { from: 21, until: 6 }) // 0
 */
export const hoursUntilLoud = (hour: number, quiet: { from: number; until: number } | null): number =>
  quiet && isQuiet(hour, quiet) ? (quiet.until - hour + 24) % 24 : 0

/**
 * Hours from an hour of the clock to the next hour of a digest: a day, where it has just come.
 *
 * @example hoursUntilDigest(7.5, 6) // 22.5
 * @example hoursUntilDigest(5, 6) // 1
 */
export function hoursUntilDigest(hour: number, digest: number): number {
  requireWithin('digest', digest, 0, 23)
  const ahead = (digest - hour + 24) % 24
  return ahead === 0 ? 24 : ahead
}
