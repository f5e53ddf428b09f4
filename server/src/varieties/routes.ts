import { endpoints } from '@bocado/contract'
import type { Router } from 'express'
import { removeRow } from '../database/index.js'
import { read, write, type Deps } from '../http/route.js'
import { addVarietyLook, restoreVarietyLook, varietiesHere } from './service.js'

export function varietyRoutes(router: Router, deps: Deps): void {
  const { varieties } = endpoints
  read(router, deps, varieties.get, ({ params, input }) => varietiesHere(deps.database, params.siteId, input.organismId))
  write(router, deps, varieties.add, (ctx) => addVarietyLook(ctx, deps, ctx.input))
  write(router, deps, varieties.remove, (ctx) => removeRow(ctx, 'variety_look', ctx.params.lookId, ctx.input.rowVersion))
  write(router, deps, varieties.restore, (ctx) => restoreVarietyLook(ctx, ctx.params.lookId, ctx.input.rowVersion))
}
