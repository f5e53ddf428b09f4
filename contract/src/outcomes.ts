import { weedForms } from '@bocado/library/vocabulary'
import { z } from 'zod'
import { boundsSchema, civilDateSchema, id, rowVersion } from './common.js'
import { thresholdSchema } from './scouting.js'
import { endpoint } from './endpoint.js'
import { gateRefusals } from './treatments.js'
import { trialSchema } from './trials.js'

const interval = z.object({ low: z.number(), high: z.number() })
const efficacy = z.object({ value: z.number(), sampling: interval, withAreas: interval })

/** A count as the picture shows it, per 100 items. */
export const outcomeCountSchema = z.object({
  roundId: id,
  countedOn: civilDateSchema,
  units: z.int(),
  per100: z.number(),
  low: z.number(),
  high: z.number(),
  crossed: z.boolean(),
})
export type OutcomeCount = z.infer<typeof outcomeCountSchema>

export const outcomeSchema = z.object({
  treatmentId: id,
  watchId: id,
  productName: z.string(),
  treatedOn: civilDateSchema,
  /** Of work; null where nobody measured. */
  minutes: z.number().nullable(),
  threshold: thresholdSchema.nullable(),
  item: z.string(),
  units: z.string(),
  treated: z.object({ before: outcomeCountSchema.nullable(), after: outcomeCountSchema.nullable() }),
  check: z.object({ name: z.string(), before: outcomeCountSchema.nullable(), after: outcomeCountSchema.nullable() }).nullable(),
  comparison: z
    .object({
      abbott: efficacy,
      hendersonTilton: efficacy,
      method: z.enum(['bootstrap', 'few-units', 'unvarying', 'totals']),
      zeroAdjusted: z.boolean(),
      verdict: z.enum(['lower-than-check', 'not-separable', 'higher-than-check']),
      /** Per 100: what the treated area would hold had it gone the way of the check. */
      expectedWithoutTreatment: z.number(),
      areaSdLog: z.number(),
    })
    .nullable(),
  /** Coverage recomputed with the weather that came, over the members. */
  coverage: z.object({ p10: z.number(), p50: z.number(), p90: z.number() }).nullable(),
  /** The day near it on which the same would have reached most of the same, and how much of it; null where its own day was as good. */
  betterOn: z.object({ day: civilDateSchema, coverage: z.number() }).nullable(),
  /** Why no coverage is reckoned: it was done although neither the library nor the label names this use. */
  deviation: z.enum(gateRefusals).nullable(),
  /** First day on which what was done shows; null where nobody knows of its kind. */
  judgeFrom: civilDateSchema.nullable(),
  /** Done against the same in the same block between the two counts: what is told is of all of it together. */
  alsoDone: z.array(z.object({ name: z.string(), on: civilDateSchema })),
  /** It was counted since, but not yet from that day on. */
  isEarly: z.boolean(),
  /** What is still missing before more can be said. */
  missing: z.array(z.enum(['count-before', 'count-after', 'check-area', 'check-before', 'check-after'])),
})
export type Outcome = z.infer<typeof outcomeSchema>

/** What one deed of a way to act did, of those that were held against a check. */
const wayDeedSchema = z.object({
  treatmentId: id,
  season: civilDateSchema,
  treatedOn: civilDateSchema,
  blockId: id,
  blockName: z.string(),
  /** Efficacy as a proportion, the difference between areas in its interval; null where it was not held against a check, or it is too early. */
  effect: interval.extend({ value: z.number() }).nullable(),
  /** Share of a generation in its reach; null where that is not known. */
  coverage: z.number().nullable(),
})

