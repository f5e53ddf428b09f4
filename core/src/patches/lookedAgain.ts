import { SAME_EYES_DAYS } from './flagState.js'

/** A look that found nothing; `day` a day number. */
export interface EmptyLook {
  day: number
  by: string
  /** Share of the ground that was seen, 0 to 1. */
  covered: number
}

/**
 * The chance of each look that counts to have seen what stands there: share of the ground × share that one look finds. Looks of one person
 * within a fortnight count as one, that which saw most.
 *
 * @example detectionsOf([{ day: 100, by: 'a', covered: 1 }, { day: 105, by: 'a', covered: 0.5 }, { day: 106, by: 'b', covered: 0.5 }], 0.8) // [0.8, 0.4]
 */
export function detectionsOf(looks: readonly EmptyLook[], share: number): number[] {
  const counted: EmptyLook[] = []
  for (const look of looks.toSorted((a, b) => a.day - b.day)) {
    const before = counted.findIndex(({ by, day }) => by === look.by && look.day - day < SAME_EYES_DAYS)
    const known = counted[before]
    if (!known) counted.push(look)
    else if (look.covered > known.covered) counted[before] = { ...known, covered: look.covered }
  }
  return counted.map(({ covered }) => covered * share)
}
