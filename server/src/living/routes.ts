import { endpoints } from '@bocado/contract'
import type { Router } from 'express'
import { removeRow } from '../database/index.js'
import { read, write, type Serving } from '../http/route.js'
import { addReading, livingAt, noteSupply, restoreReading } from './service.js'

export function livingRoutes(router: Router, serving: Serving): void {
  const { living } = endpoints
  read(router, serving, living.read, ({ deps, params }) => livingAt(deps, params.siteId))
  write(router, serving, living.note, (ctx) => noteSupply(ctx, ctx.deps, ctx.input))
  write(router, serving, living.readSoil, (ctx) => addReading(ctx, ctx.deps, ctx.input))
  write(router, serving, living.removeReading, (ctx) => removeRow(ctx, 'soil_reading', ctx.params.readingId, ctx.input.rowVersion))
  write(router, serving, living.restoreReading, (ctx) => restoreReading(ctx, ctx.params.readingId, ctx.input.rowVersion))
}
