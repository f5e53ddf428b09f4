import { bloomEvents } from '@bocado/library/vocabulary'
import { z } from 'zod'
import { boundsSchema, civilDateSchema, id, madeElsewhere, note, rowVersion } from './common.js'
import { endpoint } from './endpoint.js'
import { photoInput } from './library.js'
import { watchSchema } from './watch.js'

export { bloomEvents }

export const bloomRecordSchema = z.object({
  id,
  plantId: z.string(),
  /** Of a plant of the site's own, which may have been removed since; null for one of the library. */
  plantName: z.string().nullable(),
  event: z.enum(bloomEvents),
  blockId: id.nullable(),
  place: z.string(),
  season: civilDateSchema,
  /** First and last day of the range in which it came; the same where the day is known. */
  seenFrom: civilDateSchema,
  seenTo: civilDateSchema,
  /** Looked for on that day, and not there yet. */
  notYet: z.boolean(),
  note: z.string(),
  photoId: id.nullable(),
  personName: z.string(),
  rowVersion,
})
export type BloomRecord = z.infer<typeof bloomRecordSchema>

const recordFields = {
  plantId: z.string({ error: 'choose a plant' }).min(1, { error: 'choose a plant' }),
  event: z.enum(bloomEvents, { error: 'choose what was seen' }),
  blockId: id.nullable().default(null),
  place: z.string().trim().max(200, { error: 'use at most 200 characters' }).default(''),
  seenFrom: civilDateSchema,
  /** Left out where the day is known. */
  seenTo: civilDateSchema.nullable().default(null),
  notYet: z.boolean().default(false),
  note,
}
export const bloomRecordInput = z
  .object({ ...recordFields, photo: photoInput.nullable().default(null), ...madeElsewhere })
  .refine(({ seenFrom, seenTo }) => seenTo === null || seenFrom <= seenTo, { path: ['seenTo'], error: 'must not lie before the first day' })

/** A line of a notebook or a file as it is understood. */
const notebookLine = z.object({
  line: z.int(),
  text: z.string(),
  plantId: z.string().nullable(),
  event: z.enum(bloomEvents).nullable(),
  seenFrom: civilDateSchema.nullable(),
  seenTo: civilDateSchema.nullable(),
  /** The other day that its numbers may mean, as long as nobody said whether day or month comes first. */
  orElse: civilDateSchema.nullable(),
  notYet: z.boolean(),
  place: z.string(),
  note: z.string(),
  /** Why it cannot be taken; null where it can. */
  problem: z.string().nullable(),
  /** It stands in the log already. */
  known: z.boolean(),
})
export type NotebookLine = z.infer<typeof notebookLine>

export const shiftSchema = z.object({
  /** °C·d on the scale of the blooms; below 0 the season is ahead of the model. */
  heat: z.number(),
  sd: z.number(),
  prior: z.number(),
  held: z.boolean(),
  /** Days by which that is, at the heat of these weeks; below 0 ahead. */
  days: z.number(),
  blooms: z.int(),
  notYet: z.int(),
  /** Whether the prior comes from the site's own years. */
  priorOwn: z.boolean(),
})
export type BloomShift = z.infer<typeof shiftSchema>

/** A bloom that a station's shift rests on. */
const usedBloom = z.object({
  recordId: id,
  plantId: z.string(),
  event: z.enum(bloomEvents),
  heat: z.number(),
  expected: z.number(),
  sd: z.number(),
  notYet: z.boolean(),
  /** Seasons of the site's own that the expectation rests on; 0: the library's figure. */
  ownYears: z.int(),
})

const ladderDot = z.object({ season: civilDateSchema, heat: z.number(), day: z.number() })
export const ladderSchema = z.object({
  blooms: z.array(
    z.object({
      plantId: z.string(),
      event: z.enum(bloomEvents),
      name: z.string(),
      expected: z.number().nullable(),
      dots: z.array(ladderDot),
    }),
  ),
  pests: z.array(
    z.object({
      organismId: z.string(),
      blockId: id,
      event: z.string(),
      name: z.string(),
      organismName: z.string(),
      dots: z.array(ladderDot),
      /** Where it is expected this season; null where no date can be given. */
      expected: z.object({ heat: z.number(), day: z.number() }).nullable(),
      /** Blooms before it by the library and this season's weather, nearest first; for events of which fewer than three years are known. */
      byLibrary: z.array(z.object({ name: z.string(), leadDays: z.number() })),
      indicators: z.array(
        z.object({
          plantId: z.string(),
          event: z.enum(bloomEvents),
          name: z.string(),
          leadHeat: z.number(),
          leadDays: z.number(),
          spread: z.number(),
          error: z.number(),
          errorByHeat: z.number(),
          errorByCalendar: z.number(),
          better: z.boolean(),
          years: z.int(),
        }),
      ),
    }),
  ),
})
export type Ladder = z.infer<typeof ladderSchema>

