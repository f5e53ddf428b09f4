import { endpoints } from '@bocado/contract'
import type { Router } from 'express'
import { removeRow } from '../database/index.js'
import { read, write, type Serving } from '../http/route.js'
import { addProgramme, changeProgramme, restoreProgramme } from './service.js'
import { listProgrammes } from './store.js'

export function programmeRoutes(router: Router, serving: Serving): void {
  const { programmes } = endpoints
  read(router, serving, programmes.list, ({ deps, params }) => listProgrammes(deps.db, params.siteId))
  write(router, serving, programmes.add, (ctx) => addProgramme(ctx, ctx.params.watchId, ctx.input))
  write(router, serving, programmes.update, (ctx) => changeProgramme(ctx, ctx.params.programmeId, ctx.input))
  write(router, serving, programmes.remove, (ctx) => removeRow(ctx, 'programme', ctx.params.programmeId, ctx.input.rowVersion))
  write(router, serving, programmes.restore, (ctx) => restoreProgramme(ctx, ctx.params.programmeId, ctx.input.rowVersion))
}
