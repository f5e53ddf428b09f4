import { endpoints } from '@bocado/contract'
import type { Router } from 'express'
import { read, write, type Deps } from '../http/route.js'
import { issueToken } from '../devices/service.js'
import { decideFaults, seasonFaults } from './faults.js'
import { heatOfStation } from './heat.js'
import { addStation, getStations, seasonDays, typeDays } from './service.js'

export function weatherRoutes(router: Router, deps: Deps): void {
  const { weather } = endpoints
  read(router, deps, weather.stations, ({ params }) => getStations(deps.database, deps.clock, params.siteId))
  write(router, deps, weather.addStation, (ctx) => addStation(ctx, deps, ctx.input))
  read(router, deps, weather.days, ({ params, input }) => seasonDays(deps, params.siteId, params.stationId, input.season))
  read(router, deps, weather.heat, ({ params, input }) => heatOfStation(deps, params.siteId, params.stationId, input))
  write(router, deps, weather.issueToken, (ctx) => issueToken(ctx, ctx.params.stationId, ctx.input.simulated))
  read(router, deps, weather.faults, ({ params, input }) => seasonFaults(deps, params.siteId, params.stationId, input.season))
  write(router, deps, weather.decideFaults, (ctx) => decideFaults(ctx, ctx.params.stationId, ctx.input))
  write(router, deps, weather.typeDays, (ctx) => typeDays(ctx, deps, ctx.params.stationId, ctx.input))
}
