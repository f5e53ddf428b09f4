import { LEAST_PAST_SEASONS } from '../weather/seasonWeather.js'
import type { SeasonHeat } from '../weather/seasonHeat.js'
import type { HeatStart } from './heatStart.js'
import type { WeatherBasis } from './seasonAtPlace.js'

/** How sure numbers are: published for a like place, from practice, or only standing in. */
export type Confidence = 'established' | 'approximate' | 'placeholder'

/**
 * How certain a forecast may be stated: `dates`; `months` where a number that it rests on is a placeholder; `none` where weather or a
 * start is missing; `calendar` where the site has no weather at all.
 */
export type ForecastGrade = 'dates' | 'months' | 'none' | 'calendar'

/** The grade of a forecast. What rests on a placeholder gives months and never a date. */
export function forecastGrade(p: {
  basis: WeatherBasis
  heat: Pick<SeasonHeat, 'members'>
  start: Pick<HeatStart, 'how'>
  /** Of the numbers of the model. */
  confidence: Confidence
  /** Of the heat at which a biofix is expected that has not come; undefined where none is. */
  expectedConfidence?: Confidence | undefined
}): ForecastGrade {
  if (p.basis === 'none') return 'calendar'
  if (p.heat.members.length === 0 || p.start.how === 'none') return 'none'
  const unsureStart = p.start.how === 'expected' && p.expectedConfidence === 'placeholder'
  return p.confidence === 'placeholder' || unsureStart ? 'months' : 'dates'
}

/** Whether too few past seasons tell how far years differ, so that bounds are wide; made ones know nothing of it. */
export const isWide = ({ segments, knownDays, todayIndex }: Pick<SeasonHeat, 'segments' | 'knownDays' | 'todayIndex'>): boolean =>
  knownDays > todayIndex && segments.tails.filter(({ made, heat }) => !made && heat.length > 0).length < LEAST_PAST_SEASONS
