import { alertFacts } from '../alerts/facts.js'
import { keepTold } from '../alerts/service.js'
import { HttpProblem } from '../http/problems.js'
import { reading, writing, type Serving } from '../http/serving.js'

/**
 * Works out what is worth telling of a site, and tells what was not told before.
 *
 * @returns how much is new
 */
export async function tellSite(serving: Serving, siteId: string): Promise<number> {
  const found = await reading(serving, (deps) =>
    alertFacts(deps, siteId).catch((error: unknown) => {
      // A site that was removed meanwhile has nothing to tell.
      if (error instanceof HttpProblem && error.status === 404) return undefined
      throw error
    }),
  )
  return found ? writing(serving, ({ db }) => keepTold(db, found)) : 0
}
