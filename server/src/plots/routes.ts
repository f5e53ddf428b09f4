import { endpoints } from '@bocado/contract'
import type { Router } from 'express'
import { removeRow } from '../database/index.js'
import { csvOf } from '../http/csv.js'
import { download, read, write, type Serving } from '../http/route.js'
import { addLook, addPlot, changePlot, plotsOf, restoreLook, restorePlot } from './service.js'

export function plotRoutes(router: Router, serving: Serving): void {
  const { plots } = endpoints
  read(router, serving, plots.list, ({ deps, params }) => plotsOf(deps.db, params.siteId))
  write(router, serving, plots.add, (ctx) => addPlot(ctx, ctx.input))
  write(router, serving, plots.update, (ctx) => changePlot(ctx, ctx.params.plotId, ctx.input))
  write(router, serving, plots.remove, (ctx) => removeRow(ctx, 'plot', ctx.params.plotId, ctx.input.rowVersion))
  write(router, serving, plots.restore, (ctx) => restorePlot(ctx, ctx.params.plotId, ctx.input.rowVersion))
  write(router, serving, plots.look, (ctx) => addLook(ctx, ctx.deps, ctx.input))
  write(router, serving, plots.removeLook, (ctx) => removeRow(ctx, 'plot_look', ctx.params.plotLookId, ctx.input.rowVersion))
  write(router, serving, plots.restoreLook, (ctx) => restoreLook(ctx, ctx.params.plotLookId, ctx.input.rowVersion))
  download(router, serving, `${plots.list.path}.csv`, plots.list.params, plots.list.input, async ({ db }, { siteId }) => ({
    type: 'text/csv',
    fileName: 'plots.csv',
    body: csvOf({
      fields: ['plot', 'place', 'side_m', 'worked', 'date', 'plant', 'is', 'cover_percent', 'minutes', 'note', 'recorded_by'],
      data: (await plotsOf(db, siteId)).plots.flatMap((plot) =>
        plot.looks.flatMap((look) =>
          look.covers.map(({ of, id, cover }) => [
            plot.number,
            plot.placeName,
            plot.sideM,
            plot.worked ? 'yes' : 'no',
            look.lookedOn,
            plot.plants.find((one) => one.of === of && one.id === id)?.name ?? id,
            of,
            cover,
            look.minutes ?? '',
            look.note,
            look.personName,
          ]),
        ),
      ),
    }),
  }))
}
