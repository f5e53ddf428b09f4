import { endpoints, id } from '@bocado/contract'
import type { Request, Response, Router } from 'express'
import Papa from 'papaparse'
import { removeRow } from '../database/index.js'
import { parse, read, write, type Deps } from '../http/route.js'
import { organismsOf } from '../library/catalogue.js'
import { addVarietyLook, restoreVarietyLook, varietiesHere } from './service.js'
import { listVarietyLooks } from './store.js'

export function varietyRoutes(router: Router, deps: Deps): void {
  const { varieties } = endpoints
  const db = deps.database
  read(router, deps, varieties.get, ({ params, input }) => varietiesHere(db, params.siteId, input.organismId))
  write(router, deps, varieties.add, (ctx) => addVarietyLook(ctx, deps, ctx.input))
  write(router, deps, varieties.remove, (ctx) => removeRow(ctx, 'variety_look', ctx.params.lookId, ctx.input.rowVersion))
  write(router, deps, varieties.restore, (ctx) => restoreVarietyLook(ctx, ctx.params.lookId, ctx.input.rowVersion))

  /** Every look at every variety, for whatever else shall be made of it. */
  router.get('/sites/:siteId/variety-looks.csv', async (req: Request, res: Response) => {
    const siteId = parse(id, req.params['siteId'])
    const organisms = await organismsOf(db, siteId)
    res.type('text/csv').attachment('variety-looks.csv')
    res.send(
      Papa.unparse({
        fields: ['date', 'block', 'organism', 'variety', 'part', 'looked', 'hit', 'degree_percent', 'note', 'observer'],
        data: (await listVarietyLooks(db, siteId, null)).map((look) => [
          look.lookedOn,
          look.blockName,
          organisms.find((organism) => organism.id === look.organismId)?.name ?? look.organismId,
          look.variety,
          look.part,
          look.looked,
          look.hit,
          look.degree ?? '',
          look.note,
          look.personName,
        ]),
      }),
    )
  })
}
