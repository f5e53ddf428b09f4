import { endpoints } from '@bocado/contract'
import type { Router } from 'express'
import { removeRow } from '../database/index.js'
import { restoreRecord } from '../watches/eventRecords.js'
import { csvOf } from '../http/csv.js'
import { download, read, write, type Serving } from '../http/route.js'
import { addCheck, addTrap, changeTrap, endToken, issueToken, pasteChecks, restoreTrap, takeChecks, trapsOf } from './service.js'

export function trapRoutes(router: Router, serving: Serving): void {
  const { traps } = endpoints
  read(router, serving, traps.list, ({ deps, params, input }) => trapsOf(deps, params.siteId, input.season))
  write(router, serving, traps.add, (ctx) => addTrap(ctx, ctx.deps, ctx.input))
  write(router, serving, traps.update, (ctx) => changeTrap(ctx, ctx.deps, ctx.params.trapId, ctx.input))
  write(router, serving, traps.remove, (ctx) => removeRow(ctx, 'trap', ctx.params.trapId, ctx.input.rowVersion))
  write(router, serving, traps.restore, (ctx) => restoreTrap(ctx, ctx.params.trapId, ctx.input.rowVersion))
  write(router, serving, traps.check, (ctx) => addCheck(ctx, ctx.deps, ctx.input))
  write(router, serving, traps.removeCheck, (ctx) => removeRow(ctx, 'event_record', ctx.params.checkId, ctx.input.rowVersion))
  write(router, serving, traps.restoreCheck, (ctx) => restoreRecord(ctx, ctx.params.checkId, ctx.input.rowVersion))
  write(router, serving, traps.paste, (ctx) => pasteChecks(ctx, ctx.deps, ctx.params.trapId, ctx.input))
  write(router, serving, traps.takeFile, (ctx) => takeChecks(ctx, ctx.deps, ctx.input))
  write(router, serving, traps.issueToken, (ctx) => issueToken(ctx, ctx.params.trapId), { secret: true })
  write(router, serving, traps.endToken, (ctx) => endToken(ctx, ctx.params.trapId))
  download(router, serving, `${traps.list.path}.csv`, traps.list.params, traps.list.input, async (deps, { siteId }, { season }) => ({
    type: 'text/csv',
    fileName: 'traps.csv',
    body: csvOf({
      fields: ['trap', 'block', 'organism', 'lure', 'in_disruption', 'since', 'day', 'caught', 'per_day', 'counted_by', 'person', 'note'],
      data: (await trapsOf(deps, siteId, season)).flatMap((trap) =>
        trap.checks.map((check) => [
          trap.name,
          trap.blockName,
          trap.organismName,
          trap.lure,
          trap.inDisruption ? 'yes' : 'no',
          check.since,
          check.day,
          check.caught,
          Math.round(1000 * check.perDay) / 1000,
          check.countedBy,
          check.personName,
          check.note,
        ]),
      ),
    }),
  }))
}
