import { endpoints } from '@bocado/contract'
import type { Router } from 'express'
import { removeRow, restoreRow } from '../database/index.js'
import { read, write, type Serving } from '../http/route.js'
import { restoreCountingRule, setCountingRule } from './countingRules.js'
import { decide, restoreDecision } from './decisions.js'
import { changeRound, createRound, getRound, listRounds, spreadOf } from './service.js'

export function scoutingRoutes(router: Router, serving: Serving): void {
  const { scouting } = endpoints
  write(router, serving, scouting.setRule, (ctx) => setCountingRule(ctx, ctx.params.organismId, ctx.input))
  write(router, serving, scouting.removeRule, (ctx) => removeRow(ctx, 'counting_rule', ctx.params.ruleId, ctx.input.rowVersion))
  write(router, serving, scouting.restoreRule, (ctx) => restoreCountingRule(ctx, ctx.params.ruleId, ctx.input.rowVersion))
  write(router, serving, scouting.decide, (ctx) => decide(ctx, ctx.deps, ctx.input))
  write(router, serving, scouting.removeDecision, (ctx) => removeRow(ctx, 'decision', ctx.params.decisionId, ctx.input.rowVersion))
  write(router, serving, scouting.restoreDecision, (ctx) => restoreDecision(ctx, ctx.params.decisionId, ctx.input.rowVersion))
  read(router, serving, scouting.spread, ({ deps, params }) => spreadOf(deps.db, params.siteId, params.organismId))
  read(router, serving, scouting.list, ({ deps, params, input }) => listRounds(deps.db, params.siteId, input.season))
  write(router, serving, scouting.create, (ctx) => createRound(ctx, ctx.deps, ctx.input))
  write(router, serving, scouting.update, (ctx) => changeRound(ctx, ctx.deps, ctx.params.roundId, ctx.input))
  write(router, serving, scouting.remove, (ctx) => removeRow(ctx, 'round', ctx.params.roundId, ctx.input.rowVersion))
  write(router, serving, scouting.restore, async (ctx) => {
    await restoreRow(ctx, 'round', ctx.params.roundId, ctx.input.rowVersion)
    return getRound(ctx.tx, ctx.siteId, ctx.params.roundId)
  })
}
