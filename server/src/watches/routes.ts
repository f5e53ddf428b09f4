import { endpoints } from '@bocado/contract'
import type { Router } from 'express'
import { organismsOf } from '../library/catalogue.js'
import { removeRow, restoreRow } from '../database/index.js'
import { read, write, type Deps } from '../http/route.js'
import { acceptCalibration, calibrationOf } from './calibration.js'
import { addCatches, addSighting } from './eventRecords.js'
import { dropOwnFigure, setOwnFigures } from './models.js'
import { presentedOrganism } from './presented.js'
import { changeWatch, createWatch, getBand, getWatch, pastHeat, takeModel, watchFigures, watchMoves } from './service.js'
import { listWatches, presentedWatch } from './store.js'

export function watchRoutes(router: Router, deps: Deps): void {
  const { watches, calibration } = endpoints
  read(router, deps, watches.organisms, async ({ params }) => (await organismsOf(deps.database, params.siteId)).map(presentedOrganism))
  read(router, deps, watches.list, async ({ params, input }) =>
    (await listWatches(deps.database, params.siteId, input.season)).map(presentedWatch),
  )
  read(router, deps, watches.band, ({ params, input }) => getBand(deps, params.siteId, input.season))
  read(router, deps, watches.figures, ({ params }) => watchFigures(deps, params.siteId, params.watchId))
  read(router, deps, watches.moves, ({ params, input }) => watchMoves(deps, params.siteId, params.watchId, input.since))
  read(router, deps, watches.pastSeasons, ({ params }) => pastHeat(deps, params.siteId, params.watchId))
  write(router, deps, watches.ownFigure, ({ input: { path, value, ...said }, ...ctx }) =>
    setOwnFigures(ctx, ctx.params.organismId, { ...said, figures: [{ path, value }] }),
  )
  write(router, deps, watches.ownFigures, (ctx) => setOwnFigures(ctx, ctx.params.organismId, ctx.input))
  write(router, deps, watches.dropOwnFigure, (ctx) => dropOwnFigure(ctx, ctx.params.organismId, ctx.input.path, ctx.input.blockId))
  write(router, deps, watches.takeModel, (ctx) => takeModel(ctx, ctx.params.watchId, ctx.input.rowVersion))
  write(router, deps, watches.create, (ctx) => createWatch(ctx, deps, ctx.input))
  write(router, deps, watches.update, (ctx) => changeWatch(ctx, deps, ctx.params.watchId, ctx.input))
  write(router, deps, watches.remove, (ctx) => removeRow(ctx, 'watch', ctx.params.watchId, ctx.input.rowVersion))
  write(router, deps, watches.restore, async (ctx) => {
    await restoreRow(ctx, 'watch', ctx.params.watchId, ctx.input.rowVersion)
    return presentedWatch(await getWatch(ctx.tx, ctx.siteId, ctx.params.watchId))
  })

  read(router, deps, calibration.get, ({ params }) => calibrationOf(deps, params.siteId, params.watchId))
  write(router, deps, calibration.addSighting, (ctx) => addSighting(ctx, deps, ctx.params.watchId, ctx.input))
  write(router, deps, calibration.addCatches, (ctx) => addCatches(ctx, deps, ctx.params.watchId, ctx.input))
  write(router, deps, calibration.accept, (ctx) => acceptCalibration(ctx, deps, ctx.params.watchId, ctx.input.event))
  write(router, deps, calibration.removeRecord, (ctx) => removeRow(ctx, 'event_record', ctx.params.recordId, ctx.input.rowVersion))
  write(router, deps, calibration.restoreRecord, async (ctx) => {
    const { recordId: id } = ctx.params
    await restoreRow(ctx, 'event_record', id, ctx.input.rowVersion)
    return { id, rowVersion: ctx.input.rowVersion + 1 }
  })
}
