/** What was said of an order of living material; day numbers. */
export interface Supply {
  orderedOn: number | null
  arrivedOn: number | null
  /** Share that was alive under a lens when it came, 0 to 1; null: nobody looked. */
  alive: number | null
}

/**
 * Where an order stands: nothing is known of how long it takes; it is to be ordered; too late to come in time; ordered; on the day on which it
 * should be there; there; kept for too long; mostly dead.
 */
export const supplyStates = ['unknown', 'order', 'late', 'ordered', 'due', 'there', 'stale', 'dead'] as const
export type SupplyState = (typeof supplyStates)[number]

/** Below this share alive it is not worth putting out: ask for another (from practice). */
export const LEAST_ALIVE = 0.5

/** It should be there a day before it is put out: what comes late or dead can then still be put off, not lost. */
const SPARE_DAYS = 1

/**
 * The last day on which something living can be ordered for a day, with a day to spare where it keeps for one.
 *
 * @param p.orderDays days from order to delivery; null where nobody said
 * @param p.keepsDays days for which it keeps once it is there; 0: it is put out on the day it comes
 * @returns day number; null where nothing is known of how long it takes
 */
export function orderBy(p: { plannedOn: number; orderDays: number | null; keepsDays: number | null }): number | null {
  return p.orderDays === null ? null : p.plannedOn - p.orderDays - Math.min(SPARE_DAYS, p.keepsDays ?? 0)
}

/** The last day on which it can be put out once it is there; null before it is, or where nobody said for how long it keeps. */
export const usableUntil = ({ arrivedOn }: Supply, keepsDays: number | null): number | null =>
  arrivedOn === null || keepsDays === null ? null : arrivedOn + keepsDays

/** Where an order stands today. */
export function supplyState(
  p: { plannedOn: number; orderDays: number | null; keepsDays: number | null },
  supply: Supply,
  today: number,
): SupplyState {
  if (supply.arrivedOn !== null) {
    if (supply.alive !== null && supply.alive < LEAST_ALIVE) return 'dead'
    const until = usableUntil(supply, p.keepsDays)
    return until !== null && today > until ? 'stale' : 'there'
  }
  if (supply.orderedOn !== null) return p.orderDays !== null && supply.orderedOn + p.orderDays <= today ? 'due' : 'ordered'
  const last = orderBy(p)
  if (last === null) return 'unknown'
  return today + (p.orderDays ?? 0) > p.plannedOn ? 'late' : 'order'
}
