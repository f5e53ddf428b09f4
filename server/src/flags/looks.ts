import type { Flag } from '@bocado/contract'
import { dayNumber, detectionsOf, probabilityAbsent, type EmptyLook } from '@bocado/core'
import { flatFrom } from '../ground/geometry.js'
import type { StoredPlace } from '../places/store.js'
import type { StoredFlag, StoredSearch, StoredVisit } from './store.js'

/** A look at a flag as the rules of core see it, and the share of its ground that was seen. */
export interface Look {
  day: number
  sight: StoredVisit['sight']
  isTreated: boolean
  by: string
  covered: number
}

export const lookOf = ({ seenOn, sight, methodId, taken, personName }: StoredVisit): Look => ({
  day: dayNumber(seenOn),
  sight,
  isTreated: methodId !== null || taken !== null,
  by: personName,
  covered: 1,
})

/** Whoever walks with a track sees so far to each side, as long as the width was not said. m. */
const USUAL_REACH_M = 2

/** Share of the ground of a flag that a search saw; 0 where it went past it out of sight. */
function coveredBy({ track, viewM, covered }: StoredSearch, { position }: StoredFlag): number {
  if (track && position) {
    const flat = flatFrom([position.longitude, position.latitude])
    const reach = viewM === null ? USUAL_REACH_M : viewM / 2
    const near = track.some((line) => distanceToLine([0, 0], line.map(flat)) <= reach + (position.accuracyM ?? 0))
    return near ? 1 : 0
  }
  return covered?.share ?? 1
}

type Point = readonly [number, number]

/** m from a point to a way. */
function distanceToLine([x, y]: Point, line: readonly Point[]): number {
  let least = Infinity
  line.forEach(([bx, by], i) => {
    const [ax, ay] = line[i - 1] ?? [bx, by]
    const [dx, dy] = [bx - ax, by - ay]
    const long = dx * dx + dy * dy
    const share = long === 0 ? 0 : Math.min(1, Math.max(0, ((x - ax) * dx + (y - ay) * dy) / long))
    least = Math.min(least, Math.hypot(x - ax - share * dx, y - ay - share * dy))
  })
  return least
}

/**
 * Every look at a flag in the order of days: its visits, and the searches of its ground that found nothing of it. A search that found
 * something does not say at which flag, and tells nothing of the others.
 */
export function looksAt(
  flag: StoredFlag,
  visits: readonly StoredVisit[],
  searches: readonly StoredSearch[],
  isWithin: (placeId: string, around: string) => boolean,
): Look[] {
  const first = visits[0]?.seenOn ?? ''
  const empty = searches.flatMap((search): Look[] => {
    const { found, organismIds, searchedOn, placeId, personName } = search
    if (found || flag.organismId === null || !organismIds.includes(flag.organismId)) return []
    if (searchedOn < first || !isWithin(flag.placeId, placeId)) return []
    const covered = coveredBy(search, flag)
    return covered > 0 ? [{ day: dayNumber(searchedOn), sight: 'none', isTreated: false, by: personName, covered }] : []
  })
  const own = visits.map(lookOf)
  // On one day what was seen at the flag itself comes last: it is the closer look.
  return [...empty, ...own].sort((a, b) => a.day - b.day)
}

/** How a place lies within another: whether it is it, or lies in it. */
export const withinOf =
  (places: ReadonlyMap<string, StoredPlace>) =>
  (placeId: string, around: string): boolean => {
    if (placeId === around) return true
    const parent = places.get(placeId)?.parentId
    return parent ? withinOf(places)(parent, around) : false
  }

/** How likely it is absent before anybody looked, as the user says of a flag. */
const PRIOR_ABSENT = { likely: 0.2, even: 0.5, unlikely: 0.8 } as const

const isUp = ({ sight }: Pick<Look, 'sight'>): boolean => sight === 'standing' || sight === 'regrowing'

/** How likely nothing is left above the ground; null as long as nobody measured how much a look overlooks, or it still stands. */
export function absentOf(looks: readonly Look[], prior: Flag['prior'], share: number | undefined): Flag['absent'] {
  const since = looks.slice(looks.findLastIndex(isUp) + 1)
  if (share === undefined || since.length === 0) return null
  const empty = since.map(({ day, by, covered }): EmptyLook => ({ day, by, covered }))
  const detection = detectionsOf(empty, Math.min(share, 0.99))
  return { probability: probabilityAbsent({ prior: PRIOR_ABSENT[prior ?? 'likely'], detection }), looks: detection.length }
}
