import { endpoints } from '@bocado/contract'
import type { Router } from 'express'
import { removeRow, restoreRow } from '../database/index.js'
import { read, write, type Deps } from '../http/route.js'
import { changeRound, createRound, getRound, listRounds } from './service.js'

export function scoutingRoutes(router: Router, deps: Deps): void {
  const { scouting } = endpoints
  read(router, deps, scouting.list, ({ params, input }) => listRounds(deps.database, params.siteId, input.season))
  write(router, deps, scouting.create, (ctx) => createRound(ctx, deps, ctx.input))
  write(router, deps, scouting.update, (ctx) => changeRound(ctx, deps, ctx.params.roundId, ctx.input))
  write(router, deps, scouting.remove, (ctx) => removeRow(ctx, 'round', ctx.params.roundId, ctx.input.rowVersion))
  write(router, deps, scouting.restore, async (ctx) => {
    await restoreRow(ctx, 'round', ctx.params.roundId, ctx.input.rowVersion)
    return getRound(ctx.tx, ctx.siteId, ctx.params.roundId)
  })
}
