import type { CountedPlace, Enemies, PlantHeight, SampleUnit, Scale } from '@bocado/contract'
import type { Spent } from './spent.js'
import type { Unit } from './unitLines.js'

/** What else is counted on the same walk: from which sample unit on, and whether enough of it was seen. */
export interface Along {
  from: number
  units: Unit[]
  isOver: boolean
}

/** A round that is being counted and not stored yet. */
export interface HeldCount extends Record<string, unknown> {
  checkAreaId: string | null
  countedOn: string | null
  /** By which unit it is counted; not there in what an older page held. */
  unit?: SampleUnit | null
  units: Unit[]
  note: string
  /** Where it is another place; null where nobody keeps that. */
  places?: CountedPlace[] | null
  /** Where on the plant each sample unit was, where that is kept. */
  heights?: (PlantHeight | null)[] | null
  scale?: Scale
  enemies?: Enemies
  /** As they were typed; null: as the taps tell. */
  minutes?: number | null
  /** What was picked or crushed on the way. */
  taken?: number | null
  takenUnit?: string
  spent?: Spent
  /** By watch. */
  along?: Record<string, Along>
}

const keyOf = (id: string): string => `bocado.count.${id}`

/** What was tallied and not yet saved outlives a closed page. */
export function heldCount(id: string): HeldCount | null {
  try {
    const held = JSON.parse(localStorage.getItem(keyOf(id)) ?? 'null') as HeldCount | null
    return held && held.units.length > 0 ? held : null
  } catch {
    return null
  }
}

/** Holds it; a screen that was only looked at holds nothing: its date would come back on another day. */
export function holdCount(id: string, count: HeldCount): void {
  const begun = count.note !== '' || count.units.length > 1 || count.units.some(isTallied)
  if (begun) localStorage.setItem(keyOf(id), JSON.stringify(count))
  else dropCount(id)
}

export const dropCount = (id: string): void => localStorage.removeItem(keyOf(id))

/** Whether anything was tallied at a unit; one where something was found and taken back counts as looked at. */
export const isTallied = (unit: Unit): boolean => Object.keys(unit).length > 0

/** The unit that a count goes on with: the last one. Those before it are finished. */
export const goesOnAt = ({ units }: Pick<HeldCount, 'units'>): number => units.length - 1

/** Enough was seen of it: the sample unit in hand counts where anything was tallied at it, or where it is the only one. */
export const enough = (along: Along): Along => ({
  ...along,
  units: along.units.length > 1 && !isTallied(along.units.at(-1) ?? {}) ? along.units.slice(0, -1) : along.units,
  isOver: true,
})

/** Whether no sample unit was passed since, so that it can be gone on with as if nothing had been said. */
export const mayGoOn = ({ from, units }: Along, last: number): boolean => from + units.length >= last

export const goOn = (along: Along, last: number): Along => ({
  ...along,
  units: along.from + along.units.length > last ? along.units : [...along.units, {}],
  isOver: false,
})