export const triggerInput = z
  .object({
    /** Null: what is waited for is an event of the organism that is watched. */
    plantId: z.string({ error: 'choose a plant' }).min(1, { error: 'choose a plant' }).nullable(),
    event: z.string({ error: 'choose what has to be seen' }).min(1, { error: 'choose what has to be seen' }),
    daysAfter: z
      .int({ error: 'enter whole days' })
      .min(0, { error: 'must be at least 0' })
      .max(120, { error: 'must be at most 120' })
      .default(0),
    watchId: z.uuid({ error: 'choose a watch' }),
    action: z.enum(['scout', 'treat']),
    productId: id.nullable().default(null),
  })
  .refine(({ plantId, event }) => plantId === null || bloomEvents.some((one) => one === event), {
    path: ['event'],
    error: 'choose what has to be seen',
  })
  .refine(({ action, productId }) => action === 'scout' || productId !== null, { path: ['productId'], error: 'choose what to treat with' })

const triggerSchema = z.object({
  id,
  plantId: z.string().nullable(),
  event: z.string(),
  /** What is waited for of the watch's organism; null where it is a bloom. */
  eventName: z.string().nullable(),
  daysAfter: z.int(),
  watchId: id,
  watchName: z.string(),
  action: z.enum(['scout', 'treat']),
  productName: z.string().nullable(),
  /** Not seen yet, to come, due, or done since. */
  state: z.enum(['waiting', 'coming', 'due', 'done']),
  /** The day on which it is due; null until its bloom was seen. */
  dueOn: civilDateSchema.nullable(),
  rowVersion,
})
export type BloomTrigger = z.infer<typeof triggerSchema>

export const bloomOverviewSchema = z.object({
  /** By station: what blooms so far say of the season. */
  stations: z.array(z.object({ stationId: id, stationName: z.string(), shift: shiftSchema.nullable(), used: z.array(usedBloom) })),
  /** Blooms of the route that are expected in the next two weeks, or overdue. */
  ahead: z.array(
    z.object({
      plantId: z.string(),
      name: z.string(),
      event: z.enum(bloomEvents),
      eventName: z.string(),
      place: z.string(),
      date: boundsSchema,
      overdue: z.boolean(),
      lastLooked: civilDateSchema.nullable(),
    }),
  ),
  /** What shall be done once a bloom is seen. */
  triggers: z.array(triggerSchema),
  /** Weeks between March and October in which no plant of the route blooms, and what would fill them. */
  gaps: z.array(z.object({ from: civilDateSchema, to: civilDateSchema, fill: z.array(z.string()) })),
})
export type BloomOverview = z.infer<typeof bloomOverviewSchema>

const siteParams = z.object({ siteId: id })
const recordParams = z.object({ siteId: id, recordId: id })
const notebook = z.object({
  text: z.string().max(200_000, { error: 'is too long; paste a part of it' }),
  /** What comes first in dates of numbers only; null: the dates tell themselves, or the lines ask. */
  order: z.enum(['dmy', 'mdy']).nullable().default(null),
})

/** What flowers in or beside a block, as far as somebody has said: for whoever treats there, and for bees. */
const bloomingSchema = z.object({
  plantId: z.string(),
  name: z.string(),
  /** Days between which it is in flower, the later end taken where it is not seen yet; null: nobody knows. */
  from: civilDateSchema.nullable(),
  until: civilDateSchema.nullable(),
  how: z.enum(['seen', 'expected', 'unknown']),
})
export type Blooming = z.infer<typeof bloomingSchema>

