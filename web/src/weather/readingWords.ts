import type { checkedVariables } from '@bocado/contract'
import type { Format } from '../design/useFormat.js'

/** A reading in the site's units, from SI. */
export function readingWords(variable: (typeof checkedVariables)[number], value: number, f: Format): string {
  switch (variable) {
    case 'humidity':
      return `${f.number(value)} %`
    case 'wetness':
      return f.percent(value)
    case 'rain':
      return f.rain(value)
    case 'wind':
      return f.wind(value)
    case 'direction':
      return `${f.compass(value)} (${f.number(value)}°)`
    default:
      return f.temperature(value)
  }
}
