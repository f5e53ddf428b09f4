import { sunTimes } from '../derived/sun.js'
import { moveByShift } from '../bloom/seasonShift.js'
import { ensembleOf, boundsOfDates, type Ensemble } from '../phenology/ensemble.js'
import { datesOf } from '../phenology/eventForecast.js'
import { generationsByDiapause } from '../phenology/generations.js'
import { resolveEvents, type ExpectedBiofix, type OrganismModel, type ResolvedEvent } from '../phenology/model.js'
import type { Bounds } from '../statistics/quantile.js'
import { seasonHeat, type SeasonHeat } from '../weather/seasonHeat.js'
import { heatStart, type HeatStart } from './heatStart.js'
import { endDays } from './seasonEnd.js'
import { makeAnew, type Keep } from './keep.js'
import type { SeasonAtPlace } from './seasonAtPlace.js'

/** How far what was seen in bloom moves a season, on the scale of the blooms. */
export interface BloomPush {
  heat: number
  sd: number
  prior: number
  /** What that is in days, at the heat of these weeks. */
  days: number
}

/** A model on the weather of a season: its heat, its events where they lie, and what of the population goes through each. */
export interface PlacedModel {
  start: HeatStart
  heat: SeasonHeat
  ensemble: Ensemble
  events: ResolvedEvent[]
  /** Share of the population in each generation, in the order of the model. */
  shares: number[]
  /** By how much blooms have moved the events, in their own °C·d; null where they have not. */
  moved: { heat: number; sd: number } | null
  /** What ends its season beside heat, with the day of each draw. */
  ends: ReturnType<typeof endDays>
}

/** The season's heat of a model from where it starts; the same for every model with the same rule and start. */
export const heatFrom = (
  { weather }: Pick<SeasonAtPlace, 'weather'>,
  { heat }: Pick<OrganismModel, 'heat'>,
  startDay: number,
  keep: Keep = makeAnew,
): SeasonHeat => keep(`heat ${JSON.stringify(heat)} ${startDay}`, () => seasonHeat(weather, heat, startDay))

/** °C·d that a day brings over the two weeks from an index of the season on, by the median. */
export function dailyHeatFrom({ median }: Pick<SeasonHeat, 'median'>, index: number): number {
  return ((median[Math.min(median.length - 1, index + 13)] ?? 0) - (median[index] ?? 0)) / 13
}

/** °C·d a day in these weeks, by the median: two weeks back and one ahead. */
export function dailyHeatNow({ median, todayIndex }: Pick<SeasonHeat, 'median' | 'todayIndex'>): number {
  const to = Math.min(median.length - 1, todayIndex + 7)
  const from = Math.max(0, to - 21)
  return ((median[to] ?? 0) - (median[from] ?? 0)) / Math.max(1, to - from)
}

/**
 * Where the biofix lies on the heat that counts from the start, and how well it is known; undefined where it was seen. A start that is
 * off by days is off by what heat those days bring.
 */
function expectedFrom({ day, expected, daySd }: HeatStart, heat: SeasonHeat): ExpectedBiofix | undefined {
  if (expected) return expected
  return daySd === undefined ? undefined : { heat: 0, heatSe: daySd * dailyHeatFrom(heat, Math.max(0, day - heat.firstDay)) }
}

/**
 * Puts a model on the weather: start, heat, events and generations. The one way in which a forecast of dates begins.
 *
 * @param entered day number of the biofix that somebody entered; null where nobody has
 * @param bloom what blooms say of the season; undefined where they say nothing, or the model does not follow them
 */
export function placeModel(
  model: OrganismModel,
  entered: number | null,
  at: Pick<SeasonAtPlace, 'weather' | 'hemisphere' | 'position' | 'utcOffsetMinutes' | 'place'>,
  bloom?: BloomPush,
  keep: Keep = makeAnew,
): PlacedModel {
  const { firstDay, todayIndex } = at.weather
  const start = heatStart(model, entered, {
    firstDay,
    today: firstDay + todayIndex,
    hemisphere: at.hemisphere,
    temperatures: at.place?.temperatures,
  })
  const heat = heatFrom(at, model, start.day, keep)
  const resolved = resolveEvents(model, expectedFrom(start, heat))
  const moved = movedBy(bloom, start, heat)
  const shifted = moved && bloom ? moveByShift(resolved, { ...moved, prior: bloom.prior }) : resolved
  const { position, utcOffsetMinutes } = at
  const { shares, events } = position
    ? generationsByDiapause(model, shifted, heat.median, (index) => sunTimes(firstDay + index, position, utcOffsetMinutes).dayLength)
    : { shares: model.generations.map(() => 1), events: shifted }
  const ends = heat.members.length > 0 ? endDays(model.ends ?? [], at) : []
  return { start, heat, ensemble: ensembleOf(heat), events, shares, moved, ends }
}

/**
 * A shift by bloom on the scale of a model: as many days, at its own heat of these weeks. A biofix that was seen stands closer to the
 * organism than any bloom, so nothing is moved from there on.
 */
function movedBy(bloom: BloomPush | undefined, start: HeatStart, heat: SeasonHeat): PlacedModel['moved'] {
  if (!bloom || start.how === 'entered' || start.how === 'none' || bloom.heat === 0) return null
  const daily = dailyHeatNow(heat)
  const scale = bloom.days !== 0 && daily > 0 ? (bloom.days * daily) / bloom.heat : 1
  return { heat: bloom.heat * scale, sd: bloom.sd * Math.abs(scale) }
}

/** When a biofix that nobody entered is expected, in days of the season; null where it is not expected, or nothing is known to say so. */
export function expectedBiofix({ start, heat, ensemble }: Pick<PlacedModel, 'start' | 'heat' | 'ensemble'>): Bounds | null {
  const { expected } = start
  if (!expected || heat.members.length === 0) return null
  const at: ResolvedEvent = {
    generation: '',
    id: 'biofix',
    stage: '',
    spread: { kind: 'normal', median: expected.heat, sd: 1 },
    heatSe: expected.heatSe,
  }
  return boundsOfDates(datesOf(at, 0.5, heat.members, ensemble.scores), ensemble)
}
