import { cropStages } from '@bocado/library/vocabulary'
import { z } from 'zod'
import { civilDateSchema, id, madeElsewhere, note, rowVersion } from './common.js'
import { endpoint } from './endpoint.js'

export { cropStages }

/** What is grown: a crop of the library with the stages that it comes through. */
export const cropSchema = z.object({
  id: z.string(),
  name: z.string(),
  words: z.array(z.string()),
  family: z.string(),
  lives: z.enum(['annual', 'perennial']),
  stages: z.array(z.enum(cropStages)),
})
export type CropEntry = z.infer<typeof cropSchema>

const span = z.object({ from: civilDateSchema, until: civilDateSchema })

export const plantingSchema = z.object({
  id,
  placeId: id,
  placeName: z.string(),
  crop: z.string(),
  cropName: z.string(),
  variety: z.string(),
  standsFrom: civilDateSchema,
  standsUntil: civilDateSchema.nullable(),
  note: z.string(),
  rowVersion,
  /** Its stages in this season, in their order. */
  stages: z.array(
    z.object({
      stage: z.enum(cropStages),
      /** The day on which it was seen, with its record; without one it is told by the first that was picked there. */
      seen: z.object({ record: z.object({ id, rowVersion }).nullable(), on: civilDateSchema, personName: z.string() }).nullable(),
      /** By practice, from what was seen before: wide. */
      expected: span.nullable(),
      /** A later stage was seen. */
      isPast: z.boolean(),
    }),
  ),
  /** When it is in flower, for bees; null where it never is or nobody knows. */
  flowers: z.object({ from: civilDateSchema, until: civilDateSchema, how: z.enum(['seen', 'expected']) }).nullable(),
  /** Crops of its family that stood there before, within the years for which that matters. */
  sameFamily: z.array(z.object({ cropName: z.string(), until: civilDateSchema })),
})
export type Planting = z.infer<typeof plantingSchema>

const fields = {
  placeId: z.uuid({ error: 'choose where it stands' }),
  crop: z.string({ error: 'choose what grows there' }).min(1, { error: 'choose what grows there' }),
  variety: z.string().trim().max(120, { error: 'use at most 120 characters' }).default(''),
  standsFrom: civilDateSchema,
  standsUntil: civilDateSchema.nullable().default(null),
  note,
}
const inOrder = <S extends z.ZodType<{ standsFrom: string; standsUntil: string | null }>>(schema: S) =>
  schema.refine(({ standsFrom, standsUntil }) => standsUntil === null || standsFrom <= standsUntil, {
    path: ['standsUntil'],
    error: 'must not lie before the day from which it stands there',
  })

const siteParams = z.object({ siteId: id })
const plantingParams = z.object({ siteId: id, plantingId: id })
const stageParams = z.object({ siteId: id, recordId: id })
const version = z.object({ rowVersion })
const ok = z.object({ id, rowVersion })

export const crops = {
  known: endpoint({
    method: 'get',
    path: '/sites/:siteId/crops',
    restsOn: ['library'],
    summary: 'Crops of the library with their stages',
    params: siteParams,
    input: z.object({}),
    response: z.array(cropSchema),
  }),
  list: endpoint({
    method: 'get',
    path: '/sites/:siteId/plantings',
    restsOn: ['blooms', 'treatments', 'site', 'day'],
    summary: 'The crop calendar of a season: what stands where, the stages that were seen, and those that are expected',
    params: siteParams,
    input: z.object({ season: civilDateSchema }),
    response: z.array(plantingSchema),
  }),
  add: endpoint({
    method: 'post',
    path: '/sites/:siteId/plantings',
    summary: 'Say what stands somewhere',
    params: siteParams,
    /** `begins` is the stage with which it stands there from that day on, as it was sown or planted. */
    input: inOrder(z.object({ ...fields, begins: z.enum(cropStages).nullable().default(null) })),
    response: ok,
  }),
  update: endpoint({
    method: 'patch',
    path: '/sites/:siteId/plantings/:plantingId',
    summary: 'Correct what stands somewhere, or say until when it did',
    params: plantingParams,
    input: inOrder(z.object({ ...fields, rowVersion })),
    response: ok,
  }),
  remove: endpoint({
    method: 'delete',
    path: '/sites/:siteId/plantings/:plantingId',
    summary: 'Remove a planting; it can be restored',
    params: plantingParams,
    input: version,
    response: ok,
  }),
  restore: endpoint({
    method: 'post',
    path: '/sites/:siteId/plantings/:plantingId/restore',
    summary: 'Undo the removal of a planting',
    params: plantingParams,
    input: version,
    response: ok,
  }),
  addStage: endpoint({
    method: 'post',
    path: '/sites/:siteId/crop-stages',
    summary: 'Record the day on which a stage of a crop was seen',
    params: siteParams,
    input: z.object({
      plantingId: z.uuid({ error: 'choose a planting' }),
      stage: z.enum(cropStages, { error: 'choose what was seen' }),
      seenOn: civilDateSchema,
      ...madeElsewhere,
    }),
    response: ok,
  }),
  removeStage: endpoint({
    method: 'delete',
    path: '/sites/:siteId/crop-stages/:recordId',
    summary: 'Remove the day of a stage; it can be restored',
    params: stageParams,
    input: version,
    response: ok,
  }),
  restoreStage: endpoint({
    method: 'post',
    path: '/sites/:siteId/crop-stages/:recordId/restore',
    summary: 'Undo the removal of the day of a stage',
    params: stageParams,
    input: version,
    response: ok,
  }),
}
