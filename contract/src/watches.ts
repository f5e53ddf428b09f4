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

export const biofixKinds = ['date', 'sustained-catch', 'bloom', 'chill'] as const

/** One number of a model: what it is worth at this site, and what the library has where the site has its own. */
const figure = quantity.extend({ path: z.string(), own: z.object({ libraryValue: z.number(), reason: z.string() }).nullable() })
export type ModelFigure = z.infer<typeof figure>

/** What the pages need of a library entry. */
export const organismSchema = z.object({
  id: z.string(),
  version: z.string(),
  name: z.string(),
  scientificName: z.string(),
  kind: z.string(),
  crops: z.array(z.string()),
  biofix: z.object({ kind: z.enum(biofixKinds), ask: z.string() }),
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
  /** What to say of an infection that the weather allowed; null where the organism is no disease. */
  infection: z.object({ inoculum: z.string(), lookFor: z.string(), curativeDays: z.number() }).nullable(),
  tooLate: z.string(),
  poorlyReachable: z.string().nullable(),
  lookAlikes: z.array(z.string()),
  hazards: z.array(z.object({ group: z.string(), text: z.string() })),
})
export type Organism = z.infer<typeof organismSchema>

export const knowns = ['yes', 'no', 'unknown'] as const

export const watchSchema = z.object({
  id,
  organismId: z.string(),
  blockId: id,
  season: civilDateSchema,
  /** As it was entered; null as long as nobody has. */
  biofix: civilDateSchema.nullable(),
  biofixNote: z.string(),
  /** Whether a source of infection is known in or near the block. */
  sourceKnown: z.enum(knowns),
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
  biofix: civilDateSchema.nullable().default(null),
  biofixNote: note,
  sourceKnown: z.enum(knowns).default('unknown'),
  threshold: ownThreshold.nullable().default(null),
})
export const watchPatch = z.object({
  biofix: civilDateSchema.nullable(),
  biofixNote: note,
  sourceKnown: z.enum(knowns).default('unknown'),
  threshold: ownThreshold.nullable(),
  rowVersion,
})

const spread = z.union([
  z.object({ kind: z.enum(['normal', 'lognormal', 'logistic']), median: z.number(), sd: z.number() }),
  z.object({ kind: z.literal('weibull'), median: z.number(), shape: z.number(), onset: z.number() }),
])
const modelEvent = z.object({
  generation: z.string(),
  id: z.string(),
  name: z.string(),
  stage: z.string(),
  spread,
  heatSe: z.number(),
  /** °C·d at which 3 % of the population have reached it: what is called its begin. */
  begins: z.number(),
  /** Share of the population that goes through it: what is in diapause does not. */
  weight: z.number(),
  /** Days of the season on which it begins and on which half have reached it; null beyond the season or the known weather. */
  dates: z.object({ begins: boundsSchema, half: boundsSchema }),
})

const infectionDay = z.object({
  /** Day of the season. */
  day: z.int(),
  /** Share of the ways the weather may go in which it comes; 1 for a day that has passed. */
  probability: z.number(),
  /** Whether the hours it rests on are known; otherwise it is possible. */
  certain: z.boolean(),
  severity: z.number(),
  total: z.number().nullable(),
  /** Last day of the season on which a curative material still reaches it; null where none does. */
  curativeUntil: z.int().nullable(),
  /** Days of the season on which symptoms should show. */
  symptoms: boundsSchema,
})
export type InfectionDayForecast = z.infer<typeof infectionDay>

export const infectionStates = ['protect', 'cure', 'quiet', 'coming', 'over', 'unknown'] as const

export const infectionSchema = z.object({
  model: z.string(),
  state: z.enum(infectionStates),
  /** Days of the season between which host and source allow infection; null: not within what is known. */
  from: z.number().nullable(),
  until: z.number().nullable(),
  /** Days that allowed or may allow an infection, oldest first. */
  days: z.array(infectionDay),
  /** Accumulated value or index today, and the one at which protection is due; null for models without. */
  total: z.number().nullable(),
  dueAt: z.number().nullable(),
  /** Infections that past seasons had from the same date to today, and by week of the season on. */
  usual: z.object({ byNow: boundsSchema, perWeek: z.array(z.number()) }).nullable(),
  /** Share of the hours so far of which wetness or humidity is not known. */
  unknownShare: z.number(),
})
export type InfectionForecast = z.infer<typeof infectionSchema>

