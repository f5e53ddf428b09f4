import { moveByShift, type SeasonShift } from '../bloom/seasonShift.js'
import { ensembleOf } from '../phenology/ensemble.js'
import { eventBounds } from '../phenology/eventForecast.js'
import { resolveEvents, type EventModel, type OrganismModel } from '../phenology/model.js'
import type { Bounds } from '../statistics/quantile.js'
import { heatStart } from './heatStart.js'
import { makeAnew, type Keep } from './keep.js'
import { heatFrom } from './placedModel.js'
import type { SeasonAtPlace } from './seasonAtPlace.js'

/** A plant whose blooms heat tells: its events count from one start. */
export interface BloomModel extends Pick<OrganismModel, 'heat' | 'biofix'> {
  events: readonly EventModel[]
}

/**
 * Days of the season on which half of a plant's blooms have reached each of its events, as heat brings them; undefined where no start or
 * no weather is known.
 *
 * @param today day number up to which chill is looked at
 * @param shift by how much this season's blooms have been seen to differ, on their scale; undefined where none was seen
 */
export function bloomDates(
  plant: BloomModel,
  at: SeasonAtPlace,
  today: number,
  shift?: Pick<SeasonShift, 'heat' | 'sd' | 'prior'>,
  keep: Keep = makeAnew,
): Bounds[] | undefined {
  const { firstDay } = at.weather
  const { hemisphere, place } = at
  const start = heatStart(plant, null, { firstDay, today, hemisphere, temperatures: place?.temperatures })
  if (start.how === 'none') return undefined
  const heat = heatFrom(at, plant, start.day, keep)
  if (heat.members.length === 0) return undefined
  const generations = [{ id: 'bloom', reachableStages: [], events: plant.events }]
  const resolved = resolveEvents({ generations }, start.expected)
  return eventBounds(shift ? moveByShift(resolved, shift) : resolved, 0.5, ensembleOf(heat))
}
