import { alertFacts } from '../alerts/facts.js'
import { keepTold } from '../alerts/service.js'
import { HttpProblem } from '../http/problems.js'
import { reading, writing, type Deps, type Serving } from '../http/serving.js'
import { getSite } from '../sites/service.js'

/** Of a site that is archived nothing is worth telling any more. */
async function factsOfLiving(deps: Deps, siteId: string): Promise<Awaited<ReturnType<typeof alertFacts>> | undefined> {
  const { archivedAt } = await getSite(deps.db, deps.clock, siteId)
  return archivedAt === null ? alertFacts(deps, siteId) : undefined
}

/**
 * Works out what is worth telling of a site, and tells what was not told before.
 *
 * @returns how much is new
 */
export async function tellSite(serving: Serving, siteId: string): Promise<number> {
  const found = await reading(serving, (deps) =>
    factsOfLiving(deps, siteId).catch((error: unknown) => {
      // A site that was removed meanwhile has nothing to tell.
      if (error instanceof HttpProblem && error.status === 404) return undefined
      throw error
    }),
  )
  return found ? writing(serving, ({ db }) => keepTold(db, found)) : 0
}
