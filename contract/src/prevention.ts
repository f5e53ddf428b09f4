import { cropStages } from '@bocado/library/vocabulary'
import { z } from 'zod'
import { civilDateSchema, id } from './common.js'
import { endpoint } from './endpoint.js'

/** Bounds on days of a season or shares; all three are known, or the whole is null. */
const known = z.object({ p10: z.number(), p50: z.number(), p90: z.number() })

/** Of what the year of an attack is told: by the model with the weather of the place, by own records of past seasons, or by the usual months. */
export const attackBases = ['model', 'records', 'months'] as const

const meetingSchema = z.object({
  organismId: z.string(),
  name: z.string(),
  /** Watched at this site in this season or any before. */
  isKnownHere: z.boolean(),
  by: z.enum(attackBases),
  /** Seasons that it rests on: of own records, or of the weather of a model. */
  seasons: z.int(),
  confidence: z.enum(['established', 'approximate', 'placeholder']),
  /** Between which stages of the crop it comes to it. */
  from: z.enum(cropStages),
  until: z.enum(cropStages),
  /** What comes to the crop, in words. */
  stages: z.array(z.string()),
  /** Part of its attack on each day, against the day with the most; 0 to 1. */
  curve: z.array(z.number()),
  wintersThere: z.boolean(),
  /** Whether a cover keeps it out, and whether a strip draws it, by the library. */
  coverHelps: z.boolean(),
  stripHelps: z.boolean(),
  /** Which kinds bear it well or badly, by the library. */
  varieties: z.array(z.object({ what: z.string(), effect: z.string() })),
})

const dateSchema = z.object({
  /** Day of the season. */
  day: z.int(),
  /** In the order of the meetings. */
  met: z.array(z.object({ share: known, beforeHarvest: known })),
  harvest: known.nullable(),
  springFrost: z.number().nullable(),
  autumnFrost: z.number().nullable(),
  /** Whether it is usually warm enough to grow from then until something can be picked. */
  grows: z.boolean(),
})

export const plantingDatesSchema = z.object({
  season: z.object({
    start: civilDateSchema,
    days: z.int(),
    /** Day of the season from which something can still be sown. */
    first: z.int(),
  }),
  crop: z.object({
    id: z.string(),
    name: z.string(),
    family: z.string(),
    stages: z.array(
      z.object({
        id: z.enum(cropStages),
        after: z.array(z.object({ stage: z.enum(cropStages), days: z.tuple([z.number(), z.number()]) })),
      }),
    ),
    /** Stage from which it must stand open to bees or wind; null where it need not. */
    openFrom: z.enum(cropStages).nullable(),
    frostKills: z.boolean(),
  }),
  begins: z.enum(['sown', 'planted']),
  meetings: z.array(meetingSchema),
  dates: z.array(dateSchema),
  /** How many past seasons the frosts rest on; 0 where none is known. */
  frostSeasons: z.int(),
  /** Crops of the family that stood in that soil within the years for which that matters. */
  sameFamily: z.array(z.object({ cropName: z.string(), until: civilDateSchema })),
  /** Other ground where none of the family stood: the farthest from where some did first. `metres` to the nearest such ground, null where that is not known. */
  clear: z.array(z.object({ placeId: id, name: z.string(), metres: z.int().nullable() })),
})
export type PlantingDates = z.infer<typeof plantingDatesSchema>

export const choreSchema = z.object({
  organismId: z.string(),
  name: z.string(),
  blockId: id,
  blockName: z.string(),
  /** As what it winters, and where. */
  as: z.string(),
  where: z.string(),
  /** What takes its winter from it. */
  todo: z.array(z.string()).min(1),
  /** After what of the crop it can begin: the last harvest that is expected or seen; null where nothing is known of it. */
  from: civilDateSchema.nullable(),
  /** When the first of it is about again: the earliest of nine in ten. */
  until: civilDateSchema,
  by: z.enum(['model', 'months']),
})
export type Chore = z.infer<typeof choreSchema>

const siteParams = z.object({ siteId: id })

export const prevention = {
  dates: endpoint({
    method: 'get',
    path: '/sites/:siteId/planting-dates',
    restsOn: ['site', 'stations', 'weather', 'watches', 'counts', 'library', 'blooms', 'day'],
    summary: 'For each day on which a crop may be sown or planted somewhere: what of its pests it would meet, frost, and its harvest',
    params: siteParams,
    input: z.object({
      placeId: z.uuid({ error: 'choose where it is to stand' }),
      crop: z.string({ error: 'choose a crop' }).min(1, { error: 'choose a crop' }),
      begins: z.enum(['sown', 'planted'], { error: 'choose whether it is sown or planted there' }),
      year: z.enum(['this', 'next']).default('this'),
    }),
    response: plantingDatesSchema,
  }),
  chores: endpoint({
    method: 'get',
    path: '/sites/:siteId/winter-chores',
    restsOn: ['site', 'stations', 'weather', 'watches', 'library', 'blooms', 'day'],
    summary: 'What can be done between two seasons against what winters at the site, by when each of it is about again',
    params: siteParams,
    input: z.object({}),
    response: z.array(choreSchema),
  }),
}
