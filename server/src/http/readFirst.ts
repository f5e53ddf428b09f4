import { setTimeout as sleep } from 'node:timers/promises'
import { getSite } from '../sites/service.js'
import { callerAt } from './identity.js'
import { reading, type Serving } from './serving.js'

/** Screens that wait for the band. */
const WITH_BAND = /^\/sites\/([\da-f-]{36})\/(?:windows|scouting|treatments|outcomes|site)\/?$/
const SESSION = '/api/v1/session'

/** Longer the page does not wait to be sent: it says itself when nothing answers. */
const PATIENCE_MS = 200

/** What the page of an address begins with: what its screen reads, and whether it is the door. */
export interface Beginning {
  reads: string[]
  isDoor: boolean
}

/**
 * What the screen of an address reads first, as the page asks for it; as little as is sure where more is not known at once. Nothing is read
 * ahead for who is not signed in: what was refused would be taken for the answer after they came in.
 *
 * @param token of the sign-in that the browser shows
 */
export async function readFirst(serving: Serving, path: string, token: string | undefined): Promise<Beginning> {
  if (path === '/come-in' || path === '/pair' || path === '/found') return { reads: [], isDoor: false }
  if (token === undefined) return { reads: [SESSION], isDoor: true }
  const [, siteId] = WITH_BAND.exec(path) ?? []
  const asked = reading(serving, async ({ db, clock }): Promise<Beginning> => {
    const caller = await callerAt(db, token, siteId)
    if (!caller) return { reads: [SESSION], isDoor: true }
    const first = ['/api/v1/sites', SESSION]
    if (siteId === undefined || caller.role === undefined) return { reads: first, isDoor: false }
    const { season } = await getSite(db, clock, siteId)
    const of = `/api/v1/sites/${siteId}`
    return { reads: [...first, `${of}/band?season=${season.start}`, `${of}/blocks`, `${of}/organisms`], isDoor: false }
  }).catch((): undefined => undefined)
  return (await Promise.race([asked, sleep(PATIENCE_MS)])) ?? { reads: [], isDoor: false }
}
