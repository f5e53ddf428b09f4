import { setTimeout as sleep } from 'node:timers/promises'
import { getSite } from '../sites/service.js'
import { reading, type Serving } from './serving.js'

/** Screens that wait for the band. */
const WITH_BAND = /^\/sites\/([\da-f-]{36})\/(?:windows|scouting|treatments|outcomes|site)\/?$/

/** Longer the page does not wait to be sent: it says itself when nothing answers. */
const PATIENCE_MS = 200

/** What the screen of an address reads first, as the page asks for it; nothing where that is not known at once. */
export async function readFirst(serving: Serving, path: string): Promise<string[]> {
  const [, siteId] = WITH_BAND.exec(path) ?? []
  if (!siteId) return []
  try {
    const known = reading(serving, ({ db, clock }) => getSite(db, clock, siteId))
    // Nobody waits for it any more once the page is sent.
    known.catch(() => undefined)
    const site = await Promise.race([known, sleep(PATIENCE_MS)])
    return site ? [`/api/v1/sites/${siteId}/band?season=${site.season.start}`, `/api/v1/sites/${siteId}/blocks`] : []
  } catch {
    // The page says itself what is wrong; it is sent all the same.
    return []
  }
}
