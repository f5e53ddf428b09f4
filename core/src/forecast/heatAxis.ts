import type { HeatRule } from '../heat/rule.js'
import { seasonHeat } from '../weather/seasonHeat.js'
import { LEAD_DAYS, type SeasonWeather } from '../weather/seasonWeather.js'

/** The heat in which the axis is even: what most of a temperate site's organisms share. */
const AXIS_RULE: HeatRule = { method: 'single-sine', lower: 5 }
/** This share of the axis is even in days, so that a winter is not without width. */
const AXIS_FLOOR = 0.1

/**
 * Where each day of a season begins on an axis that is even in heat, 0 to 1, and the season's end: one more than it has days. Undefined
 * without a full year of weather, or where it brings no heat at all.
 */
export function heatAxis(weather: SeasonWeather): number[] | undefined {
  const { firstDay, length, todayIndex } = weather
  let start = 0
  while (start < todayIndex && weather.observed.length > 0 && !weather.observed[start + LEAD_DAYS]) start++
  const heat = seasonHeat(weather, AXIS_RULE, firstDay + start)
  const total = heat.median[length - 1] ?? 0
  if (heat.knownDays < length || total <= 0) return undefined
  return Array.from({ length: length + 1 }, (_, i) => {
    const share = i === 0 ? 0 : (heat.median[i - 1] as number) / total
    return (AXIS_FLOOR * i) / length + (1 - AXIS_FLOOR) * share
  })
}
