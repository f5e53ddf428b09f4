import { endpoints } from '@bocado/contract'
import type { Router } from 'express'
import { removeRow, restoreRow } from '../database/index.js'
import { read, write, type Serving } from '../http/route.js'
import { addPlace, addPlaces, changePlace, fitsAgain, getPlace } from './service.js'
import { listPlaces } from './store.js'

export function placeRoutes(router: Router, serving: Serving): void {
  const { places } = endpoints
  read(router, serving, places.list, ({ deps, params }) => listPlaces(deps.db, params.siteId))
  write(router, serving, places.create, (ctx) => addPlace(ctx, ctx.input))
  write(router, serving, places.createSeveral, (ctx) => addPlaces(ctx, ctx.input))
  write(router, serving, places.update, (ctx) => changePlace(ctx, ctx.params.placeId, ctx.input))
  write(router, serving, places.remove, async (ctx) => {
    await getPlace(ctx, ctx.params.placeId)
    return removeRow(ctx, 'place', ctx.params.placeId, ctx.input.rowVersion)
  })
  write(router, serving, places.restore, async (ctx) => {
    await restoreRow(ctx, 'place', ctx.params.placeId, ctx.input.rowVersion)
    return fitsAgain(ctx, ctx.params.placeId)
  })
}
