/** Least and most that a reading can be. */
export interface ReadingLimits {
  readonly least: number
  readonly most: number
}

/**
 * What an hourly reading can be at all, in °C, %, mm, m/s, degrees from which the wind blows, and share of the hour: about the most that has been measured on open ground.
 * What lies outside is refused where it is typed or read from a file, and not believed where a device sent it.
 */
export const READING_LIMITS = {
  temperature: { least: -60, most: 58 },
  humidity: { least: 0, most: 100 },
  rain: { least: 0, most: 200 },
  wind: { least: 0, most: 75 },
  direction: { least: 0, most: 360 },
  wetness: { least: 0, most: 1 },
  soil: { least: -30, most: 60 },
} as const satisfies Record<string, ReadingLimits>

/** What the rain of a day can be, in mm. */
export const DAILY_RAIN_LIMITS: ReadingLimits = { least: 0, most: 1000 }

/** What the rain of a month can be, in mm. */
export const MONTHLY_RAIN_LIMITS: ReadingLimits = { least: 0, most: 3000 }
