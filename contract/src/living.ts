import { z } from 'zod'
import { civilDateSchema, id, number, rowVersion } from './common.js'
import { endpoint } from './endpoint.js'

/** Where an order of something living stands; as the computation names them. */
export const supplyStates = ['unknown', 'order', 'late', 'ordered', 'due', 'there', 'stale', 'dead'] as const

export const supplySchema = z.object({
  id,
  treatmentId: id,
  orderedOn: civilDateSchema.nullable(),
  arrivedOn: civilDateSchema.nullable(),
  /** Share that was alive under a lens; null: nobody looked. */
  alive: z.number().nullable(),
  note: z.string(),
  rowVersion,
})
export type Supply = z.infer<typeof supplySchema>

export const soilReadingSchema = z.object({ id, placeId: id, readOn: civilDateSchema, celsius: z.number(), rowVersion })
export type SoilReading = z.infer<typeof soilReadingSchema>

/** Something living that is planned to be put out: its order, what it would live in, and what would harm it. */
export const livingSchema = z.object({
  treatmentId: id,
  name: z.string(),
  plannedOn: civilDateSchema,
  placeId: id,
  /** Last day on which it can be ordered; null where nobody said how long it takes. */
  orderBy: civilDateSchema.nullable(),
  /** Last day on which it can be put out, once it is there. */
  usableUntil: civilDateSchema.nullable(),
  state: z.enum(supplyStates),
  supply: supplySchema.nullable(),
  /** What it lives in on that day and in the two weeks after; null where nothing is known of it. */
  conditions: z
    .object({
      medium: z.enum(['soil', 'air']),
      floor: z.number(),
      ceiling: z.number(),
      /** Whose floor it is: the label's or the usual one of its kind. */
      floorFrom: z.enum(['label', 'usual']),
      onTheDay: z.number(),
      warmEnough: z.number(),
      coolEnough: z.number(),
      /** Days after it that are known. */
      days: z.int(),
      verdict: z.enum(['fits', 'too-cold', 'too-hot']),
      /** By what the soil of that place is told from the estimate: a thermometer there, or the probe of its station. */
      offset: z.object({ celsius: z.number(), readings: z.int(), by: z.enum(['read-there', 'probe']) }).nullable(),
    })
    .nullable(),
  /** What was put on there and still harms it on that day, until when. */
  residues: z.array(z.object({ name: z.string(), until: civilDateSchema })),
})
export type Living = z.infer<typeof livingSchema>

const siteParams = z.object({ siteId: id })
const readingParams = z.object({ siteId: id, readingId: id })

export const living = {
  read: endpoint({
    method: 'get',
    path: '/sites/:siteId/living',
    restsOn: ['treatments', 'weather', 'stations', 'site', 'library', 'day'],
    summary:
      'Living materials that are planned to be put out, with their orders and what they would live in; and soil thermometer readings',
    params: siteParams,
    input: z.object({}),
    response: z.object({ planned: z.array(livingSchema), readings: z.array(soilReadingSchema) }),
  }),
  note: endpoint({
    method: 'put',
    path: '/sites/:siteId/supplies',
    summary: 'Say that something living was ordered or came, and how much of it was alive',
    params: siteParams,
    input: z.object({
      treatmentId: z.uuid({ error: 'name the treatment that it is for' }),
      orderedOn: civilDateSchema.nullable().default(null),
      arrivedOn: civilDateSchema.nullable().default(null),
      alive: number('the share alive', 0, 1).nullable().default(null),
      note: z.string().trim().max(500, { error: 'use at most 500 characters' }).default(''),
      /** Null where nobody has said anything of it yet. */
      rowVersion: rowVersion.nullable().default(null),
    }),
    response: supplySchema,
  }),
  readSoil: endpoint({
    method: 'post',
    path: '/sites/:siteId/soil-readings',
    summary: 'Record what a thermometer read in the soil of a place, bed or pot',
    params: siteParams,
    input: z.object({
      placeId: z.uuid({ error: 'choose where' }),
      readOn: civilDateSchema,
      celsius: number('the temperature of the soil', -20, 60, '°C'),
    }),
    response: soilReadingSchema,
  }),
  removeReading: endpoint({
    method: 'delete',
    path: '/sites/:siteId/soil-readings/:readingId',
    summary: 'Remove a reading of a soil thermometer; it can be restored',
    params: readingParams,
    input: z.object({ rowVersion }),
    response: z.object({ id, rowVersion }),
  }),
  restoreReading: endpoint({
    method: 'post',
    path: '/sites/:siteId/soil-readings/:readingId/restore',
    summary: 'Undo the removal of a reading of a soil thermometer',
    params: readingParams,
    input: z.object({ rowVersion }),
    response: soilReadingSchema,
  }),
}
