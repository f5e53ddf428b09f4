import { ALL_SITES, id } from '@bocado/contract'
import type { Request, Response, Router } from 'express'
import { callerAt, requireNeed, signInOf } from '../http/identity.js'
import { z } from 'zod'
import type { Queryable, Row } from '../database/index.js'
import { HttpProblem } from '../http/problems.js'
import { parse } from '../http/route.js'
import { reading, type Serving } from '../http/serving.js'
import type { Changes } from './changes.js'

/** One browser has one stream, however many pages it shows. */
const MOST_STREAMS = 500
const MOST_SITES = 50
/** What lies between the browser and here cuts a connection on which nothing comes. */
const ALIVE_EVERY_MS = 20_000
const TRY_AGAIN_MS = 2000

const query = z.object({
  sites: z
    .string()
    .default('')
    .transform((text) => [...new Set(text.split(',').filter(Boolean))])
    .pipe(z.array(id).max(MOST_SITES, { error: `name at most ${MOST_SITES} sites` })),
})

/** At how many of these sites somebody works. */
async function sitesOf(db: Queryable, personId: string, sites: readonly string[]): Promise<number> {
  if (sites.length === 0) return 0
  const [[row]] = await db.query<Row[]>(
    'SELECT COUNT(*) AS n FROM site_person WHERE person_id = ? AND left_at IS NULL AND site_id IN (?)',
    [personId, sites],
  )
  return Number(row!['n'])
}

/**
 * The stream of what changes at sites, and in the list of sites, as server-sent events: `versions` with a site's id and the versions of
 * its aspects that have risen; the first of a site has all of them. A page that lost its stream compares that with what it holds, so it
 * misses nothing, whichever server it comes back to.
 */
export function changeRoutes(router: Router, serving: Serving, changes: Changes): void {
  /** Who may look at all of these sites, and still may while they listen. */
  const requireLooker = (token: string | undefined, sites: readonly string[]): Promise<void> =>
    reading(serving, async ({ db }) => {
      const caller = await callerAt(db, token, undefined)
      requireNeed('signed-in', caller, undefined)
      const { personId = '', phoneSite } = caller ?? {}
      const isElsewhere = phoneSite !== undefined && sites.some((id) => id !== phoneSite)
      if (isElsewhere || (await sitesOf(db, personId, sites)) < sites.length) throw new HttpProblem(404, 'There is no such site.')
    })
  router.get('/changes', async (req: Request, res: Response) => {
    const { sites } = parse(query, req.query)
    const token = signInOf(req)
    await requireLooker(token, sites)
    if (changes.listeners >= MOST_STREAMS)
      throw new HttpProblem(503, 'Too many pages listen here. This one asks by itself until there is room.', { retryAfter: 30 })
    res.writeHead(200, {
      'Content-Type': 'text/event-stream',
      'Cache-Control': 'no-store, no-transform',
      'X-Accel-Buffering': 'no',
    })
    res.write(`retry: ${TRY_AGAIN_MS}\n\n`)
    const say = (siteId: string, versions: unknown): void => {
      res.write(`event: versions\ndata: ${JSON.stringify({ siteId, versions })}\n\n`)
    }
    const leave = changes.view([ALL_SITES, ...sites], say, () => res.end())
    const alive = setInterval(() => {
      requireLooker(token, sites).then(
        () => res.write(': here\n\n'),
        // Whoever signed out or left the site hears nothing more; while the database is away nobody is let go.
        (error: unknown) => (error instanceof HttpProblem && error.status < 500 ? res.end() : res.write(': here\n\n')),
      )
    }, ALIVE_EVERY_MS)
    res.once('close', () => {
      leave()
      clearInterval(alive)
    })
  })
}
