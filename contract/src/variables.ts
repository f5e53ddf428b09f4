/** What a weather file may hold, in the order in which it is shown. */
export const weatherVariables = ['temperature', 'min', 'max', 'humidity', 'rain', 'wind', 'wetness', 'soil'] as const
export type WeatherVariable = (typeof weatherVariables)[number]

export const unitsOf = {
  temperature: ['C', 'F', 'C/10'],
  min: ['C', 'F', 'C/10'],
  max: ['C', 'F', 'C/10'],
  humidity: ['%'],
  rain: ['mm', 'in', 'mm/10'],
  wind: ['m/s', 'km/h', 'mph'],
  wetness: ['share', '%', 'min'],
  soil: ['C', 'F'],
} as const satisfies Record<WeatherVariable, readonly string[]>

/** What a station reads by the hour. */
export const checkedVariables = ['temperature', 'humidity', 'rain', 'wind', 'wetness', 'soil'] as const
