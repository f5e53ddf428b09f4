import { z } from 'zod'
import { id, instantSchema } from './common.js'
import { endpoint } from './endpoint.js'
import { catchesPushInput } from './traps.js'
import { forecastIssueInput, pushInput } from './weather.js'

/** What devices and the demonstration use; a device shows its token as `Authorization: Bearer …`. */
export const devices = {
  push: endpoint({
    method: 'post',
    path: '/stations/:stationId/readings',
    summary: 'Push readings, one or several, as JSON or as CSV with the columns at, temperature, humidity, rain, wind',
    params: z.object({ stationId: id }),
    input: pushInput,
    response: z.object({ new: z.int(), changed: z.int(), unchanged: z.int() }),
  }),
  pushCatches: endpoint({
    method: 'post',
    path: '/traps/:trapId/catches',
    summary: 'Send what a trap caught on whole days; a day that is sent again stands for what was sent before',
    params: z.object({ trapId: id }),
    input: catchesPushInput,
    response: z.object({ new: z.int(), changed: z.int(), unchanged: z.int() }),
  }),
  issueForecast: endpoint({
    method: 'post',
    path: '/stations/:stationId/forecast-issues',
    summary: 'Deliver a weather forecast for the place of a station; every issue is kept',
    params: z.object({ stationId: id }),
    input: forecastIssueInput,
    response: z.object({ id, issuedAt: instantSchema }),
  }),
}

export const demo = {
  clock: endpoint({
    method: 'get',
    path: '/demo/clock',
    restsOn: ['day'],
    summary: 'The time of the demonstration; null where the time is real',
    params: z.object({}),
    input: z.object({}),
    response: z.object({ now: instantSchema.nullable() }),
  }),
  setClock: endpoint({
    method: 'put',
    path: '/demo/clock',
    summary: 'Move the time of the demonstration',
    params: z.object({}),
    input: z.object({ now: instantSchema }),
    response: z.object({ now: instantSchema.nullable() }),
  }),
}
