/** What a weather file may hold, in the order in which it is shown. */
export const weatherVariables = ['temperature', 'min', 'max', 'humidity', 'rain', 'wind', 'direction', 'wetness', 'soil'] as const
export type WeatherVariable = (typeof weatherVariables)[number]

export const unitsOf = {
  temperature: ['C', 'F', 'C/10'],
  min: ['C', 'F', 'C/10'],
  max: ['C', 'F', 'C/10'],
  humidity: ['%'],
  rain: ['mm', 'in', 'mm/10'],
  wind: ['m/s', 'km/h', 'mph'],
  /** Degrees from which the wind blows, or points of the compass by the letters for east and west that the file uses. */
  direction: ['deg', 'NESW', 'NOSW', 'NESO'],
  wetness: ['share', '%', 'min'],
  soil: ['C', 'F'],
} as const satisfies Record<WeatherVariable, readonly string[]>

/** What of a whole run of readings may have been taken in a wrong unit: a direction in one letter for another is not read at all. */
export const unitVariables = ['temperature', 'rain', 'wind', 'wetness', 'soil'] as const

/** What a station reads by the hour. */
export const checkedVariables = ['temperature', 'humidity', 'rain', 'wind', 'direction', 'wetness', 'soil'] as const
