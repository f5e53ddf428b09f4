import { endpoints } from '@bocado/contract'
import type { Router } from 'express'
import { removeRow, restoreRow } from '../database/index.js'
import { read, write, type Deps } from '../http/route.js'
import { addCheckArea, changeBlock, createBlock, getBlock } from './service.js'
import { listBlocks } from './store.js'
import { addWetEvent, listWetEvents, restoreWetEvent } from './wetEvents.js'

export function blockRoutes(router: Router, deps: Deps): void {
  const { blocks } = endpoints
  read(router, deps, blocks.list, ({ params }) => listBlocks(deps.database, params.siteId))
  write(router, deps, blocks.create, (ctx) => createBlock(ctx, ctx.input))
  write(router, deps, blocks.update, (ctx) => changeBlock(ctx, ctx.params.blockId, ctx.input))
  write(router, deps, blocks.remove, (ctx) => removeRow(ctx, 'block', ctx.params.blockId, ctx.input.rowVersion))
  write(router, deps, blocks.restore, async (ctx) => {
    await restoreRow(ctx, 'block', ctx.params.blockId, ctx.input.rowVersion)
    return getBlock(ctx.tx, ctx.siteId, ctx.params.blockId)
  })
  write(router, deps, blocks.addCheckArea, (ctx) => addCheckArea(ctx, ctx.params.blockId, ctx.input))
  read(router, deps, blocks.wetEvents, ({ params, input }) => listWetEvents(deps.database, params.siteId, input.season))
  write(router, deps, blocks.addWetEvent, (ctx) => addWetEvent(ctx, deps, ctx.params.blockId, ctx.input))
  write(router, deps, blocks.removeWetEvent, (ctx) => removeRow(ctx, 'wet_event', ctx.params.wetEventId, ctx.input.rowVersion))
  write(router, deps, blocks.restoreWetEvent, (ctx) => restoreWetEvent(ctx, ctx.params.wetEventId, ctx.input.rowVersion))
}
