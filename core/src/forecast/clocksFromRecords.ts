import { boundsOfDates, ensembleOf } from '../phenology/ensemble.js'
import { dayOfHeat } from '../phenology/eventDates.js'
import { ownClock, scoresOfFew, type ClockSeason, type OwnClock } from '../phenology/ownClock.js'
import type { Bounds } from '../statistics/quantile.js'
import { seasonLater } from '../time/civilDays.js'
import { seasonHeat } from '../weather/seasonHeat.js'
import { seasonWeather } from '../weather/seasonWeather.js'
import type { DatedEvent } from './calibrationFromRecords.js'
import { makeAnew, type Keep } from './keep.js'
import { heatFrom } from './placedModel.js'
import type { SeasonAtPlace } from './seasonAtPlace.js'

/** What dates of an event make without any figure of it, season by season and together. */
export interface EventClock {
  event: string
  /** Seasons that count, with the day number of the event. */
  dated: { season: number; day: number }[]
  /** Seasons of which the weather up to the event is not known; day numbers of their first days. */
  left: number[]
  /** Undefined with fewer than three seasons. */
  clock: OwnClock | undefined
}

const ruleAbove = (lower: number) => ({ method: 'single-sine' as const, lower })
/** Days after the event that a season is looked at, so that a late prediction still has its date. */
const DAYS_AFTER = 60

/**
 * The clock that the first sightings of each event make: heat from the season's first day, above a threshold of their own. Where only
 * "half of them" was dated in a season, that season is left out.
 *
 * @param today day number up to which weather is known
 */
export function clocksFromRecords(records: readonly DatedEvent[], { place }: Pick<SeasonAtPlace, 'place'>, today: number): EventClock[] {
  const firsts = records.filter(({ kind }) => kind === 'first')
  return [...new Set(firsts.map(({ event }) => event))].map((event) => {
    const left: number[] = []
    const dated: EventClock['dated'] = []
    const seasons = [...new Set(firsts.filter((r) => r.event === event).map(({ season }) => season))].flatMap((season): ClockSeason[] => {
      const seen = firsts.filter((r) => r.event === event && r.season === season).sort((a, b) => a.seenOn - b.seenOn)[0]
      if (!seen) return []
      const end = Math.min(seasonLater(season, 1), today, seen.seenOn + DAYS_AFTER)
      const weather = place && seasonWeather({ series: place.series, firstDay: season, today: end })
      const through = seen.seenOn - season
      if (!weather || seasonHeat(weather, ruleAbove(0), season).members.length === 0) {
        left.push(season)
        return []
      }
      // A look without it and one with it: it came between both.
      const day = ((seen.lookedBefore ?? seen.seenOn) + seen.seenOn + 1) / 2 - season
      dated.push({ season, day: season + Math.floor(Math.min(day, through)) })
      return [{ day, heatAbove: (lower) => seasonHeat(weather, ruleAbove(lower), season).median.slice(0, end - season) }]
    })
    return { event, dated, left, clock: ownClock(seasons) }
  })
}

/** When a clock that was accepted tells its event in a season; undefined without weather. */
export function clockDates(
  clock: Pick<OwnClock, 'lower' | 'heat' | 'heatSe' | 'df'>,
  at: SeasonAtPlace,
  keep: Keep = makeAnew,
): Bounds | undefined {
  const heat = heatFrom(at, { heat: ruleAbove(clock.lower) }, at.weather.firstDay, keep)
  if (heat.members.length === 0) return undefined
  const ensemble = ensembleOf(heat)
  const scores = scoresOfFew(ensemble.scores, clock.df)
  const dates = ensemble.members.map(({ cumulative }, m) => dayOfHeat(cumulative, clock.heat + (scores[m] ?? 0) * clock.heatSe))
  return boundsOfDates(dates, ensemble)
}
