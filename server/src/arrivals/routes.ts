import { endpoints } from '@bocado/contract'
import type { Router } from 'express'
import { removeRow } from '../database/index.js'
import { read, write, type Serving } from '../http/route.js'
import { addArrival, changeArrival, listArrivals, restoreArrival } from './service.js'

export function arrivalRoutes(router: Router, serving: Serving): void {
  const { arrivals } = endpoints
  read(router, serving, arrivals.list, ({ deps, params }) => listArrivals(deps.db, params.siteId))
  write(router, serving, arrivals.add, (ctx) => addArrival(ctx, ctx.deps, ctx.input))
  write(router, serving, arrivals.update, (ctx) => changeArrival(ctx, ctx.deps, ctx.params.arrivalId, ctx.input))
  write(router, serving, arrivals.remove, (ctx) => removeRow(ctx, 'arrival', ctx.params.arrivalId, ctx.input.rowVersion))
  write(router, serving, arrivals.restore, (ctx) => restoreArrival(ctx, ctx.params.arrivalId, ctx.input.rowVersion))
}
