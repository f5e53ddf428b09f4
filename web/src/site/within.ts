import type { Place } from '@bocado/contract'

/** All parts of a place, each before those that lie in it. */
export const withinOf = (places: readonly Place[], parentId: string): Place[] =>
  places.filter((place) => place.parentId === parentId).flatMap((place) => [place, ...withinOf(places, place.id)])
