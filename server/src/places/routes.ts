import { endpoints } from '@bocado/contract'
import type { Router } from 'express'
import { removeRow, restoreRow, updateRow } from '../database/index.js'
import { read, write, type Serving } from '../http/route.js'
import { addPlace, addPlaces, changePlace, fitsAgain, getPlace } from './service.js'
import { addPlantEvent, plantEvents, restorePlantEvent } from './plantEvents.js'
import { listPlaces } from './store.js'

export function placeRoutes(router: Router, serving: Serving): void {
  const { places } = endpoints
  read(router, serving, places.list, ({ deps, params }) => listPlaces(deps.db, params.siteId))
  write(router, serving, places.create, (ctx) => addPlace(ctx, ctx.input))
  write(router, serving, places.createSeveral, (ctx) => addPlaces(ctx, ctx.input))
  write(router, serving, places.update, (ctx) => changePlace(ctx, ctx.params.placeId, ctx.input))
  write(router, serving, places.rank, async (ctx) => {
    const { rank, spreads, rowVersion } = ctx.input
    await updateRow(ctx, 'place', ctx.params.placeId, rowVersion, { walk_rank: rank, spreads })
    return { id: ctx.params.placeId, rowVersion: rowVersion + 1 }
  })
  read(router, serving, places.events, ({ deps, params }) => plantEvents(deps.db, params.siteId))
  write(router, serving, places.addEvent, (ctx) => addPlantEvent(ctx, ctx.deps, ctx.input))
  write(router, serving, places.removeEvent, (ctx) => removeRow(ctx, 'plant_event', ctx.params.plantEventId, ctx.input.rowVersion))
  write(router, serving, places.restoreEvent, (ctx) => restorePlantEvent(ctx, ctx.params.plantEventId, ctx.input.rowVersion))
  write(router, serving, places.remove, async (ctx) => {
    await getPlace(ctx, ctx.params.placeId)
    return removeRow(ctx, 'place', ctx.params.placeId, ctx.input.rowVersion)
  })
  write(router, serving, places.restore, async (ctx) => {
    await restoreRow(ctx, 'place', ctx.params.placeId, ctx.input.rowVersion)
    return fitsAgain(ctx, ctx.params.placeId)
  })
}