export const bloom = {
  blooming: endpoint({
    method: 'get',
    path: '/sites/:siteId/blocks/:blockId/blooming',
    restsOn: ['blooms', 'treatments', 'weather', 'stations', 'site', 'day'],
    summary: 'What flowers in or beside a block this season, and when',
    params: z.object({ siteId: id, blockId: id }),
    input: z.object({}),
    response: z.array(bloomingSchema),
  }),
  records: endpoint({
    method: 'get',
    path: '/sites/:siteId/bloom-records',
    restsOn: ['blooms'],
    summary: 'The bloom log, newest first',
    params: siteParams,
    input: z.object({}),
    response: z.array(bloomRecordSchema),
  }),
  add: endpoint({
    method: 'post',
    path: '/sites/:siteId/bloom-records',
    summary: 'Write down a bloom, or that it is not there yet',
    params: siteParams,
    input: bloomRecordInput,
    response: bloomRecordSchema,
  }),
  remove: endpoint({
    method: 'delete',
    path: '/sites/:siteId/bloom-records/:recordId',
    summary: 'Remove a record; can be restored',
    params: recordParams,
    input: z.object({ rowVersion }),
    response: z.object({ id, rowVersion }),
  }),
  restore: endpoint({
    method: 'post',
    path: '/sites/:siteId/bloom-records/:recordId/restore',
    summary: 'Undo the removal of a record',
    params: recordParams,
    input: z.object({ rowVersion }),
    response: z.object({ id, rowVersion }),
  }),
  preview: endpoint({
    method: 'post',
    path: '/sites/:siteId/bloom-notebook/preview',
    summary: 'How the lines of a notebook or a CSV file are understood; nothing is stored',
    params: siteParams,
    input: notebook,
    response: z.array(notebookLine),
  }),
  import: endpoint({
    method: 'post',
    path: '/sites/:siteId/bloom-notebook',
    summary: 'Take a notebook or a CSV file into the log, all its lines or none',
    params: siteParams,
    input: notebook.extend({
      /** Leaves out what cannot be read, as the preview showed. */
      skipWrong: z.boolean().default(false),
    }),
    response: z.object({ added: z.int(), known: z.int(), skipped: z.int() }),
  }),
  overview: endpoint({
    method: 'get',
    path: '/sites/:siteId/bloom',
    restsOn: ['blooms', 'weather', 'stations', 'site', 'day', 'counts', 'treatments', 'watches', 'library'],
    summary: 'What blooms so far say of the season, what to look for, and weeks without nectar',
    params: siteParams,
    input: z.object({}),
    response: bloomOverviewSchema,
  }),
  ladder: endpoint({
    method: 'get',
    path: '/sites/:siteId/bloom/ladder',
    restsOn: ['blooms', 'weather', 'stations', 'site', 'day', 'watches', 'library', 'forecasts'],
    summary: 'Blooms and pest events of all years on one scale of heat, and which bloom foretells which event',
    params: siteParams,
    input: z.object({}),
    response: ladderSchema,
  }),
  addTrigger: endpoint({
    method: 'post',
    path: '/sites/:siteId/bloom-triggers',
    summary: 'Scout or treat once a bloom is seen; a treatment that is hazardous to bees is refused where it would fall into the bloom',
    params: siteParams,
    input: triggerInput,
    response: z.object({ id, rowVersion }),
  }),
  removeTrigger: endpoint({
    method: 'delete',
    path: '/sites/:siteId/bloom-triggers/:recordId',
    summary: 'Remove a trigger; can be restored',
    params: recordParams,
    input: z.object({ rowVersion }),
    response: z.object({ id, rowVersion }),
  }),
  restoreTrigger: endpoint({
    method: 'post',
    path: '/sites/:siteId/bloom-triggers/:recordId/restore',
    summary: 'Undo the removal of a trigger',
    params: recordParams,
    input: z.object({ rowVersion }),
    response: z.object({ id, rowVersion }),
  }),
  follow: endpoint({
    method: 'post',
    path: '/sites/:siteId/watches/:watchId/follows-bloom',
    summary: 'Whether what is seen in bloom moves the forecast of a watch',
    params: z.object({ siteId: id, watchId: id }),
    input: z.object({ follows: z.boolean(), rowVersion }),
    response: watchSchema,
  }),
}
