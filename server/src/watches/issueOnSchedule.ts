import type { Deps } from '../http/route.js'
import { getSites } from '../sites/service.js'
import { getBand } from './service.js'

/** A weather forecast comes about every six hours; between them little changes. */
const HOURS_BETWEEN = 6
const LOOK_EVERY_MS = 60_000

/** When forecasts of each site were issued last by this process, by the site's own clock. */
export type LastIssued = Map<string, { today: string; at: number }>

/**
 * Issues the forecasts of every site for which a new day has begun, or six hours have gone by, so that they are kept though nobody
 * looks. Several processes may do so beside each other: what says the same is kept once.
 *
 * @returns how many sites it issued for
 */
export async function issueWhatIsDue(deps: Deps, last: LastIssued): Promise<number> {
  const at = (await deps.clock.now(deps.database)).getTime()
  let issued = 0
  for (const { id, today, season } of await getSites(deps.database, deps.clock)) {
    const before = last.get(id)
    if (before && before.today === today && Math.abs(at - before.at) < HOURS_BETWEEN * 3_600_000) continue
    await getBand(deps, id, season.start)
    last.set(id, { today, at })
    issued++
  }
  return issued
}

/** Looks every minute whether forecasts are due. Ends with the process, and never keeps it alive. */
export function issueOnSchedule(deps: Deps, onFault: (error: unknown) => void): void {
  const last: LastIssued = new Map()
  let busy = false
  setInterval(() => {
    if (busy) return
    busy = true
    issueWhatIsDue(deps, last)
      .catch(onFault)
      .finally(() => (busy = false))
  }, LOOK_EVERY_MS).unref()
}