/** What a way to act did here, all seasons together. */
export const waySchema = z.object({
  /** The product, or the method where it takes none. */
  productId: id.nullable(),
  methodId: z.string().nullable(),
  name: z.string(),
  organismId: z.string(),
  organismName: z.string(),
  /** The newest first; none where it was only tried. */
  deeds: z.array(wayDeedSchema),
  /** Fair trials of it against the organism that were judged, the newest first: each says by itself what it found. */
  trials: z.array(trialSchema),
  /** All deeds that were judged, together; null where none was. */
  evidence: z
    .object({
      verdict: z.enum(['worked', 'lower-here', 'cannot-tell', 'higher-here', 'worse']),
      deeds: z.int(),
      areas: z.int(),
      effect: interval.extend({ value: z.number() }),
    })
    .nullable(),
})
export type Way = z.infer<typeof waySchema>

const trendSchema = z.object({ yearly: z.number(), low: z.number(), high: z.number(), years: z.int() })

/** One season of an organism in a block. */
const yearSchema = z.object({
  season: civilDateSchema,
  /** The highest count where it was treated, per 100 items; null where nothing was counted. */
  highest: z.object({ per100: z.number(), low: z.number(), high: z.number(), countedOn: civilDateSchema, counts: z.int() }).nullable(),
  /** The highest count in a check area: what came where nothing was done. */
  check: z.number().nullable(),
  /** That the highest count was held against. */
  threshold: z.number().nullable(),
  /** Between first and last count, by the straight line between two; null where none was over, or no threshold is known. */
  daysOver: z.number().nullable(),
  /** Patches that stood at least once, the plants and the ground of each where it stood at its most; null where nobody looked, or said. */
  patches: z.int().nullable(),
  plants: z.number().nullable(),
  areaM2: z.number().nullable(),
  treatments: z.int(),
  minutes: z.number(),
  bags: z.number(),
})

/** An organism in a block over the years. */
export const yearsOfSchema = z.object({
  organismId: z.string(),
  organismName: z.string(),
  blockId: id,
  blockName: z.string(),
  /** What the counts are of. */
  items: z.string(),
  /** The oldest first. */
  years: z.array(yearSchema),
  /** Of a weed of which plants were counted: what its years ahead are reckoned from; null for what is none. */
  weed: z
    .object({
      form: z.enum(weedForms),
      bankYears: z.object({ shortest: z.number(), longest: z.number() }),
      /** Middle of what visits that took plants needed for each; null where nobody measured. */
      minutesPerPlant: z.number().nullable(),
      /** Plants that went into a bag, over all visits of which both were noted; null where nobody filled one. */
      plantsPerBag: z.number().nullable(),
    })
    .nullable(),
  /** By what it is told how it goes; null where fewer than three years are known. */
  trend: trendSchema.extend({ of: z.enum(['counts', 'plants', 'area', 'patches']) }).nullable(),
})
export type YearsOf = z.infer<typeof yearsOfSchema>

/** What was picked in a block in a season, its beds included. */
const pickedSchema = z.object({
  blockId: id,
  season: civilDateSchema,
  kg: z.number(),
  pieces: z.int(),
  spoilt: z.int(),
  /** Pieces of which somebody said how many were spoilt. */
  lookedAt: z.int(),
})

/** `bias` and `inside` are null where only errors are known. */
const toldSchema = z.object({ forecasts: z.int(), bias: z.number().nullable(), error: z.number(), inside: z.number().nullable() })

/** Ahead of what was seen by so much. */
export const forecastLeads = ['days', 'week', 'two-weeks', 'month'] as const

/** How good the forecasts of one event were in a block. */
export const eventSkillSchema = z.object({
  organismId: z.string(),
  organismName: z.string(),
  blockId: id,
  blockName: z.string(),
  event: z.string(),
  name: z.string(),
  seasons: z.array(z.object({ season: civilDateSchema, day: civilDateSchema })),
  /** Each season told without itself: by the library, by it and the other seasons here, by the best bloom here, by the date alone. */
  byLibrary: toldSchema.nullable(),
  byOwn: toldSchema.nullable(),
  byBloom: toldSchema.extend({ name: z.string() }).nullable(),
  byCalendar: toldSchema.nullable(),
  /** What the days seen are: its first, or where half of it was over, as by what a trap caught. */
  seen: z.enum(['begins', 'half']),
  /** Whether the numbers of the records are what the block goes by. */
  ownAccepted: z.boolean(),
  /** A watch of this season of which the records can be opened; null where none is. */
  watchId: id.nullable(),
  /** What was really said beforehand, by how long before; the longest lead last. */
  issued: z.array(toldSchema.extend({ lead: z.enum(forecastLeads) })),
})
export type EventSkill = z.infer<typeof eventSkillSchema>

