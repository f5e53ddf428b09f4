import { endpoints, id } from '@bocado/contract'
import type { Router } from 'express'
import { z } from 'zod'
import { removeRow } from '../database/index.js'
import { csvOf } from '../http/csv.js'
import { download, read, write, type Serving } from '../http/route.js'
import { organismsOf } from '../library/catalogue.js'
import { importVarietyLooks } from './lookFile.js'
import { addVarietyLook, changeVarietyLook, restoreVarietyLook, varietiesHere } from './service.js'
import { listVarietyLooks } from './store.js'

export function varietyRoutes(router: Router, serving: Serving): void {
  const { varieties } = endpoints
  read(router, serving, varieties.get, ({ deps, params, input }) => varietiesHere(deps.db, params.siteId, input.organismId))
  write(router, serving, varieties.add, (ctx) => addVarietyLook(ctx, ctx.deps, ctx.input))
  write(router, serving, varieties.importLooks, (ctx) => importVarietyLooks(ctx, ctx.deps, ctx.input))
  write(router, serving, varieties.update, (ctx) => changeVarietyLook(ctx, ctx.deps, ctx.params.lookId, ctx.input))
  write(router, serving, varieties.remove, (ctx) => removeRow(ctx, 'variety_look', ctx.params.lookId, ctx.input.rowVersion))
  write(router, serving, varieties.restore, (ctx) => restoreVarietyLook(ctx, ctx.params.lookId, ctx.input.rowVersion))

  /** Every look at every variety, for whatever else shall be made of it. */
  download(router, serving, '/sites/:siteId/variety-looks.csv', z.object({ siteId: id }), z.object({}), async ({ db }, { siteId }) => {
    const organisms = await organismsOf(db, siteId)
    return {
      type: 'text/csv',
      fileName: 'variety-looks.csv',
      body: csvOf({
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
    }
  })
}
