import { endpoints } from '@bocado/contract'
import type { Router } from 'express'
import { removeRow } from '../database/index.js'
import { read, write, type Serving } from '../http/route.js'
import { addPlanting, addStage, changePlanting, knownCrops, plantingsOf, restoreOne } from './service.js'

export function cropRoutes(router: Router, serving: Serving): void {
  const { crops } = endpoints
  read(router, serving, crops.known, () => Promise.resolve(knownCrops()))
  read(router, serving, crops.list, ({ deps, params, input }) => plantingsOf(deps, params.siteId, input.season))
  write(router, serving, crops.add, (ctx) => addPlanting(ctx, ctx.deps, ctx.input))
  write(router, serving, crops.update, (ctx) => changePlanting(ctx, ctx.deps, ctx.params.plantingId, ctx.input))
  write(router, serving, crops.remove, (ctx) => removeRow(ctx, 'planting', ctx.params.plantingId, ctx.input.rowVersion))
  write(router, serving, crops.restore, (ctx) => restoreOne(ctx, 'planting', ctx.params.plantingId, ctx.input.rowVersion))
  write(router, serving, crops.addStage, (ctx) => addStage(ctx, ctx.deps, ctx.input))
  write(router, serving, crops.removeStage, (ctx) => removeRow(ctx, 'crop_stage', ctx.params.recordId, ctx.input.rowVersion))
  write(router, serving, crops.restoreStage, (ctx) => restoreOne(ctx, 'crop_stage', ctx.params.recordId, ctx.input.rowVersion))
}
