import { civilDateSchema, endpoints, id } from '@bocado/contract'
import type { Router } from 'express'
import { z } from 'zod'
import { download, read, write, type Serving } from '../http/route.js'
import { endToken, issueToken } from '../devices/service.js'
import { decideDoubts, seasonDoubts } from './doubts.js'
import { heatOfStation } from './heat.js'
import { correctReadings, getCorrections, previewCorrection, removeCorrection, restoreCorrection } from './corrections.js'
import { daysCsv, heatCsv, hoursCsv } from './csv.js'
import { dayHours } from './dayHours.js'
import { scoreOfStation } from './scoreOfStation.js'
import { daysOfSeason } from './seasonDays.js'
import { addStation, changeStation, getStations, removeStation, restoreStation } from './stations.js'
import { typeDays, untypeDays } from './typedDays.js'

export function weatherRoutes(router: Router, serving: Serving): void {
  const { weather } = endpoints
  read(router, serving, weather.stations, ({ deps, params }) => getStations(deps, params.siteId))
  write(router, serving, weather.addStation, (ctx) => addStation(ctx, ctx.deps, ctx.input))
  read(router, serving, weather.days, ({ deps, params, input }) => daysOfSeason(deps, params.siteId, params.stationId, input))
  read(router, serving, weather.hours, ({ deps, params, input }) => dayHours(deps, params.siteId, params.stationId, input))
  read(router, serving, weather.score, ({ deps, params }) => scoreOfStation(deps, params.siteId, params.stationId))
  write(router, serving, weather.updateStation, (ctx) => changeStation(ctx, ctx.params.stationId, ctx.input))
  write(router, serving, weather.removeStation, (ctx) => removeStation(ctx, ctx.params.stationId, ctx.input.rowVersion))
  write(router, serving, weather.restoreStation, (ctx) => restoreStation(ctx, ctx.params.stationId, ctx.input.rowVersion))
  read(router, serving, weather.corrections, ({ deps, params }) => getCorrections(deps.db, params.siteId, params.stationId))
  read(router, serving, weather.previewCorrection, ({ deps, params, input }) =>
    previewCorrection(deps, params.siteId, params.stationId, input),
  )
  write(router, serving, weather.correct, (ctx) => correctReadings(ctx, ctx.deps, ctx.params.stationId, ctx.input))
  write(router, serving, weather.removeCorrection, (ctx) => removeCorrection(ctx, ctx.params.correctionId, ctx.input.rowVersion))
  write(router, serving, weather.restoreCorrection, (ctx) => restoreCorrection(ctx, ctx.params.correctionId, ctx.input.rowVersion))
  read(router, serving, weather.heat, ({ deps, params, input }) => heatOfStation(deps, params.siteId, params.stationId, input))
  write(router, serving, weather.endToken, (ctx) => endToken(ctx, ctx.params.stationId))
  write(router, serving, weather.issueToken, (ctx) => issueToken(ctx, ctx.params.stationId, ctx.input.simulated), { secret: true })
  read(router, serving, weather.doubts, ({ deps, params, input }) => seasonDoubts(deps, params.siteId, params.stationId, input.season))
  write(router, serving, weather.decideDoubts, (ctx) => decideDoubts(ctx, ctx.deps, ctx.params.stationId, ctx.input))
  write(router, serving, weather.untypeDays, (ctx) => untypeDays(ctx, ctx.params.stationId, ctx.input))
  write(router, serving, weather.typeDays, (ctx) => typeDays(ctx, ctx.deps, ctx.params.stationId, ctx.input))

  download(router, serving, `${weather.days.path}.csv`, weather.days.params, weather.days.input, async (deps, params, query) => ({
    type: 'text/csv',
    fileName: 'days.csv',
    body: await daysCsv(deps, params.siteId, params.stationId, query),
  }))
  download(router, serving, `${weather.heat.path}.csv`, weather.heat.params, weather.heat.input, async (deps, params, query) => ({
    type: 'text/csv',
    fileName: 'heat.csv',
    body: await heatCsv(deps, params.siteId, params.stationId, query),
  }))
  const hoursQuery = z.object({ from: civilDateSchema, to: civilDateSchema, blockId: id.optional() })
  download(router, serving, `${weather.hours.path}.csv`, weather.hours.params, hoursQuery, async (deps, params, query) => ({
    type: 'text/csv',
    fileName: 'hours.csv',
    body: await hoursCsv(deps, params.siteId, params.stationId, query),
  }))
}
