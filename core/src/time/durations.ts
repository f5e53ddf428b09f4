/** Elapsed times, as milliseconds: the only place that knows how many of them an hour has. */
export const MS_PER_MINUTE = 60_000
export const MS_PER_HOUR = 3_600_000
export const MS_PER_DAY = 86_400_000

const MINUTES_PER_HOUR = MS_PER_HOUR / MS_PER_MINUTE

/** A difference of clocks in hours, from one in minutes; half hours are fine. @example inHours(-210) // -3.5 */
export const inHours = (minutes: number): number => minutes / MINUTES_PER_HOUR

/** A difference of clocks in whole minutes, from one in hours. @example inMinutes(5.75) // 345 */
export const inMinutes = (hours: number): number => Math.round(hours * MINUTES_PER_HOUR)

/** Hours that have gone by between two moments in milliseconds; negative where the second is earlier. */
export const hoursBetween = (from: number, to: number): number => (to - from) / MS_PER_HOUR
