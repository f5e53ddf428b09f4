import { endpoints } from '@bocado/contract'
import type { RequestHandler, Router } from 'express'
import { rateLimit } from 'express-rate-limit'
import { z } from 'zod'
import { removeRow } from '../database/index.js'
import { HttpProblem } from '../http/problems.js'
import { download, read, write, type Serving } from '../http/route.js'
import { addLink, flagFind, lookAtFindLink, refuseFind, restoreLink, sendFind } from './service.js'
import { findPhoto, listFinds, listLinks } from './store.js'

/** Of anybody, from one address: enough for a school class behind one router, too little to guess codes or to fill an inbox. */
const LOOKS_PER_MINUTE = 40
const SENDS_PER_MINUTE = 10

const PHOTO = z.object({ siteId: z.uuid(), findId: z.uuid() })

/** Links for finds, their inbox, and what people without an account send. @param address under which phones reach this server */
export function findRoutes(router: Router, serving: Serving, address: string | undefined): void {
  const { finds } = endpoints
  const slowly = (limit: number): RequestHandler =>
    rateLimit({
      windowMs: 60_000,
      limit,
      standardHeaders: 'draft-8',
      legacyHeaders: false,
      handler: () => {
        throw new HttpProblem(429, 'Too many from one place in a minute. Wait a minute and go on.', { retryAfter: 60 })
      },
    })
  router.post(finds.look.path, slowly(LOOKS_PER_MINUTE))
  router.post(finds.send.path, slowly(SENDS_PER_MINUTE))
  write(router, serving, finds.look, ({ deps, input }) => lookAtFindLink(deps, input.code))
  write(router, serving, finds.send, ({ deps, tx, input }) => sendFind({ ...deps, db: tx }, input))
  read(router, serving, finds.links, ({ deps, params }) => listLinks(deps.db, params.siteId, address))
  write(router, serving, finds.addLink, (ctx) => addLink(ctx, ctx.deps, ctx.input, address))
  write(router, serving, finds.removeLink, (ctx) => removeRow(ctx, 'find_link', ctx.params.findLinkId, ctx.input.rowVersion))
  write(router, serving, finds.restoreLink, (ctx) => restoreLink(ctx, ctx.params.findLinkId, ctx.input.rowVersion, address))
  read(router, serving, finds.inbox, ({ deps, params }) => listFinds(deps.db, params.siteId))
  write(router, serving, finds.flag, (ctx) => flagFind(ctx, ctx.deps, ctx.params.findId, ctx.input))
  write(router, serving, finds.refuse, (ctx) => refuseFind(ctx, ctx.params.findId, ctx.input))
  download(router, serving, '/sites/:siteId/finds/:findId/jpeg', PHOTO, z.object({}), async ({ db }, { siteId, findId }) => ({
    type: 'image/jpeg',
    body: await findPhoto(db, siteId, findId),
    cache: 'private, max-age=86400, immutable',
  }))
}
