import { z } from 'zod'
import { boundsSchema, civilDateSchema, id, instantSchema, note, number, rowVersion, text } from './common.js'
import { endpoint } from './endpoint.js'
import { roundSchema } from './scouting.js'
import { treatmentSchema } from './treatments.js'

const source = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('paper'), authors: z.string(), year: z.int() }),
  z.object({ kind: z.literal('common-knowledge') }),
  z.object({ kind: z.literal('none') }),
])
const quantity = z.object({
  value: z.number(),
  unit: z.string(),
  confidence: z.enum(['established', 'approximate', 'placeholder']),
  region: z.string(),
  source,
})

/** What the pages need of a library entry. */
export const organismSchema = z.object({
  id: z.string(),
  version: z.string(),
  name: z.string(),
  scientificName: z.string(),
  kind: z.string(),
  crops: z.array(z.string()),
  biofix: z.object({ kind: z.string(), ask: z.string() }),
  stages: z.array(z.object({ id: z.string(), name: z.string(), silhouette: z.string(), reachable: z.boolean(), where: z.string() })),
  sampling: z.object({
    unit: z.string(),
    units: z.string(),
    item: z.string(),
    items: z.string(),
    itemsPerUnit: z.int(),
    suggestedUnits: z.int(),
    how: z.string(),
    classes: z.array(z.object({ id: z.string(), name: z.string(), weight: z.number() })),
    threshold: quantity,
  }),
  lookAlikes: z.array(z.string()),
  hazards: z.array(z.object({ group: z.string(), text: z.string() })),
})
export type Organism = z.infer<typeof organismSchema>

export const watchSchema = z.object({
  id,
  organismId: z.string(),
  blockId: id,
  season: civilDateSchema,
  biofix: civilDateSchema,
  biofixNote: z.string(),
  /** The site's own threshold, where it differs from the library's, with its reason. */
  threshold: z.object({ per100: z.number(), reason: z.string() }).nullable(),
  /** Library entry and version that the watch is pinned to. */
  model: z.string(),
  rowVersion,
})
export type Watch = z.infer<typeof watchSchema>

const ownThreshold = z.object({ per100: number('the threshold', 0.01, 1000), reason: text('why this site differs', 500) })
export const watchInput = z.object({
  organismId: z.string({ error: 'choose an organism' }).min(1, { error: 'choose an organism' }),
  blockId: z.uuid({ error: 'choose a block' }),
  season: civilDateSchema,
  biofix: civilDateSchema,
  biofixNote: note,
  threshold: ownThreshold.nullable().default(null),
})
export const watchPatch = z.object({ biofix: civilDateSchema, biofixNote: note, threshold: ownThreshold.nullable(), rowVersion })

const spread = z.object({ kind: z.enum(['normal', 'lognormal', 'logistic']), median: z.number(), sd: z.number() })
const modelEvent = z.object({
  generation: z.string(),
  id: z.string(),
  name: z.string(),
  stage: z.string(),
  spread,
  heatSe: z.number(),
  /** °C·d at which 3 % of the population have reached it: what is called its begin. */
  begins: z.number(),
})

export const windowStates = ['coming', 'open', 'closing', 'past', 'poorly-reachable', 'not-this-season'] as const

export const windowSchema = z.object({
  generation: z.string(),
  generationName: z.string(),
  state: z.enum(windowStates),
  /** Days of the season, counted from 0; null beyond the season or the known weather. */
  opens: boundsSchema,
  closes: boundsSchema,
  bestDay: boundsSchema,
  best: boundsSchema,
  opensHeat: z.number().nullable(),
  /** The event that begins the reachable stages, with its heat, for the sentence. */
  beginsWith: z.object({ name: z.string(), heat: z.number() }),
})
export type WindowForecast = z.infer<typeof windowSchema>

