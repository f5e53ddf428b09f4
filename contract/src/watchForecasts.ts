import { z } from 'zod'
import { boundsSchema, civilDateSchema, id, instantSchema } from './common.js'
import { biofixKinds, organismSchema } from './organisms.js'
import { decisionSchema, roundSchema } from './scouting.js'
import { treatmentSchema } from './treatments.js'
import { watchSchema } from './watch.js'

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
  /** From what wintered, from this season's own lesions, or through wounds by hail. */
  origin: z.enum(['primary', 'secondary', 'hail']),
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

export const infectionStates = ['protect', 'cure', 'protected', 'quiet', 'coming', 'over', 'unknown'] as const

export const infectionSchema = z.object({
  model: z.string(),
  state: z.enum(infectionStates),
  /** Days of the season between which host and source allow infection; null: not within what is known. */
  from: z.number().nullable(),
  until: z.number().nullable(),
  /** Day of the season on which what wintered is spent; null where it does not end, or no lesions of the season differ from it. */
  primaryUntil: z.number().nullable(),
  /** When protection is due again after the last deed, and what makes it so; null where none was put on. Days of the season. */
  followUp: z.object({ since: z.int(), due: boundsSchema, by: z.enum(['label', 'values', 'index', 'residue']).nullable() }).nullable(),
  /** Infections so far by the two bounds of the humidity under a cover without a logger; null elsewhere. */
  estimated: z.object({ drier: z.int(), damper: z.int() }).nullable(),
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
  basis: z.enum(['station', 'station-and-normals', 'past-seasons', 'normals', 'none']),
  /** Fewer than five past seasons tell how years differ: dates are given, with wide bounds. */
  wide: z.boolean(),
  /** Months, 1 to 12, in which a generation can usually be reached, and the bloom that announces it, by the library. */
  usual: z.array(
    z.object({
      generation: z.string(),
      name: z.string(),
      months: z.array(z.int()),
      bloom: z.string(),
      region: z.string(),
      /** Days by which this place runs behind (ahead: negative) of that region, which the months are moved by; null where they are not. */
      movedDays: z.int().nullable(),
    }),
  ),
  confidence: z.enum(['established', 'approximate', 'placeholder']),
  stationId: id.nullable(),
  stationName: z.string().nullable(),
  /** °C by which the block differs from the station. */
  offset: z.object({ min: z.number(), max: z.number() }),
  heat: z.object({
    todayIndex: z.int(),
    /** First day that is not observed: today, or earlier where the station is late. */
    openIndex: z.int(),
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
    /** One standard score for each draw that `joinMembers` makes, in their order. */
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
  /** It breeds on after the broods that are modelled: then counts tell, not windows. */
  breedsOn: z.boolean(),
  /** Events that can be dated though no figure tells their day, with the clock that own records made of them where it was taken. */
  named: z.array(
    z.object({
      id: z.string(),
      name: z.string(),
      /**
       * Days of the season on which it is expected, and what that rests on: a clock of so many seasons of own records, or a published sum of
       * heat with its source, where it has one.
       */
      clock: z
        .object({ seasons: z.int(), date: boundsSchema, by: z.enum(['own', 'published', 'typed']), source: z.string().nullable() })
        .nullable(),
    }),
  ),
  /** What somebody saw of it this season, oldest first. */
  seen: z.array(z.object({ event: z.string(), name: z.string(), kind: z.enum(['first', 'half']), day: civilDateSchema })),
  infection: infectionSchema.nullable(),
  /** The nearest find of a disease at another site that tells of it: where nobody said otherwise a source counts as known by it. */
  sourceNear: z.object({ withinKm: z.int(), day: civilDateSchema }).nullable(),
  /** What the winter before did to what carries over; none where it is not over, or nothing is known of it. */
  winter: z.array(
    z.object({
      what: z.string(),
      medium: z.enum(['soil', 'air']),
      killedBelow: z.number(),
      lowest: z.number(),
      day: civilDateSchema,
      read: z.boolean(),
      verdict: z.enum(['killed', 'doubtful', 'alive']),
      then: z.string(),
    }),
  ),
  /** What ends its season where that is no heat; days of the season, and the day of each draw. */
  end: z
    .object({ by: z.enum(['frost', 'day-length']), what: z.string(), date: boundsSchema, draws: z.array(z.number().nullable()) })
    .nullable(),
  emergence: emergenceSchema.nullable(),
  /** A model that is newer than the one the watch is pinned to. */
  offer: z.object({ model: z.string(), ownFigures: z.int() }).nullable(),
  /** How many numbers of the pinned model are the site's own. */
  ownFigures: z.int(),
  /** How far blooms have moved it; null where none has, where its biofix was seen, or where it does not follow them. */
  bloom: z
    .object({
      heat: z.number(),
      sd: z.number(),
      days: z.number(),
      blooms: z.int(),
      held: z.boolean(),
      /** Day of the season on which each window would open without them; null beyond the season. */
      opensWithout: z.array(z.object({ generation: z.string(), day: z.number().nullable() })),
    })
    .nullable(),
  treatments: z.array(
    treatmentSchema.extend({
      /** Share of a protectant's deposit that rain has left until today; null for what is not done or has no residue. */
      depositLeft: z.number().nullable(),
    }),
  ),
  rounds: z.array(roundSchema),
  /** What was decided on its last count in the block; null where nothing was. */
  decision: decisionSchema.nullable(),
  /** Days by which its window lies later (above 0) or earlier than a forecast of a week ago had it; null where it stayed, or none is kept. */
  moved: z.object({ days: z.int(), since: civilDateSchema }).nullable(),
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

/** Whether what is derived of a site follows from everything that is known, is being recomputed and shown as it was, or could not be. */
export const derivedSchema = z.object({ state: z.enum(['fresh', 'recomputing', 'failed']) })
export type Derived = z.infer<typeof derivedSchema>

export const bandSchema = z.object({
  season: z.object({ start: civilDateSchema, days: z.int(), todayIndex: z.int() }),
  /** Positions of the site's heat axis, one a day, from 0 to 1: lower 5 °C, no upper, median member, with a floor. */
  heatAxis: z.array(z.number()).nullable(),
  /** Bloom of the library's plants as the site's heat brings it. */
  blooms: z.array(bloomSchema),
  watches: z.array(watchForecastSchema),
})
export type Band = z.infer<typeof bandSchema>
