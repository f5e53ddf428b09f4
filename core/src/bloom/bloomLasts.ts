import type { EventModel } from '../phenology/model.js'

/** Days to the end of a bloom are taken from its heat at this many °C·d a day: few, so that it is not held too short (from practice). */
const HEAT_A_DAY = 6
/** Bees still come to the last flowers (from practice). */
const AFTER_BLOOM_DAYS = 3

/** Events from which on a plant stands in flower. */
const IN_FLOWER: readonly string[] = ['first-open', 'full-bloom']

/**
 * Days after an event for which bees are taken to be on a plant; 0 for one that ends its bloom, Infinity for one before it, since the
 * bloom is then still to come, and where the plant's end of bloom is not known.
 *
 * @example bloomLasts([{ id: 'first-open', heat: 200 }, { id: 'end', heat: 290 }], 'first-open') // 18
 */
export function bloomLasts(events: readonly Pick<EventModel, 'id' | 'heat'>[], event: string): number {
  if (!IN_FLOWER.includes(event)) return event === 'bud' ? Infinity : 0
  const heatOf = (id: string): number | undefined => events.find((e) => e.id === id)?.heat
  const [from, end] = [heatOf(event), heatOf('end')]
  return from === undefined || end === undefined ? Infinity : Math.ceil((end - from) / HEAT_A_DAY) + AFTER_BLOOM_DAYS
}
