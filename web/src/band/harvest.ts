import type { Planting } from '@bocado/contract'
import { dayNumber, harvestFrom, harvestInTheWay, civilDate, type HarvestAhead } from '@bocado/core'

/** The harvest of a planting, as its calendar has it. */
export function harvestOf({ stages }: Pick<Planting, 'stages'>): HarvestAhead {
  const of = (id: string) => stages.find(({ stage }) => stage === id)
  const [first, last] = [of('first-harvest'), of('last-harvest')]
  return {
    begunOn: first?.seen ? dayNumber(first.seen.on) : null,
    endedOn: last?.seen ? dayNumber(last.seen.on) : null,
    expected: first?.expected ? { from: dayNumber(first.expected.from), until: dayNumber(first.expected.until) } : null,
  }
}

/** The harvest of a planting that a treatment would keep from being picked, and until when; null where none does, as far as is known. */
export function harvestWaiting(
  { stages }: Pick<Planting, 'stages'>,
  date: string,
  preHarvestDays: number,
): { how: 'under-way' | 'may-begin'; since: string; pickedFrom: string } | null {
  const first = stages.find(({ stage }) => stage === 'first-harvest')
  const treatedOn = dayNumber(date)
  const how = harvestInTheWay(treatedOn, preHarvestDays, harvestOf({ stages }))
  const since = first?.seen?.on ?? first?.expected?.from
  return how && since !== undefined ? { how, since, pickedFrom: civilDate(harvestFrom(treatedOn, preHarvestDays)) } : null
}
