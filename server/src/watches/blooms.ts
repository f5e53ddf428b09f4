import type { Band, BloomForecast } from '@bocado/contract'
import { bloomDates } from '@bocado/core'
import { indicators } from '@bocado/library'
import { bloomPlants } from '../bloom/evidence.js'
import type { Memo } from '../memo.js'
import type { GroundWeather } from '../weather/groundWeather.js'
import { dateBounds } from './bounds.js'
import { keepBeside } from './forecast.js'

/** When the library's plants bloom at a site, as far as heat tells. */
export function forecastBlooms(main: GroundWeather, today: number, memo: Memo): Band['blooms'] {
  return bloomPlants.flatMap((plant) => {
    const dates = bloomDates(plant, main, today, undefined, keepBeside(main, memo))
    const entries = indicators.find(({ id }) => id === plant.id)?.events ?? []
    return entries.flatMap(({ id: event, name: eventName, heat }, i): BloomForecast[] => {
      const date = dates?.[i]
      return date ? [{ plant: plant.id, name: plant.name, event, eventName, date: dateBounds(date), confidence: heat.confidence }] : []
    })
  })
}
