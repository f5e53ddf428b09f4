import { endpoints } from '@bocado/contract'
import type { Router } from 'express'
import { read, write, type Serving } from '../http/route.js'
import { addFind, addWork, helpDay } from './service.js'

export function helpingRoutes(router: Router, serving: Serving): void {
  const { helping } = endpoints
  read(router, serving, helping.day, ({ deps, params, input, personId }) => helpDay(deps, params.siteId, personId, input))
  write(router, serving, helping.find, (ctx) => addFind(ctx, ctx.deps, ctx.input))
  write(router, serving, helping.work, (ctx) => addWork(ctx, ctx.deps, ctx.input))
}
