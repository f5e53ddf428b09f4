import { endpoints } from '@bocado/contract'
import type { Request, Response, Router } from 'express'
import { callerAt, requireNeed, signInOf } from '../http/identity.js'
import { read, write, type Serving } from '../http/route.js'
import { reading } from '../http/serving.js'
import { dataOf, erasePerson, listLeft } from './service.js'

/** What is kept of people: shown to themselves, and ended when they have left. */
export function privacyRoutes(router: Router, serving: Serving): void {
  const { privacy } = endpoints
  read(router, serving, privacy.left, ({ deps, params }) => listLeft(deps.db, params.siteId))
  write(router, serving, privacy.erase, (ctx) => erasePerson(ctx, ctx.params.personId, ctx.input.rowVersion))
  router.get('/account/data.json', async (req: Request, res: Response) => {
    const data = await reading(serving, async ({ db }) => {
      const caller = await callerAt(db, signInOf(req), undefined)
      requireNeed('self', caller, undefined)
      return dataOf(db, caller?.personId ?? '')
    })
    res
      .attachment('kept-of-me.json')
      .type('application/json')
      .send(JSON.stringify(data, null, 2))
  })
}
