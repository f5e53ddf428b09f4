import type { Threshold, WatchForecast } from '@bocado/contract'
import { actionPer100, civilDate, crossing, dayNumber } from '@bocado/core'

export { actionPer100 }

/** Days between which something reaches its threshold if it goes on as it was counted, with the days in which it doubles. */
export interface CrossingDays {
  from: string
  middle: string
  /** null: it may not be reached within the weeks that are looked at. */
  until: string | null
  doublingDays: number
}

/**
 * When what breeds on reaches its threshold, by the counts of the block since the last treatment; null where that is not known. A threshold that
 * is only a guess is none, so nothing rests on it.
 */
export function crossingOf(row: WatchForecast, threshold: Threshold | null, today: string): CrossingDays | null {
  if (!row.breedsOn || !threshold || threshold.from === 'every-one' || threshold.per100 <= 0) return null
  const treated = row.treatments.flatMap(({ done }) => (done ? [done.day] : [])).sort()
  const since = treated.at(-1) ?? ''
  const rounds = row.rounds.filter(({ checkAreaId, countedOn }) => checkAreaId === null && countedOn > since)
  const counts = rounds.map(({ countedOn, per100, units, unit }) => ({
    day: dayNumber(countedOn),
    per100,
    onePer100: 100 / (units.length * unit.items),
  }))
  const found = crossing(counts, threshold.per100)
  const last = counts.at(-1)
  if (!found || !last) return null
  const dayOf = (ahead: number): string => civilDate(last.day + Math.round(ahead))
  // What should have been reached by now was not counted since: it says when to count, not when it was.
  if (dayOf(found.p50) < today) return null
  return {
    from: dayOf(found.p10) < today ? today : dayOf(found.p10),
    middle: dayOf(found.p50),
    until: found.p90 === null ? null : dayOf(found.p90),
    doublingDays: found.doublingDays,
  }
}
