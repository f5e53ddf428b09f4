import { getSite } from '../sites/service.js'
import { reading, type Serving } from './serving.js'

/** Screens that wait for the band. */
const WITH_BAND = /^\/sites\/([\da-f-]{36})\/(?:windows|scouting|treatments|outcomes|site)\/?$/

/** What the screen of an address reads first, as the page asks for it. */
export async function readFirst(serving: Serving, path: string): Promise<string[]> {
  const [, siteId] = WITH_BAND.exec(path) ?? []
  if (!siteId) return []
  try {
    const { season } = await reading(serving, ({ db, clock }) => getSite(db, clock, siteId))
    return [`/api/v1/sites/${siteId}/band?season=${season.start}`, `/api/v1/sites/${siteId}/blocks`]
  } catch {
    // The page says itself what is wrong; it is sent all the same.
    return []
  }
}
