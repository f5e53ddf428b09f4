import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { promisify } from 'node:util'
import type { Request, Response, Router } from 'express'
import { z } from 'zod'
import { HttpProblem } from '../http/problems.js'
import { signInOf } from '../http/identity.js'
import { parse, requireCaller, type Serving } from '../http/route.js'
import { reading } from '../http/serving.js'
import { findSite } from '../sites/store.js'
import { exportSite } from './exportSite.js'

const params = z.object({ siteId: z.uuid() })

/** Packages that are made at the same time: each reads a whole site. */
const AT_ONCE = 2

/** Everything of a site as one file, from the page; it is made on the disk and sent from there, so that no site is too large for it. */
export function packageRoutes(router: Router, serving: Serving): void {
  let made = 0
  router.get('/sites/:siteId/package', async (req: Request, res: Response) => {
    const { siteId } = parse(params, req.params)
    const site = await reading(serving, async ({ db }) => {
      await requireCaller(db, 'lead', signInOf(req), siteId)
      return findSite(db, siteId)
    })
    if (!site) throw new HttpProblem(404, 'There is no such site.')
    if (made >= AT_ONCE) throw new HttpProblem(503, 'Two packages are being made already. Ask again in a minute.')
    made++
    let folder: string | undefined
    try {
      folder = await mkdtemp(join(tmpdir(), 'bocado-package-'))
      const path = join(folder, 'site.zip')
      await serving.database.alone((connection) => exportSite(connection, siteId, path, new Date()))
      const name = site.name.replaceAll(/[^\p{L}\p{N}]+/gu, '-')
      const send = promisify((to: string, as: string, done: (error?: Error) => void) => res.download(to, as, done))
      // Whoever leaves while it is sent wants it no more.
      await send(path, `bocado-${name}.zip`).catch((error: unknown) => {
        if (!res.headersSent) throw error
      })
    } finally {
      made--
      if (folder !== undefined) await rm(folder, { recursive: true, force: true })
    }
  })
}
