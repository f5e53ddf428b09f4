import type { WeatherVariable } from '@bocado/contract'
import { toCelsius, toMetresPerSecond, toMillimetres, withinCircle, type RainUnit, type TemperatureUnit, type WindUnit } from '@bocado/core'

/** A value of a variable in the internal unit: °C, %, mm, m/s, degrees, share of the hour. */
export function toSi(variable: WeatherVariable, value: number, unit: string): number {
  switch (variable) {
    case 'humidity':
      return value
    case 'direction':
      // North is 0 as well as 360, and points of the compass were read as degrees.
      return withinCircle(value)
    case 'rain':
      return toMillimetres(value, unit as RainUnit)
    case 'wind':
      return toMetresPerSecond(value, unit as WindUnit)
    case 'wetness':
      return unit === 'min' ? value / 60 : unit === '%' ? value / 100 : value
    default:
      return toCelsius(value, unit as TemperatureUnit)
  }
}

/** A value in the internal unit as the number that an instrument showed in `unit`: every unit is a straight line. */
export function fromSi(variable: WeatherVariable, value: number, unit: string): number {
  const zero = toSi(variable, 0, unit)
  return (value - zero) / (toSi(variable, 1, unit) - zero)
}
