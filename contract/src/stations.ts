import { READING_LIMITS, type ReadingLimits } from '@bocado/core/limits'
import { z } from 'zod'
import { civilDateSchema, id, instantSchema, note, number, rowVersion, text } from './common.js'
import { checkedVariables, unitsOf, unitVariables } from './variables.js'

export const stationSchema = z.object({
  id,
  name: z.string(),
  place: z.string(),
  latitude: z.number().nullable(),
  longitude: z.number().nullable(),
  elevationM: z.number().nullable(),
  /** In a tunnel, under glass or in a room: it stands for no place outside. */
  underCover: z.boolean(),
  /** Standard time of the station, minutes east of UTC. */
  utcOffsetMinutes: z.int(),
  rowVersion,
  hours: z.int(),
  typedDays: z.int(),
  /** Whether a device may push to it, and whether that device is simulated. */
  device: z.enum(['none', 'pushed', 'simulated']),
  sensorHeightM: z.number().nullable(),
  /** The newest hour that a device pushed, and whether one is overdue. */
  lastHour: instantSchema.nullable(),
  silent: z.boolean(),
  /** The newest push that was refused, and why; null since none was, or since one was taken after it. */
  refused: z.object({ at: instantSchema, because: z.string() }).nullable(),
  firstDay: civilDateSchema.nullable(),
  lastDay: civilDateSchema.nullable(),
  /** What it reads: newest hour of each, and the share of the thirty days before that which came. */
  sensors: z.array(z.object({ variable: z.enum(checkedVariables), lastHour: instantSchema, share: z.number() })),
})
export type Station = z.infer<typeof stationSchema>

const positionFields = {
  latitude: number('the latitude', -90, 90).nullable().default(null),
  longitude: number('the longitude', -180, 180).nullable().default(null),
}

export const stationInput = z.object({
  name: text('the name of the station', 120),
  place: z.string().trim().max(200, { error: 'use at most 200 characters' }).default(''),
  ...positionFields,
  elevationM: number('the elevation', -450, 6000, 'm').nullable().default(null),
  sensorHeightM: number('the height of the wind sensor', 0.5, 100, 'm').nullable().default(null),
  underCover: z.boolean().default(false),
})

/** A change of the clock moves every reading to another hour of the day, so it has to be meant. */
export const stationPatch = stationInput.extend({
  utcOffsetMinutes: z
    .int({ error: 'enter whole minutes' })
    .min(-840, { error: 'must be at least −14 hours' })
    .max(840, { error: 'must be at most 14 hours' }),
  /** How many hours of readings the writer has seen that it moves. */
  clockMovesHours: z.int().min(0).optional(),
  rowVersion,
})

export const correctionKinds = ['clock', 'unit', 'value'] as const

const isWithin = (value: number, { least, most }: ReadingLimits): boolean => value >= least && value <= most

/**
 * Readings that were taken in wrongly: the clock of the logger was off, or their unit was another, or a single hour was read wrongly. Nothing stored is altered; the
 * correction lies over it and can be taken off.
 */
export const correctionInput = z
  .object({
    kind: z.enum(correctionKinds, { error: 'choose what was wrong' }),
    /** First and last day, in standard time of the station. */
    from: civilDateSchema,
    to: civilDateSchema,
    shiftMinutes: z.int({ error: 'enter whole minutes' }).min(-1440).max(1440).nullable().default(null),
    variable: z.enum(checkedVariables).nullable().default(null),
    readAs: z.string().max(5).nullable().default(null),
    isIn: z.string().max(5).nullable().default(null),
    /** Of a single hour: which one of the day, in standard time of the station, and what it was instead, in SI. */
    hour: z.int({ error: 'choose an hour' }).min(0).max(23).nullable().default(null),
    value: z.number({ error: 'enter a number' }).nullable().default(null),
    note,
  })
  .refine((c) => c.from <= c.to, { error: 'the last day lies before the first', path: ['to'] })
  .refine((c) => c.kind !== 'clock' || (c.shiftMinutes !== null && c.shiftMinutes !== 0 && c.shiftMinutes % 60 === 0), {
    error: 'enter whole hours by which the readings move, such as −1',
    path: ['shiftMinutes'],
  })
  .refine((c) => c.kind !== 'unit' || (c.variable !== null && (unitVariables as readonly string[]).includes(c.variable)), {
    error: 'choose what was read in the wrong unit',
    path: ['variable'],
  })
  .refine((c) => c.kind !== 'unit' || c.variable === null || (unitsOf[c.variable] as readonly string[]).includes(c.readAs ?? ''), {
    error: 'choose the unit that was taken',
    path: ['readAs'],
  })
  .refine((c) => c.kind !== 'unit' || c.variable === null || (unitsOf[c.variable] as readonly string[]).includes(c.isIn ?? ''), {
    error: 'choose the unit in which they are',
    path: ['isIn'],
  })
  .refine((c) => c.kind !== 'value' || c.variable !== null, { error: 'choose what was read wrongly', path: ['variable'] })
  .refine((c) => c.kind !== 'value' || c.from === c.to, { error: 'a single hour lies in one day', path: ['to'] })
  .refine((c) => c.kind !== 'value' || c.hour !== null, { error: 'choose an hour', path: ['hour'] })
  .refine((c) => c.kind !== 'value' || c.value !== null, { error: 'enter what it was', path: ['value'] })
  .refine((c) => c.kind !== 'value' || c.value === null || c.variable === null || isWithin(c.value, READING_LIMITS[c.variable]), {
    error: 'is outside what there can be',
    path: ['value'],
  })
  .refine((c) => c.kind !== 'value' || c.note.trim() !== '', { error: 'say why', path: ['note'] })
  .refine((c) => c.kind !== 'unit' || c.readAs !== c.isIn, { error: 'is the unit that was taken already', path: ['isIn'] })

export const correctionSchema = z.object({
  id,
  kind: z.enum(correctionKinds),
  from: civilDateSchema,
  to: civilDateSchema,
  shiftMinutes: z.int().nullable(),
  variable: z.enum(checkedVariables).nullable(),
  readAs: z.string().nullable(),
  isIn: z.string().nullable(),
  hour: z.int().nullable(),
  value: z.number().nullable(),
  note: z.string(),
  by: z.string(),
  rowVersion,
})
export type Correction = z.infer<typeof correctionSchema>

/** What a correction would do, before it is made. */
export const correctionPreviewSchema = z.object({
  hours: z.int(),
  /** Hours that would then lie outside what there can be. */
  impossible: z.int(),
  examples: z.array(z.object({ at: instantSchema, before: z.number(), movesTo: instantSchema, after: z.number() })),
})
