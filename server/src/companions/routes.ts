import { endpoints } from '@bocado/contract'
import type { Router } from 'express'
import { removeRow } from '../database/index.js'
import { read, write, type Serving } from '../http/route.js'
import { addCompanion, changeCompanion, companionsOf, restoreCompanion } from './service.js'

export function companionRoutes(router: Router, serving: Serving): void {
  const { companions } = endpoints
  read(router, serving, companions.list, ({ deps, params }) => companionsOf(deps.db, deps.clock, params.siteId))
  write(router, serving, companions.add, (ctx) => addCompanion(ctx, ctx.deps, ctx.input))
  write(router, serving, companions.update, (ctx) => changeCompanion(ctx, ctx.deps, ctx.params.companionId, ctx.input))
  write(router, serving, companions.remove, (ctx) => removeRow(ctx, 'companion', ctx.params.companionId, ctx.input.rowVersion))
  write(router, serving, companions.restore, (ctx) => restoreCompanion(ctx, ctx.deps, ctx.params.companionId, ctx.input.rowVersion))
}