export const emergenceSchema = z.object({
  clock: z.enum(['thermal', 'hydrothermal-threshold', 'hydrothermal-product']),
  /** Share up by the end of each day of the season. */
  p10: z.array(z.number()),
  p50: z.array(z.number()),
  p90: z.array(z.number()),
  flushes: z.array(z.object({ from: z.int(), until: z.int(), share: z.number() })),
  half: boundsSchema,
  /** Whether rain is known; under a cover, or without a gauge, days without it count as dry. */
  rainKnown: z.boolean(),
  texture: z.string(),
})
export type EmergenceForecast = z.infer<typeof emergenceSchema>

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
  kind: z.string(),
  stages: organismSchema.shape.stages,
  generations: z.array(
    z.object({
      id: z.string(),
      name: z.string(),
      reachableStages: z.array(z.string()),
      /** Share of the population that makes this generation; the rest went into diapause before. */
      share: z.number(),
    }),
  ),
  /** What heat is counted from: a date that somebody entered, the calendar, chill, or a biofix that is only expected yet. */
  biofix: z.object({
    how: z.enum(['entered', 'calendar', 'chill', 'chill-expected', 'expected', 'none']),
    kind: z.enum(biofixKinds),
    date: civilDateSchema.nullable(),
    /** Days of the season on which it is expected, where it is. */
    expected: boundsSchema.nullable(),
  }),
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
  infection: infectionSchema.nullable(),
  emergence: emergenceSchema.nullable(),
  /** A model that is newer than the one the watch is pinned to. */
  offer: z.object({ model: z.string(), ownFigures: z.int() }).nullable(),
  /** How many numbers of the pinned model are the site's own. */
  ownFigures: z.int(),
  treatments: z.array(
    treatmentSchema.extend({
      /** Share of a protectant's deposit that rain has left until today; null for what is not done or has no residue. */
      depositLeft: z.number().nullable(),
    }),
  ),
  rounds: z.array(roundSchema),
})
export type WatchForecast = z.infer<typeof watchForecastSchema>

/** A bloom as it is expected by heat; days of the season. */
export const bloomSchema = z.object({
  plant: z.string(),
  name: z.string(),
  event: z.string(),
  eventName: z.string(),
  date: boundsSchema,
  confidence: z.enum(['established', 'approximate', 'placeholder']),
})
export type BloomForecast = z.infer<typeof bloomSchema>

export const bandSchema = z.object({
  season: z.object({ start: civilDateSchema, days: z.int(), todayIndex: z.int() }),
  /** Positions of the site's heat axis, one a day, from 0 to 1: lower 5 °C, no upper, median member, with a floor. */
  heatAxis: z.array(z.number()).nullable(),
  /** Bloom of the library's plants as the site's heat brings it. */
  blooms: z.array(bloomSchema),
  watches: z.array(watchForecastSchema),
})
export type Band = z.infer<typeof bandSchema>

export const ownFigureInput = z.object({
  path: z.string(),
  value: z.number({ error: 'enter the value for this site' }),
  reason: text('why this site differs', 500),
})

export const moveCauses = ['readings', 'weather', 'forecast', 'biofix', 'model'] as const

/** What a forecast said when it was issued. */
const issuedSchema = z.object({
  id,
  issuedAt: instantSchema,
  today: civilDateSchema,
  model: z.string(),
  biofix: civilDateSchema.nullable(),
  windows: z.array(z.object({ generation: z.string(), generationName: z.string(), opens: boundsSchema, closes: boundsSchema })),
})

export const movesSchema = z.object({
  /** Newest first, at most one a day. */
  issued: z.array(issuedSchema),
  /** How far the opening of each window moved since, in days, cause by cause; they add up. */
  since: z
    .object({
      id,
      windows: z.array(
        z.object({
          generation: z.string(),
          generationName: z.string(),
          before: z.number().nullable(),
          now: z.number().nullable(),
          steps: z.array(z.object({ cause: z.enum(moveCauses), days: z.number() })),
        }),
      ),
    })
    .nullable(),
})
export type Moves = z.infer<typeof movesSchema>

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
  takeModel: endpoint({
    method: 'post',
    path: '/sites/:siteId/watches/:watchId/model',
    summary: 'Pin a watch to the model as the library and the site have it now',
    params: watchParams,
    input: z.object({ rowVersion }),
    response: watchSchema,
  }),
  figures: endpoint({
    method: 'get',
    path: '/sites/:siteId/watches/:watchId/figures',
    summary: "The numbers of a watch's model, as pinned",
    params: watchParams,
    input: z.object({}),
    response: z.array(figure),
  }),
  pastSeasons: endpoint({
    method: 'get',
    path: '/sites/:siteId/watches/:watchId/past',
    summary: 'Heat of past seasons from the same biofix on',
    params: watchParams,
    input: z.object({}),
    response: z.array(z.object({ season: civilDateSchema, cumulative: z.array(z.number()) })),
  }),
  moves: endpoint({
    method: 'get',
    path: '/sites/:siteId/watches/:watchId/moves',
    summary: 'Forecasts as they were issued, and why the newest differs from one of them',
    params: watchParams,
    input: z.object({ since: z.uuid().optional() }),
    response: movesSchema,
  }),
  ownFigure: endpoint({
    method: 'post',
    path: '/sites/:siteId/organisms/:organismId/figures',
    summary: "The site's own value for a number of the library, with its reason",
    params: z.object({ siteId: id, organismId: z.string() }),
    input: ownFigureInput,
    response: z.array(figure),
  }),
  dropOwnFigure: endpoint({
    method: 'delete',
    path: '/sites/:siteId/organisms/:organismId/figures',
    summary: "Go back to the library's value",
    params: z.object({ siteId: id, organismId: z.string() }),
    input: z.object({ path: z.string() }),
    response: z.array(figure),
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
