import { z } from 'zod'
import { civilDateSchema, id, madeElsewhere, note, number, rowVersion } from './common.js'
import { endpoint } from './endpoint.js'
import { figureSchema } from './organisms.js'

export const recordKinds = ['first', 'half', 'catch'] as const

/** What somebody saw of an event: the first, about half, or what a trap caught since the check before. */
export const eventRecordSchema = z.object({
  id,
  event: z.string(),
  season: civilDateSchema,
  kind: z.enum(recordKinds),
  seenOn: civilDateSchema,
  /** The last look without it; of a catch the check before. */
  lookedBefore: civilDateSchema.nullable(),
  caught: z.int().nullable(),
  /** The trap that caught it; null where nobody said in which. */
  trap: z.object({ id, name: z.string(), inDisruption: z.boolean() }).nullable(),
  note: z.string(),
  personName: z.string(),
  rowVersion,
})
export type EventRecord = z.infer<typeof eventRecordSchema>

export const sightingInput = z
  .object({
    event: z.string({ error: 'choose what was seen' }).min(1, { error: 'choose what was seen' }),
    kind: z.enum(['first', 'half']),
    seenOn: civilDateSchema,
    lookedBefore: civilDateSchema.nullable().default(null),
    note,
    ...madeElsewhere,
  })
  .refine(({ seenOn, lookedBefore }) => lookedBefore === null || lookedBefore < seenOn, {
    path: ['lookedBefore'],
    error: 'must lie before the day on which it was seen',
  })

/** Checks of a trap in the order of their days. */
export const catchesInput = z.object({
  event: z.string({ error: 'choose what the trap catches' }).min(1, { error: 'choose what the trap catches' }),
  /** The day on which the trap was hung, or was emptied last before the first of these checks. */
  hungOn: civilDateSchema,
  checks: z
    .array(
      z.object({
        day: civilDateSchema,
        caught: z
          .int({ error: 'enter a whole number' })
          .min(0, { error: 'must be at least 0' })
          .max(100_000, { error: 'must be at most 100000' }),
      }),
    )
    .min(1, { error: 'enter at least one check' })
    .max(400, { error: 'at most 400 checks at a time' }),
  note,
})

const estimate = z.object({ heat: z.number(), heatSe: z.number() })
const skill = z.object({
  /** Days, predicted less seen: above 0 the forecast is late. */
  bias: z.number(),
  error: z.number(),
  /** Share of the seasons within 10th and 90th percentile. */
  coverage: z.number(),
  seasons: z.int(),
})

/** What dates of an event make where no figure of it is known: heat from the first day of the season, above a threshold of its own. */
const clockSchema = z.object({
  event: z.string(),
  name: z.string(),
  seasons: z.array(z.object({ season: civilDateSchema, day: civilDateSchema })),
  /** Seasons of which the weather is not known. */
  left: z.array(civilDateSchema),
  /** Null with fewer than three seasons. */
  clock: z
    .object({
      /** °C */
      lower: z.number(),
      /** °C·d */
      heat: z.number(),
      heatSe: z.number(),
      /** Mean date, as the calendar would tell it. */
      calendarDay: civilDateSchema,
      /** Days by which each season is missed when told without itself, in the mean. */
      error: z.object({ clock: z.number(), calendar: z.number() }),
      /** Five seasons or more, and nearer than the calendar by more than the standard error of that. */
      offered: z.boolean(),
    })
    .nullable(),
  /** The clock that the block goes by; `current` as long as the records still say the same. */
  taken: z.object({ id, seasons: z.int(), current: z.boolean(), rowVersion }).nullable(),
})
export type EventClock = z.infer<typeof clockSchema>

/** A threshold and one sum, typed for an event that nothing else dates. */
const typedClockSchema = z.object({
  id,
  event: z.string(),
  name: z.string(),
  /** °C */
  lower: z.number(),
  upper: z.number().nullable(),
  /** °C·d */
  heat: z.number(),
  /** Month and day from which it counts, as MM-DD; null: from the first day of the season. */
  startsOn: z.string().nullable(),
  source: z.string(),
  rowVersion,
})
export type TypedClock = z.infer<typeof typedClockSchema>

export const typedClockInput = z
  .object({
    event: z.string({ error: 'choose what it tells' }),
    lower: number('the threshold', -20, 40, '°C'),
    upper: number('the upper threshold', -10, 60, '°C').nullable().default(null),
    heat: number('the sum', 1, 10_000, '°C·d'),
    startsOn: z
      .string()
      .regex(/^(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])$/, { error: 'must be a month and a day, such as 03-01' })
      .refine((day) => day !== '02-30' && day !== '02-31', { error: 'must be a day of its month' })
      .nullable()
      .default(null),
    source: z.string().trim().max(200, { error: 'use at most 200 characters' }).default(''),
  })
  .refine((q) => q.upper === null || q.upper > q.lower, { error: 'must be above the lower threshold', path: ['upper'] })

