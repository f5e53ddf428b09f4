import { endpoints } from '@bocado/contract'
import type { Router } from 'express'
import { removeRow, restoreRow } from '../database/index.js'
import { csvOf } from '../http/csv.js'
import { download, read, write, type Serving } from '../http/route.js'
import { listWatches, organismOf } from '../watches/store.js'
import { getTreatment, moveTreatment, planTreatment, recordTreatment, recordUnplanned, weatherForWatch } from './service.js'
import { hoursOfWatch } from './hours.js'
import { jobSheetOf } from './sheet.js'
import { lateOf } from './late.js'
import { recordTable } from './recordTable.js'
import { addProduct, changeProduct } from './shelf.js'
import { importShelf, shelfAsJson, shelfTable } from './shelfFile.js'
import { signTreatment } from './signing.js'
import { listProducts, listTreatments } from './store.js'

export function treatmentRoutes(router: Router, serving: Serving): void {
  const { treatments } = endpoints
  read(router, serving, treatments.products, ({ deps, params }) => listProducts(deps.db, params.siteId))
  read(router, serving, treatments.sheet, ({ deps, params }) => jobSheetOf(deps, params.siteId, params.treatmentId))
  write(router, serving, treatments.importShelf, (ctx) => importShelf(ctx, ctx.input))
  write(router, serving, treatments.addProduct, (ctx) => addProduct(ctx, ctx.input))
  write(router, serving, treatments.updateProduct, (ctx) => changeProduct(ctx, ctx.params.productId, ctx.input))
  read(router, serving, treatments.late, ({ deps, params }) => lateOf(deps, params.siteId, params.watchId))
  read(router, serving, treatments.hours, ({ deps, params, input }) => hoursOfWatch(deps, params.siteId, params.watchId, input))
  read(router, serving, treatments.list, ({ deps, params, input }) => listTreatments(deps.db, params.siteId, input.season))
  read(router, serving, treatments.weatherAt, ({ deps, params, input }) => weatherForWatch(deps, params.siteId, params.watchId, input.at))
  write(router, serving, treatments.plan, (ctx) => planTreatment(ctx, ctx.deps, ctx.input))
  write(router, serving, treatments.move, (ctx) => moveTreatment(ctx, ctx.deps, ctx.params.treatmentId, ctx.input))
  write(router, serving, treatments.record, (ctx) => recordTreatment(ctx, ctx.deps, ctx.params.treatmentId, ctx.input))
  write(router, serving, treatments.recordUnplanned, (ctx) => recordUnplanned(ctx, ctx.deps, ctx.input))
  write(router, serving, treatments.sign, (ctx) => signTreatment(ctx, ctx.deps, ctx))
  write(router, serving, treatments.remove, (ctx) => removeRow(ctx, 'deed', ctx.params.treatmentId, ctx.input.rowVersion))
  write(router, serving, treatments.restore, async (ctx) => {
    await restoreRow(ctx, 'deed', ctx.params.treatmentId, ctx.input.rowVersion)
    return getTreatment(ctx.tx, ctx.siteId, ctx.params.treatmentId)
  })

  const { params } = treatments.list
  const empty = treatments.products.input
  download(router, serving, `${treatments.products.path}.csv`, params, empty, async ({ db }, { siteId }) => ({
    type: 'text/csv',
    fileName: 'shelf.csv',
    body: csvOf(shelfTable(await listProducts(db, siteId))),
  }))
  download(router, serving, `${treatments.products.path}.json`, params, empty, async ({ db }, { siteId }) => ({
    type: 'application/json',
    fileName: 'shelf.json',
    body: shelfAsJson(await listProducts(db, siteId)),
  }))
  download(router, serving, `${treatments.list.path}.csv`, params, treatments.list.input, async ({ db }, { siteId }, { season }) => {
    const watches = await listWatches(db, siteId, season)
    const names = new Map(watches.map((watch) => [watch.id, organismOf(watch).name]))
    return {
      type: 'text/csv',
      fileName: `treatments-${season}.csv`,
      body: csvOf(recordTable(await listTreatments(db, siteId, season), (id) => names.get(id) ?? '')),
    }
  })
}