export const watchForecastSchema = z.object({
  watch: watchSchema,
  organismName: z.string(),
  scientificName: z.string(),
  stages: organismSchema.shape.stages,
  generations: z.array(z.object({ id: z.string(), name: z.string(), reachableStages: z.array(z.string()) })),
  events: z.array(modelEvent),
  rule: z.object({ method: z.string(), lower: z.number(), upper: z.number().optional(), cutoff: z.string().optional() }),
  /**
   * `dates`; `months` where a number of the model is a placeholder; `none` where weather is missing; `calendar` where the site has no
   * weather at all, neither a station nor normals: then only `usual` says anything.
   */
  grade: z.enum(['dates', 'months', 'none', 'calendar']),
  /** What the weather of the season rests on. */
  basis: z.enum(['station', 'station-and-normals', 'normals', 'none']),
  /** Months, 1 to 12, in which a generation can usually be reached, and the bloom that announces it, by the library. */
  usual: z.array(z.object({ generation: z.string(), name: z.string(), months: z.array(z.int()), bloom: z.string(), region: z.string() })),
  confidence: z.enum(['established', 'approximate', 'placeholder']),
  stationId: id.nullable(),
  stationName: z.string().nullable(),
  /** °C by which the block differs from the station. */
  offset: z.object({ min: z.number(), max: z.number() }),
  heat: z.object({
    todayIndex: z.int(),
    biofixIndex: z.int(),
    knownDays: z.int(),
    median: z.array(z.number()),
    /** Pieces from which `joinMembers` of the computation makes the members; daily heat in °C·d. */
    segments: z.object({
      startIndex: z.int(),
      length: z.int(),
      observed: z.array(z.number()),
      forecast: z.array(z.array(z.number())),
      seam: z.array(z.array(z.number())),
      tails: z.array(z.object({ pastSeason: z.int(), made: z.boolean(), heat: z.array(z.number()) })),
    }),
    /** One standard score per member, in their order. */
    scores: z.array(z.number()),
    pastSeasons: z.int(),
    /** Seasons made from monthly normals that stand in for past ones. */
    madeSeasons: z.int(),
    /** The weather forecast that the days ahead rest on. */
    forecast: z.object({ issuedAt: instantSchema, members: z.int(), days: z.int(), correctedFrom: z.int() }).nullable(),
    filledShare: z.number(),
    now: z.number(),
    missing: z.array(z.object({ from: civilDateSchema, to: civilDateSchema })),
  }),
  windows: z.array(windowSchema),
  treatments: z.array(treatmentSchema),
  rounds: z.array(roundSchema),
})
export type WatchForecast = z.infer<typeof watchForecastSchema>

export const bandSchema = z.object({
  season: z.object({ start: civilDateSchema, days: z.int(), todayIndex: z.int() }),
  /** Positions of the site's heat axis, one a day, from 0 to 1: lower 5 °C, no upper, median member, with a floor. */
  heatAxis: z.array(z.number()).nullable(),
  watches: z.array(watchForecastSchema),
})
export type Band = z.infer<typeof bandSchema>

const siteParams = z.object({ siteId: id })
const watchParams = z.object({ siteId: id, watchId: id })

export const watches = {
  organisms: endpoint({
    method: 'get',
    path: '/organisms',
    summary: 'The library',
    params: z.object({}),
    input: z.object({}),
    response: z.array(organismSchema),
  }),
  list: endpoint({
    method: 'get',
    path: '/sites/:siteId/watches',
    summary: 'Watches of a season',
    params: siteParams,
    input: z.object({ season: civilDateSchema }),
    response: z.array(watchSchema),
  }),
  create: endpoint({
    method: 'post',
    path: '/sites/:siteId/watches',
    summary: 'Watch an organism in a block',
    params: siteParams,
    input: watchInput,
    response: watchSchema,
  }),
  update: endpoint({
    method: 'patch',
    path: '/sites/:siteId/watches/:watchId',
    summary: 'Change biofix or threshold',
    params: watchParams,
    input: watchPatch,
    response: watchSchema,
  }),
  remove: endpoint({
    method: 'delete',
    path: '/sites/:siteId/watches/:watchId',
    summary: 'Stop watching; can be restored',
    params: watchParams,
    input: z.object({ rowVersion }),
    response: z.object({ id, rowVersion }),
  }),
  restore: endpoint({
    method: 'post',
    path: '/sites/:siteId/watches/:watchId/restore',
    summary: 'Undo the removal of a watch',
    params: watchParams,
    input: z.object({ rowVersion }),
    response: watchSchema,
  }),
  band: endpoint({
    method: 'get',
    path: '/sites/:siteId/band',
    summary: 'Forecast of every watch over a season',
    params: siteParams,
    input: z.object({ season: civilDateSchema }),
    response: bandSchema,
  }),
}
