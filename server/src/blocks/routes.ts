import { endpoints } from '@bocado/contract'
import type { Router } from 'express'
import { removeRow, restoreRow } from '../database/index.js'
import { read, write, type Serving } from '../http/route.js'
import { addCheckArea, changeBlock, createBlock, getBlock } from './service.js'
import { listBlocks } from './store.js'
import { addWetEvent, listWetEvents, restoreWetEvent } from './wetEvents.js'

export function blockRoutes(router: Router, serving: Serving): void {
  const { blocks } = endpoints
  read(router, serving, blocks.list, ({ deps, params }) => listBlocks(deps.db, params.siteId))
  write(router, serving, blocks.create, (ctx) => createBlock(ctx, ctx.input))
  write(router, serving, blocks.update, (ctx) => changeBlock(ctx, ctx.params.blockId, ctx.input))
  write(router, serving, blocks.remove, (ctx) => removeRow(ctx, 'place', ctx.params.blockId, ctx.input.rowVersion))
  write(router, serving, blocks.restore, async (ctx) => {
    await restoreRow(ctx, 'place', ctx.params.blockId, ctx.input.rowVersion)
    return getBlock(ctx.tx, ctx.siteId, ctx.params.blockId)
  })
  write(router, serving, blocks.addCheckArea, (ctx) => addCheckArea(ctx, ctx.params.blockId, ctx.input))
  read(router, serving, blocks.wetEvents, ({ deps, params, input }) => listWetEvents(deps.db, params.siteId, input.season))
  write(router, serving, blocks.addWetEvent, (ctx) => addWetEvent(ctx, ctx.deps, ctx.params.blockId, ctx.input))
  write(router, serving, blocks.removeWetEvent, (ctx) => removeRow(ctx, 'wet_event', ctx.params.wetEventId, ctx.input.rowVersion))
  write(router, serving, blocks.restoreWetEvent, (ctx) => restoreWetEvent(ctx, ctx.params.wetEventId, ctx.input.rowVersion))
}
