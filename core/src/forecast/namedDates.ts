import type { HeatRule } from '../heat/rule.js'
import { boundsOfDates, ensembleOf } from '../phenology/ensemble.js'
import { datesOf } from '../phenology/eventForecast.js'
import type { Bounds } from '../statistics/quantile.js'
import { dayOf, seasonLater, yearOf, type Hemisphere } from '../time/civilDays.js'
import { makeAnew, type Keep } from './keep.js'
import { heatFrom } from './placedModel.js'
import type { SeasonAtPlace } from './seasonAtPlace.js'

/** A published sum of heat to an event, without the rest of the organism's year. */
export interface NamedFigure {
  rule: HeatRule
  /** °C·d from the start, and how far the figure may lie off. */
  heat: number
  heatSe: number
}

/** How far a sum that somebody typed may lie off, as a share of it: nobody says it of such figures. */
export const TYPED_HEAT_ERROR = 0.12

/** Day number of a month and day of the northern hemisphere in the season that starts on a day; half a year later in the south. */
export function dayInSeason(month: number, day: number, firstDay: number, hemisphere: Hemisphere): number {
  const there = hemisphere === 'south' ? ((month + 5) % 12) + 1 : month
  const own = dayOf(yearOf(firstDay), there, day)
  return own < firstDay ? dayOf(yearOf(firstDay) + 1, there, day) : Math.min(own, seasonLater(firstDay, 1) - 1)
}

/** When an event comes by a published sum of heat from a day on; undefined without weather. */
export function namedDates(figure: NamedFigure, startDay: number, at: SeasonAtPlace, keep: Keep = makeAnew): Bounds | undefined {
  const heat = heatFrom(at, { heat: figure.rule }, startDay, keep)
  if (heat.members.length === 0) return undefined
  const ensemble = ensembleOf(heat)
  const event = {
    generation: '',
    id: '',
    stage: '',
    spread: { kind: 'normal' as const, median: figure.heat, sd: 1 },
    heatSe: figure.heatSe,
  }
  return boundsOfDates(datesOf(event, 0.5, heat.members, ensemble.scores), ensemble)
}
