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
