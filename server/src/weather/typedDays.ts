import type { ParsedInputOf, ResponseOf, weather } from '@bocado/contract'
import type { Write } from '../database/index.js'
import { fieldProblem } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { getSite } from '../sites/service.js'
import { mergeDays, mergeRows } from './readingStore.js'
import { getStation } from './stations.js'
import { lockStation } from './store.js'

/** Stores daily extremes that somebody typed. */
export async function typeDays(
  w: Write,
  deps: Deps,
  stationId: string,
  input: ParsedInputOf<typeof weather.typeDays>,
): Promise<ResponseOf<typeof weather.typeDays>> {
  await getStation(w.tx, w.siteId, stationId)
  const site = await getSite(w.tx, deps.clock, w.siteId)
  const seen = new Set<string>()
  input.days.forEach(({ day }, i) => {
    if (day > site.today) throw fieldProblem(`days.${i}.day`, `${day} lies in the future; enter days up to ${site.today}`)
    if (seen.has(day)) throw fieldProblem(`days.${i}.day`, `${day} stands twice; enter each day once`)
    seen.add(day)
  })
  await lockStation(w, stationId)
  return mergeDays(
    w,
    stationId,
    null,
    mergeRows(input.days, ({ day }) => Date.parse(day), [({ min }) => min, ({ max }) => max, ({ rain }) => rain]),
  )
}