/** What was said of a season in a block, in own words. */
export const reviewNoteSchema = z.object({
  id,
  blockId: id,
  said: z.string(),
  personName: z.string(),
  rowVersion,
})
export type ReviewNote = z.infer<typeof reviewNoteSchema>

const siteParams = z.object({ siteId: id })

export const outcomes = {
  list: endpoint({
    method: 'get',
    path: '/sites/:siteId/outcomes',
    restsOn: ['treatments', 'counts', 'watches', 'weather', 'stations', 'site', 'library'],
    summary: 'What can be said of each treatment of a season',
    params: siteParams,
    input: z.object({ season: civilDateSchema }),
    response: z.array(outcomeSchema),
  }),
  ways: endpoint({
    method: 'get',
    path: '/sites/:siteId/outcomes/ways',
    restsOn: ['treatments', 'counts', 'watches', 'weather', 'stations', 'site', 'library'],
    summary: 'What each way to act did at the site, all seasons together',
    params: siteParams,
    input: z.object({}),
    response: z.array(waySchema),
  }),
  years: endpoint({
    method: 'get',
    path: '/sites/:siteId/outcomes/years',
    restsOn: ['treatments', 'counts', 'watches', 'site', 'library'],
    summary: 'What was counted, done, spent and picked season by season, and how it goes',
    params: siteParams,
    input: z.object({}),
    response: z.object({ lines: z.array(yearsOfSchema), picked: z.array(pickedSchema) }),
  }),
  ahead: endpoint({
    method: 'get',
    path: '/sites/:siteId/outcomes/ahead',
    restsOn: ['watches', 'weather', 'stations', 'site', 'library', 'day'],
    summary: 'Windows of the season after one, for what is watched in it, by past seasons of weather',
    params: siteParams,
    input: z.object({ season: civilDateSchema }),
    response: z.object({
      season: civilDateSchema,
      windows: z.array(
        z.object({ watchId: id, generation: z.string(), generationName: z.string(), opens: boundsSchema, closes: boundsSchema }),
      ),
    }),
  }),
  skill: endpoint({
    method: 'get',
    path: '/sites/:siteId/outcomes/skill',
    restsOn: ['forecasts', 'watches', 'blooms', 'counts', 'weather', 'stations', 'site', 'library', 'day'],
    summary: 'How good the forecasts were against what was seen, and what would have told it better',
    params: siteParams,
    input: z.object({}),
    response: z.array(eventSkillSchema),
  }),
  notes: endpoint({
    method: 'get',
    path: '/sites/:siteId/outcomes/review-notes',
    restsOn: ['words', 'site'],
    summary: 'What those who work at the site say themselves of a season, by block',
    params: siteParams,
    input: z.object({ season: civilDateSchema }),
    response: z.array(reviewNoteSchema),
  }),
  keepNote: endpoint({
    method: 'put',
    path: '/sites/:siteId/outcomes/review-notes/:blockId',
    summary: 'Say in own words what a season in a block was, and what comes of it',
    params: z.object({ siteId: id, blockId: id }),
    input: z.object({
      season: civilDateSchema,
      said: z.string().trim().max(4000, { error: 'use at most 4000 characters' }),
      /** null where nothing was said yet. */
      rowVersion: rowVersion.nullable(),
    }),
    response: reviewNoteSchema,
  }),
}
