import { endpoints } from '@bocado/contract'
import type { Router } from 'express'
import { removeRow } from '../database/index.js'
import { csvOf } from '../http/csv.js'
import { download, read, write, type Serving } from '../http/route.js'
import { occurrences, OCCURRENCE_TERMS } from './occurrences.js'
import {
  addSecondLook,
  restoreSecondLook,
  addFlag,
  addSearch,
  addVisit,
  changeFlag,
  removeVisit,
  restoreFlag,
  restoreSearch,
  restoreVisit,
  tracksOf,
} from './service.js'
import { flagsOf } from './known.js'

export function flagRoutes(router: Router, serving: Serving): void {
  const { flags } = endpoints
  read(router, serving, flags.list, ({ deps, params, input }) => flagsOf(deps, params.siteId, input))
  read(router, serving, flags.readTrack, ({ input }) => Promise.resolve(tracksOf(input.text)))
  write(router, serving, flags.add, (ctx) => addFlag(ctx, ctx.deps, ctx.input))
  write(router, serving, flags.update, (ctx) => changeFlag(ctx, ctx.params.flagId, ctx.input))
  write(router, serving, flags.remove, (ctx) => removeRow(ctx, 'flag', ctx.params.flagId, ctx.input.rowVersion))
  write(router, serving, flags.restore, (ctx) => restoreFlag(ctx, ctx.params.flagId, ctx.input.rowVersion))
  write(router, serving, flags.visit, (ctx) => addVisit(ctx, ctx.deps, ctx.input))
  write(router, serving, flags.removeVisit, (ctx) => removeVisit(ctx, ctx.params.visitId, ctx.input.rowVersion))
  write(router, serving, flags.restoreVisit, (ctx) => restoreVisit(ctx, ctx.params.visitId, ctx.input.rowVersion))
  write(router, serving, flags.addSearch, (ctx) => addSearch(ctx, ctx.deps, ctx.input))
  write(router, serving, flags.addSecondLook, (ctx) => addSecondLook(ctx, ctx.deps, ctx.input))
  write(router, serving, flags.removeSecondLook, (ctx) => removeRow(ctx, 'second_look', ctx.params.secondLookId, ctx.input.rowVersion))
  write(router, serving, flags.restoreSecondLook, (ctx) => restoreSecondLook(ctx, ctx.params.secondLookId, ctx.input.rowVersion))
  write(router, serving, flags.removeSearch, (ctx) => removeRow(ctx, 'search', ctx.params.searchId, ctx.input.rowVersion))
  write(router, serving, flags.restoreSearch, (ctx) => restoreSearch(ctx, ctx.params.searchId, ctx.input.rowVersion))
  download(router, serving, `${flags.list.path}.csv`, flags.list.params, flags.list.input, async (deps, { siteId }, input) => ({
    type: 'text/csv',
    fileName: 'flags.csv',
    body: csvOf({ fields: [...OCCURRENCE_TERMS], data: await occurrences(deps, siteId, await flagsOf(deps, siteId, input)) }),
  }))
}
