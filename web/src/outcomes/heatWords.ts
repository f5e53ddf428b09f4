import type { endpoints, ResponseOf } from '@bocado/contract'
import type { Format } from '../design/useFormat.js'
import type { Say } from '../messages/useText.js'
import { heatOver } from '../weather/heatOver.js'
import '../messages/en/review.js'

type Heat = Pick<ResponseOf<typeof endpoints.weather.heat>, 'current' | 'past' | 'aheadDays'>

/** A day of less than this is the same. */
const EVEN_DAYS = 0.5

/**
 * How warm a season was beside past ones: in days where it runs, by its share where it is over.
 *
 * @returns nothing where no past season is known
 */
export function heatSays(
  heat: Heat,
  of: { base: number; from: string; isOver: boolean },
  t: Say,
  f: Pick<Format, 'temperature' | 'shortDate' | 'heat' | 'percent'>,
): string | null {
  const sum = heat.current.at(-1)
  if (sum === undefined) return null
  const told = { base: f.temperature(of.base), from: f.shortDate(of.from), sum: f.heat(sum), seasons: heat.past.length }
  if (!of.isOver) {
    const days = heat.aheadDays
    if (days === null) return null
    const way = days < -EVEN_DAYS ? 'behind' : days > EVEN_DAYS ? 'ahead' : 'even'
    return t('review.heat', { ...told, days: Math.abs(Math.round(days)), way })
  }
  const over = heatOver(heat)
  return over && t('review.heatOver', { ...told, share: f.percent(Math.abs(over.share)), way: over.way })
}
