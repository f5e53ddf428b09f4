import type { Flag } from '@bocado/contract'
import { triage, type PatchToTake, type Triage } from '@bocado/core'

/** A patch as it is put on the season's list. */
export interface PatchInLine extends PatchToTake {
  flag: Flag
}

/** For a plant, where nobody measured, and to walk there and look. */
const MINUTES_PER_PLANT = 0.5
const MINUTES_TO_GO = 4
/** Plants where nobody counted. */
const SOME_PLANTS = 10
/** Metres of a degree of latitude. */
const DEGREE_M = 111_320

/** m between two flags; undefined where one of them stands nowhere known. */
function metres(a: Flag, b: Flag): number | undefined {
  if (!a.position || !b.position) return undefined
  const north = (a.position.latitude - b.position.latitude) * DEGREE_M
  const east = (a.position.longitude - b.position.longitude) * DEGREE_M * Math.cos((a.position.latitude * Math.PI) / 180)
  return Math.hypot(north, east)
}

const middle = (values: readonly number[]): number | undefined => values.toSorted((a, b) => a - b)[Math.floor((values.length - 1) / 2)]

/** Minutes for each plant, by the visits that took plants and were measured. */
export function minutesPerPlant(flags: readonly Flag[], organismId: string | null): number {
  const own = flags
    .filter((flag) => flag.organismId === organismId)
    .flatMap(({ visits }) =>
      visits.flatMap(({ methodId, minutes, plants }) => (methodId !== null && minutes !== null && plants ? [minutes / plants] : [])),
    )
  return middle(own) ?? MINUTES_PER_PLANT
}

/** Stages in which a patch is about to shed, by the words that entries have for them. */
const SHEDDING = /flower|pod|shed|bolt|\bseeds?\b/

/** What the user said of ground. */
export interface Ground {
  rank: number | null
  spreads: boolean
}

/**
 * Which patches that stand to take first within so many hours, and what is left for later.
 *
 * @param groundOf what the user said of the ground on which a flag stands
 */
export function patchesFirst(
  flags: readonly Flag[],
  hours: number,
  groundOf: (flag: Flag) => Ground = () => ({ rank: null, spreads: false }),
): Triage<PatchInLine> {
  const standing = flags.filter(({ state }) => state === 'found' || state === 'regrowing' || state === 'back')
  const minutes = new Map([...new Set(standing.map(({ organismId }) => organismId))].map((id) => [id, minutesPerPlant(flags, id)]))
  const patches = standing.map((flag): PatchInLine => {
    const apart = standing.flatMap((other) =>
      other.id !== flag.id && other.organismId === flag.organismId ? (metres(flag, other) ?? []) : [],
    )
    const plants = flag.last.plants ?? flag.visits.find((visit) => visit.plants !== null)?.plants ?? SOME_PLANTS
    return {
      id: flag.id,
      flag,
      ...groundOf(flag),
      plants,
      minutes: MINUTES_TO_GO + plants * (minutes.get(flag.organismId) ?? MINUTES_PER_PLANT),
      apartM: flag.position === null ? 0 : Math.min(Infinity, ...apart),
      // Where nobody said how far it is, it is taken as seeding: the mistake to be feared is the other one.
      seeds: flag.last.stage === null || SHEDDING.test(flag.last.stage),
    }
  })
  return triage(patches, hours * 60)
}
