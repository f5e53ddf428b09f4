import { endpoints } from '@bocado/contract'
import { organisms } from '@bocado/library'
import type { Router } from 'express'
import { removeRow, restoreRow } from '../database/index.js'
import { read, write, type Deps } from '../http/route.js'
import { changeWatch, createWatch, getBand, getWatch } from './service.js'
import { listWatches, presentedWatch } from './store.js'

export function watchRoutes(router: Router, deps: Deps): void {
  const { watches } = endpoints
  read(router, deps, watches.organisms, () => Promise.resolve([...organisms]))
  read(router, deps, watches.list, async ({ params, input }) =>
    (await listWatches(deps.database, params.siteId, input.season)).map(presentedWatch),
  )
  read(router, deps, watches.band, ({ params, input }) => getBand(deps, params.siteId, input.season))
  write(router, deps, watches.create, (ctx) => createWatch(ctx, deps, ctx.input))
  write(router, deps, watches.update, (ctx) => changeWatch(ctx, deps, ctx.params.watchId, ctx.input))
  write(router, deps, watches.remove, (ctx) => removeRow(ctx, 'watch', ctx.params.watchId, ctx.input.rowVersion))
  write(router, deps, watches.restore, async (ctx) => {
    await restoreRow(ctx, 'watch', ctx.params.watchId, ctx.input.rowVersion)
    return presentedWatch(await getWatch(ctx.tx, ctx.siteId, ctx.params.watchId))
  })
}
