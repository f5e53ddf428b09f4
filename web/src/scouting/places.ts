import type { CountedPlace, PlantHeight } from '@bocado/contract'
import type { CountingPlan } from '../band/countingPlan.js'

/** Where nothing else is said: two sample units at each of five places are the ten without which nothing is decided. */
const UNITS_A_PLACE = 2

/** How many sample units one looks at before one goes on to another place. */
export const unitsAPlace = (plan: Pick<CountingPlan, 'leastUnits' | 'leastPlaces'> | null): number =>
  plan ? Math.max(1, Math.ceil(plan.leastUnits / plan.leastPlaces)) : UNITS_A_PLACE

/** The place of a sample unit, with its number from 1 on; null where nobody kept the places. */
export function placeAt(places: readonly CountedPlace[] | null, unit: number): { place: CountedPlace; number: number } | null {
  const index = places?.findLastIndex(({ from }) => from <= unit) ?? -1
  const place = places?.[index]
  return place ? { place, number: index + 1 } : null
}

/** The places when a sample unit more is looked at: at the same place, or at another one that lies as the last did, once it has had enough. */
export function withNext(places: readonly CountedPlace[], units: number, aPlace: number): CountedPlace[] {
  const last = places.at(-1)
  return last && units - last.from < aPlace ? [...places] : [...places, { from: units, edge: last?.edge ?? null }]
}

/** Without the sample units from the end that were left out, places that began there are none. */
export const placesWithin = (places: readonly CountedPlace[] | null, units: number): CountedPlace[] | null =>
  places && places.filter(({ from }) => from < units)

/** A sample unit begins another place, or stands at the one before after all. */
export function togglePlace(places: readonly CountedPlace[], unit: number): CountedPlace[] {
  if (unit === 0) return [...places]
  const without = places.filter(({ from }) => from !== unit)
  if (without.length < places.length) return without
  const edge = placeAt(places, unit)?.place.edge ?? null
  return [...places, { from: unit, edge }].toSorted((a, b) => a.from - b.from)
}

/**
 * Where on the plant the next sample unit is taken to be: whoever went from low to top goes on so; else where the last one was.
 */
export function nextHeight(heights: readonly (PlantHeight | null)[]): PlantHeight | null {
  const last = heights.at(-1) ?? null
  const before = heights.slice(0, -1).lastIndexOf(last)
  return before < 0 ? last : (heights[before + 1] ?? null)
}

/** The heights of so many sample units: those beyond what was said were not said. */
export const heightsOf = (heights: readonly (PlantHeight | null)[] | null | undefined, units: number): (PlantHeight | null)[] | null =>
  heights ? Array.from({ length: units }, (_, i) => heights[i] ?? null) : null
