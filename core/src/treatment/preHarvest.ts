/**
 * First day on which a crop may be harvested after a treatment: as many whole days later as its label says; on the same day where it says none.
 *
 * @param treatedOn day number of the treatment, by the clock of the place
 * @param days pre-harvest interval of the label, in days
 * @returns day number
 */
export const harvestFrom = (treatedOn: number, days: number): number => treatedOn + days

/** A treatment as its days to harvest see it. */
export interface HarvestWaitsFor {
  treatedOn: number
  preHarvestDays: number
}

/** Treatments done up to a day whose pre-harvest interval is not over on it; what was done after the harvest keeps nothing waiting. */
export const keepingWaiting = <T extends HarvestWaitsFor>(done: readonly T[], day: number): T[] =>
  done.filter(({ treatedOn, preHarvestDays }) => treatedOn <= day && day < harvestFrom(treatedOn, preHarvestDays))

/** The harvest of a crop as its calendar has it, in day numbers. */
export interface HarvestAhead {
  /** The first was picked on; null where nobody has said so. */
  begunOn: number | null
  /** The last was picked on. */
  endedOn: number | null
  /** When the first is expected; null where it was picked, or where nothing is known. */
  expected: { from: number; until: number } | null
}

/**
 * What a treatment would keep from being picked: a harvest that is under way, or one that may begin before its pre-harvest interval is over.
 *
 * @param treatedOn day number of the treatment
 * @param preHarvestDays of the label; without any nothing is kept
 * @returns null where nothing stands in the way, as far as the calendar knows
 * @example
 * harvestInTheWay(170, 14, { begunOn: null, endedOn: null, expected: { from: 180, until: 200 } }) // 'may-begin'
 */
export function harvestInTheWay(
  treatedOn: number,
  preHarvestDays: number,
  { begunOn, endedOn, expected }: HarvestAhead,
): 'under-way' | 'may-begin' | null {
  const pickedFrom = harvestFrom(treatedOn, preHarvestDays)
  if (pickedFrom === treatedOn || (endedOn !== null && endedOn < treatedOn)) return null
  if (begunOn !== null) return begunOn < pickedFrom ? 'under-way' : null
  return expected !== null && expected.from < pickedFrom && expected.until >= treatedOn ? 'may-begin' : null
}
