import { endpoints } from '@bocado/contract'
import type { Router } from 'express'
import { removeRow, restoreRow } from '../database/index.js'
import { read, write, type Deps } from '../http/route.js'
import { addProduct, changeProduct, getTreatment, moveTreatment, planTreatment, recordTreatment, weatherForWatch } from './service.js'
import { listProducts, listTreatments } from './store.js'

export function treatmentRoutes(router: Router, deps: Deps): void {
  const { treatments } = endpoints
  read(router, deps, treatments.products, ({ params }) => listProducts(deps.database, params.siteId))
  write(router, deps, treatments.addProduct, (ctx) => addProduct(ctx, ctx.input))
  write(router, deps, treatments.updateProduct, (ctx) => changeProduct(ctx, ctx.params.productId, ctx.input))
  read(router, deps, treatments.list, ({ params, input }) => listTreatments(deps.database, params.siteId, input.season))
  read(router, deps, treatments.weatherAt, ({ params, input }) => weatherForWatch(deps, params.siteId, params.watchId, input.at))
  write(router, deps, treatments.plan, (ctx) => planTreatment(ctx, ctx.input))
  write(router, deps, treatments.move, (ctx) => moveTreatment(ctx, ctx.params.treatmentId, ctx.input))
  write(router, deps, treatments.record, (ctx) => recordTreatment(ctx, deps, ctx.params.treatmentId, ctx.input))
  write(router, deps, treatments.remove, (ctx) => removeRow(ctx, 'treatment', ctx.params.treatmentId, ctx.input.rowVersion))
  write(router, deps, treatments.restore, async (ctx) => {
    await restoreRow(ctx, 'treatment', ctx.params.treatmentId, ctx.input.rowVersion)
    return getTreatment(ctx.tx, ctx.siteId, ctx.params.treatmentId)
  })
}
