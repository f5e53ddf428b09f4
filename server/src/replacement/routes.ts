import { endpoints } from '@bocado/contract'
import type { Router } from 'express'
import { removeRow } from '../database/index.js'
import { read, write, type Serving } from '../http/route.js'
import {
  addReplacement,
  addWanted,
  changeReplacement,
  changeWanted,
  removeReplacement,
  replacementsOf,
  restoreReplacement,
  restoreWanted,
} from './service.js'

export function replacementRoutes(router: Router, serving: Serving): void {
  const { replacement } = endpoints
  read(router, serving, replacement.list, ({ deps, params }) => replacementsOf(deps.db, params.siteId))
  write(router, serving, replacement.addWanted, (ctx) => addWanted(ctx, ctx.input))
  write(router, serving, replacement.updateWanted, (ctx) => changeWanted(ctx, ctx.params.wantedPlantId, ctx.input))
  write(router, serving, replacement.removeWanted, (ctx) => removeRow(ctx, 'wanted_plant', ctx.params.wantedPlantId, ctx.input.rowVersion))
  write(router, serving, replacement.restoreWanted, (ctx) => restoreWanted(ctx, ctx.params.wantedPlantId, ctx.input.rowVersion))
  write(router, serving, replacement.add, (ctx) => addReplacement(ctx, ctx.input))
  write(router, serving, replacement.update, (ctx) => changeReplacement(ctx, ctx.deps, ctx.params.replacementId, ctx.input))
  write(router, serving, replacement.remove, (ctx) => removeReplacement(ctx, ctx.params.replacementId, ctx.input.rowVersion))
  write(router, serving, replacement.restore, (ctx) => restoreReplacement(ctx, ctx.params.replacementId, ctx.input.rowVersion))
}
