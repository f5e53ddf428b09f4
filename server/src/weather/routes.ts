import { civilDateSchema, endpoints, id } from '@bocado/contract'
import type { Router } from 'express'
import { z } from 'zod'
import { parse, read, write, type Deps } from '../http/route.js'
import { issueToken } from '../devices/service.js'
import { decideFaults, seasonFaults } from './faults.js'
import { heatOfStation } from './heat.js'
import { correctReadings, getCorrections, previewCorrection, removeCorrection, restoreCorrection } from './corrections.js'
import { daysCsv, hoursCsv } from './csv.js'
import { dayHours } from './dayHours.js'
import { scoreOfStation } from './scoreOfStation.js'
import { seasonDays } from './seasonDays.js'
import { addStation, changeStation, getStations, removeStation, restoreStation } from './stations.js'
import { typeDays } from './typedDays.js'

export function weatherRoutes(router: Router, deps: Deps): void {
  const { weather } = endpoints
  read(router, deps, weather.stations, ({ params }) => getStations(deps, params.siteId))
  write(router, deps, weather.addStation, (ctx) => addStation(ctx, deps, ctx.input))
  read(router, deps, weather.days, ({ params, input }) => seasonDays(deps, params.siteId, params.stationId, input))
  read(router, deps, weather.hours, ({ params, input }) => dayHours(deps, params.siteId, params.stationId, input))
  read(router, deps, weather.score, ({ params }) => scoreOfStation(deps, params.siteId, params.stationId))
  write(router, deps, weather.updateStation, (ctx) => changeStation(ctx, ctx.params.stationId, ctx.input))
  write(router, deps, weather.removeStation, (ctx) => removeStation(ctx, ctx.params.stationId, ctx.input.rowVersion))
  write(router, deps, weather.restoreStation, (ctx) => restoreStation(ctx, ctx.params.stationId, ctx.input.rowVersion))
  read(router, deps, weather.corrections, ({ params }) => getCorrections(deps.database, params.siteId, params.stationId))
  read(router, deps, weather.previewCorrection, ({ params, input }) => previewCorrection(deps, params.siteId, params.stationId, input))
  write(router, deps, weather.correct, (ctx) => correctReadings(ctx, deps, ctx.params.stationId, ctx.input))
  write(router, deps, weather.removeCorrection, (ctx) => removeCorrection(ctx, ctx.params.correctionId, ctx.input.rowVersion))
  write(router, deps, weather.restoreCorrection, (ctx) => restoreCorrection(ctx, ctx.params.correctionId, ctx.input.rowVersion))
  read(router, deps, weather.heat, ({ params, input }) => heatOfStation(deps, params.siteId, params.stationId, input))
  write(router, deps, weather.issueToken, (ctx) => issueToken(ctx, ctx.params.stationId, ctx.input.simulated))
  read(router, deps, weather.faults, ({ params, input }) => seasonFaults(deps, params.siteId, params.stationId, input.season))
  write(router, deps, weather.decideFaults, (ctx) => decideFaults(ctx, ctx.params.stationId, ctx.input))
  write(router, deps, weather.typeDays, (ctx) => typeDays(ctx, deps, ctx.params.stationId, ctx.input))

  csv(router, `${weather.days.path}.csv`, weather.days.params, weather.days.input, ({ siteId, stationId }, query) =>
    daysCsv(deps, siteId, stationId, query),
  )
  const hoursQuery = z.object({ from: civilDateSchema, to: civilDateSchema, blockId: id.optional() })
  csv(router, `${weather.hours.path}.csv`, weather.hours.params, hoursQuery, ({ siteId, stationId }, query) =>
    hoursCsv(deps, siteId, stationId, query),
  )
}

/** Registers a file of values to download. */
function csv<P extends z.ZodType, Q extends z.ZodType>(
  router: Router,
  path: string,
  params: P,
  query: Q,
  make: (params: z.output<P>, query: z.output<Q>) => Promise<string>,
): void {
  router.get(path, async (req, res) => {
    const text = await make(parse(params, req.params), parse(query, req.query))
    res.type('text/csv').attachment(path.split('/').at(-1)).send(text)
  })
}
