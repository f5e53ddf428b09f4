import { endpoints } from '@bocado/contract'
import type { Router } from 'express'
import { organismsOf } from '../library/catalogue.js'
import { removeRow, restoreRow } from '../database/index.js'
import { read, write, type Serving } from '../http/route.js'
import { acceptCalibration, acceptClock, typeOwnClock, calibrationOf } from './calibration.js'
import { addCatches, addSighting, restoreRecord } from './eventRecords.js'
import { dropOwnFigure, setOwnFigures } from './models.js'
import { countingRules } from '../scouting/countingRules.js'
import { presentedOrganism } from './presented.js'
import { derivedState, getBand } from './band.js'
import { carryOn, changeWatch, createWatch, createWatches, restoreWatch, pastHeat, takeModel, watchFigures, watchMoves } from './service.js'
import { listWatches, presentedWatch } from './store.js'

export function watchRoutes(router: Router, serving: Serving): void {
  const { watches, calibration } = endpoints
  read(router, serving, watches.organisms, async ({ deps, params }) => {
    const [organisms, rules] = await Promise.all([organismsOf(deps.db, params.siteId), countingRules(deps.db, params.siteId)])
    return organisms.map((organism) => presentedOrganism(organism, rules.get(organism.id)))
  })
  read(router, serving, watches.list, async ({ deps, params, input }) =>
    (await listWatches(deps.db, params.siteId, input.season)).map(presentedWatch),
  )
  read(router, serving, watches.band, ({ deps, params, input }) => getBand(deps, params.siteId, input.season))
  read(router, serving, watches.derived, ({ deps, params }) => derivedState(deps, params.siteId))
  read(router, serving, watches.figures, ({ deps, params }) => watchFigures(deps, params.siteId, params.watchId))
  read(router, serving, watches.moves, ({ deps, params, input }) => watchMoves(deps, params.siteId, params.watchId, input.since))
  read(router, serving, watches.pastSeasons, ({ deps, params }) => pastHeat(deps, params.siteId, params.watchId))
  write(router, serving, watches.ownFigure, ({ input: { path, value, ...said }, ...ctx }) =>
    setOwnFigures(ctx, ctx.params.organismId, { ...said, figures: [{ path, value }] }),
  )
  write(router, serving, watches.ownFigures, (ctx) => setOwnFigures(ctx, ctx.params.organismId, ctx.input))
  write(router, serving, watches.dropOwnFigure, (ctx) => dropOwnFigure(ctx, ctx.params.organismId, ctx.input.path, ctx.input.blockId))
  write(router, serving, watches.takeModel, (ctx) => takeModel(ctx, ctx.params.watchId, ctx.input.rowVersion))
  write(router, serving, watches.create, (ctx) => createWatch(ctx, ctx.deps, ctx.input))
  write(router, serving, watches.createSeveral, (ctx) => createWatches(ctx, ctx.deps, ctx.input))
  write(router, serving, watches.carryOn, (ctx) => carryOn(ctx, ctx.deps, ctx.input))
  write(router, serving, watches.update, (ctx) => changeWatch(ctx, ctx.deps, ctx.params.watchId, ctx.input))
  write(router, serving, watches.remove, (ctx) => removeRow(ctx, 'watch', ctx.params.watchId, ctx.input.rowVersion))
  write(router, serving, watches.restore, async (ctx) => {
    return restoreWatch(ctx, ctx.params.watchId, ctx.input.rowVersion)
  })

  read(router, serving, calibration.get, ({ deps, params }) => calibrationOf(deps, params.siteId, params.watchId))
  write(router, serving, calibration.addSighting, (ctx) => addSighting(ctx, ctx.deps, ctx.params.watchId, ctx.input))
  write(router, serving, calibration.addCatches, (ctx) => addCatches(ctx, ctx.deps, ctx.params.watchId, ctx.input))
  write(router, serving, calibration.accept, (ctx) => acceptCalibration(ctx, ctx.deps, ctx.params.watchId, ctx.input.event))
  write(router, serving, calibration.takeClock, (ctx) => acceptClock(ctx, ctx.deps, ctx.params.watchId, ctx.input.event))
  write(router, serving, calibration.typeClock, (ctx) => typeOwnClock(ctx, ctx.deps, ctx.params.watchId, ctx.input))
  write(router, serving, calibration.dropClock, (ctx) => removeRow(ctx, 'own_clock', ctx.params.clockId, ctx.input.rowVersion))
  write(router, serving, calibration.restoreClock, async (ctx) => {
    const { clockId: id } = ctx.params
    await restoreRow(ctx, 'own_clock', id, ctx.input.rowVersion)
    return { id, rowVersion: ctx.input.rowVersion + 1 }
  })
  write(router, serving, calibration.removeRecord, (ctx) => removeRow(ctx, 'event_record', ctx.params.recordId, ctx.input.rowVersion))
  write(router, serving, calibration.restoreRecord, (ctx) => restoreRecord(ctx, ctx.params.recordId, ctx.input.rowVersion))
}
