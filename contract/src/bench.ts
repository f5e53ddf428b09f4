import { z } from 'zod'
import { civilDateSchema, id } from './common.js'
import { endpoint } from './endpoint.js'

/** Extremes of a day in °C; null where there is no weather. */
const day = z.tuple([z.number(), z.number()]).nullable()
const start = z.object({
  /** Day number from which heat counts. */
  day: z.int(),
  expected: z.object({ heat: z.number(), heatSe: z.number() }).nullable(),
  daySd: z.number().nullable(),
})

/** All that the page needs to compute a season of a model by itself: weather in pieces, and past seasons with what was seen in them. */
export const benchSchema = z.object({
  /** The model as plain numbers, as the computation takes it. */
  model: z.unknown(),
  season: civilDateSchema,
  weather: z.object({
    firstDay: z.int(),
    length: z.int(),
    todayIndex: z.int(),
    observed: z.array(day),
    forecast: z.array(z.array(day)),
    tails: z.array(z.object({ pastSeason: z.int(), made: z.boolean(), days: z.array(day) })),
  }),
  start,
  past: z.array(
    z.object({
      season: civilDateSchema,
      firstDay: z.int(),
      /** From 120 days before the season to its end. */
      days: z.array(day),
      start,
      /** Events that were seen in it: day of the season, middle of the interval. */
      seen: z.array(z.object({ event: z.string(), day: z.number(), kind: z.enum(['first', 'half']) })),
    }),
  ),
})
export type BenchData = z.infer<typeof benchSchema>

export const bench = {
  data: endpoint({
    method: 'get',
    path: '/sites/:siteId/library/organisms/:organismId/bench',
    restsOn: ['watches', 'weather', 'stations', 'site', 'day', 'library'],
    summary: 'Weather and model of a season in pieces, so that a page can try other numbers',
    params: z.object({ siteId: id, organismId: z.string() }),
    input: z.object({ blockId: z.uuid().optional() }),
    response: benchSchema,
  }),
}
