import type { Band, BloomForecast } from '@bocado/contract'
import { ensembleOf, eventBounds, resolveEvents, seasonHeat, type Bounds, type Hemisphere } from '@bocado/core'
import { indicatorModel, indicators, type Indicator } from '@bocado/library'
import type { BlockWeather } from '../weather/blockWeather.js'
import { dateBounds } from './bounds.js'
import { startOf } from './start.js'

/** When the library's plants bloom at a site, as far as heat tells. */
export function forecastBlooms(main: BlockWeather, today: number, hemisphere: Hemisphere): Band['blooms'] {
  return indicators.flatMap((indicator) => bloomsOf(indicator, main, today, hemisphere))
}

function bloomsOf(indicator: Indicator, main: BlockWeather, today: number, hemisphere: Hemisphere): BloomForecast[] {
  const model = indicatorModel(indicator)
  const start = startOf(model, null, main, today, hemisphere)
  if (start.how === 'none') return []
  const heat = seasonHeat(main.weather, model.heat, start.day)
  if (heat.members.length === 0) return []
  const generations = [{ id: indicator.id, reachableStages: [], events: model.events }]
  const resolved = resolveEvents({ generations }, start.expected)
  const dates = eventBounds(resolved, 0.5, ensembleOf(heat))
  return resolved.flatMap((event, i) => {
    const entry = indicator.events[i]
    if (!entry) return []
    return [
      {
        plant: indicator.id,
        name: indicator.name,
        event: event.id,
        eventName: entry.name,
        date: dateBounds(dates[i] as Bounds),
        confidence: entry.heat.confidence,
      },
    ]
  })
}
