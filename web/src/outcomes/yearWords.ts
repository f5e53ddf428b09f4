import type { endpoints, ResponseOf, YearsOf } from '@bocado/contract'
import type { Format } from '../design/useFormat.js'
import type { Say } from '../messages/useText.js'
import { seasonName } from '../shell/screens.js'
import { shareWords } from './shareWords.js'

/** How it goes from year to year, as far as that can be told. */
export function trendSays(trend: YearsOf['trend'], t: Say, f: Pick<Format, 'percent' | 'number'>): string {
  if (!trend) return t('years.trend.none')
  const { yearly, low, high, years } = trend
  // What falls by a tenth each year is a tenth fewer.
  const words = (rate: number): string => shareWords(-rate, t, f)
  const of = { of: t(`years.of.${trend.of}`), years, low: words(low), high: words(high) }
  if (high < 0) return t('years.trend.fewer', { ...of, rate: words(yearly), low: words(high), high: words(low) })
  if (low > 0) return t('years.trend.more', { ...of, rate: words(yearly) })
  return t('years.trend.open', of)
}

/** What was picked in a season, and which share of what was looked at was spoilt. */
export function pickedSays(
  { season, kg, pieces, spoilt, lookedAt }: ResponseOf<typeof endpoints.outcomes.years>['picked'][number],
  t: Say,
  f: Pick<Format, 'weight' | 'number' | 'percent'>,
): string {
  return t('years.pickedOne', {
    season: seasonName(season),
    kg: kg > 0 ? f.weight(kg) : f.number(pieces),
    spoilt: lookedAt > 0 ? f.percent(spoilt / lookedAt) : 'none',
  })
}
