import { endpoints } from '@bocado/contract'
import type { Router } from 'express'
import { removeRow } from '../database/index.js'
import { csvOf } from '../http/csv.js'
import { download, read, write, type Serving } from '../http/route.js'
import { addHarvest, changeHarvest, harvestsOf, restoreHarvest } from './service.js'

export function harvestRoutes(router: Router, serving: Serving): void {
  const { harvests } = endpoints
  read(router, serving, harvests.list, ({ deps, params, input }) => harvestsOf(deps.db, deps, params.siteId, input.season))
  write(router, serving, harvests.add, (ctx) => addHarvest(ctx, ctx.deps, ctx.input))
  write(router, serving, harvests.update, (ctx) => changeHarvest(ctx, ctx.deps, ctx.params.harvestId, ctx.input))
  write(router, serving, harvests.remove, (ctx) => removeRow(ctx, 'harvest', ctx.params.harvestId, ctx.input.rowVersion))
  write(router, serving, harvests.restore, (ctx) => restoreHarvest(ctx, ctx.deps, ctx.params.harvestId, ctx.input.rowVersion))
  download(
    router,
    serving,
    `${harvests.list.path}.csv`,
    harvests.list.params,
    harvests.list.input,
    async (deps, { siteId }, { season }) => ({
      type: 'text/csv',
      fileName: 'harvests.csv',
      body: csvOf({
        fields: ['date', 'place', 'kg', 'pieces', 'spoilt', 'spoilt_by', 'note', 'recorded_by', 'before_days_to_harvest_were_over'],
        data: (await harvestsOf(deps.db, deps, siteId, season)).harvests.map((one) => [
          one.pickedOn,
          one.placeName,
          one.kg ?? '',
          one.pieces ?? '',
          one.spoilt ?? '',
          one.spoiltByName ?? '',
          one.note,
          one.personName,
          one.tooEarly.map(({ name, from }) => `${name} until ${from}`).join('; '),
        ]),
      }),
    }),
  )
}
