import type { Organism, WatchForecast } from '@bocado/contract'
import { isCrossed, thresholdOf } from '../band/threshold.js'
import { urgencyOf } from '../band/urgency.js'

/** Which rows are shown: all, or those that ask for something. */
export const SHOWN = ['all', 'over', 'open', 'coming', 'moved'] as const

/** Its last count in the block is over the threshold that holds for it; also where it was decided to leave it. */
export function overThreshold(row: WatchForecast, organisms: readonly Organism[] | undefined): boolean {
  const organism = organisms?.find(({ id }) => id === row.watch.organismId)
  const last = row.rounds.filter(({ checkAreaId }) => checkAreaId === null).at(-1)
  const threshold = organism ? thresholdOf(row.watch, organism) : null
  return last !== undefined && threshold !== null && isCrossed(last.per100, threshold)
}

/** What was decided on its last count holds: it is not yet the day to look again. */
export const isLeft = ({ decision }: WatchForecast, today: string): boolean => decision !== null && decision.lookAgainOn > today

export const groupOf = (row: WatchForecast): string => {
  const urgency = urgencyOf(row)
  return urgency === 'open' || urgency === 'closing' ? 'now' : urgency === 'coming' ? 'coming' : 'quiet'
}

export function isShown(
  row: WatchForecast,
  show: (typeof SHOWN)[number],
  organisms: readonly Organism[] | undefined,
  today: string,
): boolean {
  if (show === 'over') return overThreshold(row, organisms) && !isLeft(row, today)
  if (show === 'open') return groupOf(row) === 'now'
  if (show === 'coming') return groupOf(row) === 'coming'
  return show === 'all' || row.moved !== null
}
