import { endpoints } from '@bocado/contract'
import type { Router } from 'express'
import { removeRow } from '../database/index.js'
import { read, write, type Serving } from '../http/route.js'
import { countTrial, drawTrialFor, noteTreated, restoreTrial } from './service.js'
import { listTrials } from './store.js'

export function trialRoutes(router: Router, serving: Serving): void {
  const { trials } = endpoints
  read(router, serving, trials.list, ({ deps, params }) => listTrials(deps.db, params.siteId))
  write(router, serving, trials.draw, (ctx) => drawTrialFor(ctx, ctx.deps, ctx.input))
  write(router, serving, trials.treated, (ctx) => noteTreated(ctx, ctx.deps, ctx.params.trialId, ctx.input))
  write(router, serving, trials.count, (ctx) => countTrial(ctx, ctx.deps, ctx.params.trialId, ctx.input))
  write(router, serving, trials.remove, (ctx) => removeRow(ctx, 'trial', ctx.params.trialId, ctx.input.rowVersion))
  write(router, serving, trials.restore, (ctx) => restoreTrial(ctx, ctx.params.trialId, ctx.input.rowVersion))
}
