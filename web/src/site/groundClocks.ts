import type { WatchForecast } from '@bocado/contract'
import { civilDate, dayNumber } from '@bocado/core/time'

/** Until when nobody enters a block (a moment), and nothing is picked there (a civil day), by what was used; null where neither holds. */
export function clocksOf(
  rows: readonly Pick<WatchForecast, 'watch' | 'treatments'>[],
  blockId: string,
  now: number,
  today: string,
): { entry: string | null; harvest: string | null } {
  const done = rows
    .filter(({ watch }) => watch.blockId === blockId)
    .flatMap(({ treatments }) => treatments.flatMap((one) => one.done ?? []))
  const entry = done.flatMap(({ reEntryUntil }) => (reEntryUntil !== null && Date.parse(reEntryUntil) > now ? [reEntryUntil] : []))
  const harvest = done.flatMap(({ label, day }) => {
    const from = label ? civilDate(dayNumber(day) + label.preHarvestDays) : ''
    return from > today ? [from] : []
  })
  return { entry: entry.sort().at(-1) ?? null, harvest: harvest.sort().at(-1) ?? null }
}