export const calibrationSchema = z.object({
  records: z.array(eventRecordSchema),
  /** The biofix that this season's catches show, where the organism waits for a sustained catch; null where there is none yet. */
  caughtBiofix: z
    .object({
      day: civilDateSchema,
      /** Days by which it may be off: half the interval between two checks. */
      halfInterval: z.number(),
      /** Days of the checks that sustain it. */
      checks: z.array(civilDateSchema),
    })
    .nullable(),
  clocks: z.array(clockSchema),
  typed: z.array(typedClockSchema),
  events: z.array(
    z.object({
      event: z.string(),
      name: z.string(),
      /** The number before these records: of the library, or as the site or block has it. °C·d. */
      prior: estimate,
      /** The figure that each season alone would give. */
      seasons: z.array(
        z.object({
          season: civilDateSchema,
          source: z.enum(recordKinds),
          day: civilDateSchema,
          heat: z.number(),
          datingSd: z.number(),
        }),
      ),
      /** Seasons with records that cannot be used, and why. */
      left: z.array(z.object({ season: civilDateSchema, reason: z.enum(['weather', 'few-catches', 'biofix', 'before-biofix']) })),
      posterior: estimate.extend({ yearSd: z.number(), weight: z.number() }).nullable(),
      /** Standard deviation between individuals, from catches. */
      flight: z
        .object({
          prior: z.number(),
          sd: z.number(),
          low: z.number(),
          high: z.number(),
          catches: z.int(),
          intervals: z.int(),
          dispersion: z.number(),
        })
        .nullable(),
      /** By the number before the records, and by the records without the season that is predicted. */
      skill: z.object({ prior: skill, own: skill }).nullable(),
      /** Whether what the records say is what the block counts with. */
      accepted: z.boolean(),
    }),
  ),
})
export type Calibration = z.infer<typeof calibrationSchema>
export type CalibratedEvent = Calibration['events'][number]

const watchParams = z.object({ siteId: id, watchId: id })
const recordParams = z.object({ siteId: id, recordId: id })

export const calibration = {
  get: endpoint({
    method: 'get',
    path: '/sites/:siteId/watches/:watchId/calibration',
    restsOn: ['watches', 'weather', 'stations', 'site', 'day', 'library'],
    summary: "What a block's own records say of the numbers of a watch's model",
    params: watchParams,
    input: z.object({}),
    response: calibrationSchema,
  }),
  addSighting: endpoint({
    method: 'post',
    path: '/sites/:siteId/watches/:watchId/sightings',
    summary: 'Record when an event was seen, of this season or a past one',
    params: watchParams,
    input: sightingInput,
    response: z.array(eventRecordSchema),
  }),
  addCatches: endpoint({
    method: 'post',
    path: '/sites/:siteId/watches/:watchId/catches',
    summary: 'Record checks of a trap, of this season or a past one',
    params: watchParams,
    input: catchesInput,
    response: z.array(eventRecordSchema),
  }),
  accept: endpoint({
    method: 'post',
    path: '/sites/:siteId/watches/:watchId/calibration',
    summary: "Take what the records say of an event as the block's own numbers",
    params: watchParams,
    input: z.object({ event: z.string() }),
    response: z.array(figureSchema),
  }),
  takeClock: endpoint({
    method: 'post',
    path: '/sites/:siteId/watches/:watchId/clocks',
    summary: 'Let a block go by the clock that its own records make of an event',
    params: watchParams,
    input: z.object({ event: z.string() }),
    response: z.object({ id, rowVersion }),
  }),
  typeClock: endpoint({
    method: 'put',
    path: '/sites/:siteId/watches/:watchId/typed-clocks',
    summary: 'Type a threshold and one sum of heat for an event of which no figure is known',
    params: watchParams,
    input: typedClockInput,
    response: z.object({ id, rowVersion }),
  }),
  dropClock: endpoint({
    method: 'delete',
    path: '/sites/:siteId/clocks/:clockId',
    summary: 'Go by the calendar again; can be restored',
    params: z.object({ siteId: id, clockId: id }),
    input: z.object({ rowVersion }),
    response: z.object({ id, rowVersion }),
  }),
  restoreClock: endpoint({
    method: 'post',
    path: '/sites/:siteId/clocks/:clockId/restore',
    summary: 'Undo going by the calendar again',
    params: z.object({ siteId: id, clockId: id }),
    input: z.object({ rowVersion }),
    response: z.object({ id, rowVersion }),
  }),
  removeRecord: endpoint({
    method: 'delete',
    path: '/sites/:siteId/event-records/:recordId',
    summary: 'Remove a record; can be restored',
    params: recordParams,
    input: z.object({ rowVersion }),
    response: z.object({ id, rowVersion }),
  }),
  restoreRecord: endpoint({
    method: 'post',
    path: '/sites/:siteId/event-records/:recordId/restore',
    summary: 'Undo the removal of a record',
    params: recordParams,
    input: z.object({ rowVersion }),
    response: z.object({ id, rowVersion }),
  }),
}
