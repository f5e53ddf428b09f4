import type { WatchForecast } from '@bocado/contract'
import { calendarBiofix, chillBiofix, dayNumber, type ExpectedBiofix, type Hemisphere, type OrganismModel } from '@bocado/core'
import type { BlockWeather } from '../weather/blockWeather.js'

/** From where a model's heat counts, and how that is known. */
export interface Start {
  day: number
  how: WatchForecast['biofix']['how']
  /** Heat from `day` at which the biofix is expected, where it has not come. */
  expected?: ExpectedBiofix
  /** Standard deviation of the day, where it is only expected. */
  daySd?: number
}

/**
 * Where heat starts: at the biofix that was entered; otherwise by the calendar, by chill, or, for a biofix that has to be seen, at
 * the season's start with the heat at which it is expected.
 */
export function startOf(
  model: Pick<OrganismModel, 'biofix'>,
  entered: string | null,
  block: BlockWeather,
  today: number,
  hemisphere: Hemisphere,
): Start {
  const { firstDay } = block.weather
  if (entered !== null) return { day: dayNumber(entered), how: 'entered' }
  const { biofix } = model
  if (!biofix) return { day: firstDay, how: 'none' }
  if (biofix.kind === 'date') return { day: calendarBiofix(biofix, firstDay, hemisphere), how: 'calendar' }
  if (biofix.kind !== 'chill') return { day: firstDay, how: 'expected', expected: biofix.expected }
  const chill = block.place && chillBiofix(biofix.portions, block.place.temperatures, firstDay, today)
  if (!chill) return { day: firstDay, how: 'none' }
  return { day: chill.day, how: chill.met ? 'chill' : 'chill-expected', ...(chill.met ? {} : { daySd: chill.sd }) }
}
