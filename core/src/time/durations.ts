/** Elapsed times, as milliseconds: the only place that knows how many of them an hour has. */
export const MS_PER_MINUTE = 60_000
export const MS_PER_HOUR = 3_600_000
export const MS_PER_DAY = 86_400_000

/** Hours that have gone by between two moments in milliseconds; negative where the second is earlier. */
export const hoursBetween = (from: number, to: number): number => (to - from) / MS_PER_HOUR
