import { calendarBiofix, chillBiofix } from '../phenology/biofix.js'
import type { ExpectedBiofix, OrganismModel } from '../phenology/model.js'
import type { Hemisphere } from '../time/civilDays.js'
import type { HourlySeries } from '../weather/fillHours.js'

/** From where a model's heat counts, and how that is known. */
export interface HeatStart {
  /** Day number; the season's first day where the biofix is only expected or there is none. */
  day: number
  how: 'entered' | 'calendar' | 'chill' | 'chill-expected' | 'expected' | 'none'
  /** Heat from `day` at which the biofix is expected, where it has not come. */
  expected?: ExpectedBiofix
  /** Standard deviation of the day, where it is only expected. */
  daySd?: number
}

/**
 * Where heat starts: at the biofix that was entered; otherwise by the calendar, by chill, or, for a biofix that has to be seen, at
 * the season's start with the heat at which it is expected.
 *
 * @param entered day number of the biofix that somebody entered; null where nobody has
 * @param season.temperatures °C by hour in standard time; undefined where no hours are known, and chill is then not either
 * @param season.today day number up to which hours are looked at
 */
export function heatStart(
  model: Pick<OrganismModel, 'biofix'>,
  entered: number | null,
  season: { firstDay: number; today: number; hemisphere: Hemisphere; temperatures: HourlySeries | undefined },
): HeatStart {
  const { firstDay, temperatures } = season
  if (entered !== null) return { day: entered, how: 'entered' }
  const { biofix } = model
  if (!biofix) return { day: firstDay, how: 'none' }
  if (biofix.kind === 'date') return { day: calendarBiofix(biofix, firstDay, season.hemisphere), how: 'calendar' }
  if (biofix.kind !== 'chill') return { day: firstDay, how: 'expected', expected: biofix.expected }
  const chill = temperatures && chillBiofix(biofix.portions, temperatures, firstDay, season.today)
  if (!chill) return { day: firstDay, how: 'none' }
  return { day: chill.day, how: chill.met ? 'chill' : 'chill-expected', ...(chill.met ? {} : { daySd: chill.sd }) }
}
