import { z } from 'zod'
import { civilDateSchema, id, note, number, rowVersion, text } from './common.js'
import { endpoint } from './endpoint.js'
import { rankedSchema } from './sites.js'

/** Parts of a block, the larger first: a place holds only what comes after it. */
export const placeLevels = ['patch', 'row', 'bed', 'plants', 'pots'] as const

/** A part of a block, or of a part of one, down to single plants. */
export const placeSchema = z.object({
  id,
  /** The block or part in which it lies. */
  parentId: id,
  level: z.enum(placeLevels),
  name: z.string(),
  areaM2: z.number().nullable(),
  /** How many plants or pots stand there. */
  plants: z.int().nullable(),
  ...rankedSchema,
  rowVersion,
})
export type Place = z.infer<typeof placeSchema>

const fields = {
  level: z.enum(placeLevels, { error: 'choose what it is' }),
  name: text('its name', 120),
  areaM2: number('the area', 0.0001, 1e9, 'm²').nullable().default(null),
  plants: z
    .int({ error: 'enter a whole number of plants' })
    .min(1, { error: 'must be at least 1' })
    .max(10_000_000, { error: 'must be at most 10,000,000' })
    .nullable()
    .default(null),
}
/** A plot has fewer rows; whoever has more adds them in two steps. */
export const MOST_PARTS = 200

/** `id` is the page's own, so that what is made without signal is stored once however often it is sent. */
export const placeInput = z.object({ ...fields, parentId: z.uuid({ error: 'choose the block' }), id: z.uuid().optional() })

/** What becomes of single plants: the exceptions, not each plant’s life. */
export const plantHappenings = ['affected', 'rescued', 'lost', 'replaced'] as const
export const plantEventSchema = z.object({
  id,
  placeId: id,
  happened: z.enum(plantHappenings),
  plants: z.int(),
  organismId: z.string().nullable(),
  organismName: z.string().nullable(),
  happenedOn: civilDateSchema,
  note: z.string(),
  personName: z.string(),
  rowVersion,
})
export type PlantEvent = z.infer<typeof plantEventSchema>
const eventParams = z.object({ siteId: id, plantEventId: id })
const ok = z.object({ id, rowVersion })

const siteParams = z.object({ siteId: id })
const placeParams = z.object({ siteId: id, placeId: id })

export const places = {
  list: endpoint({
    method: 'get',
    path: '/sites/:siteId/places',
    restsOn: ['site'],
    summary: 'Parts of blocks: patches, rows, beds, plants and pots',
    params: siteParams,
    input: z.object({}),
    response: z.array(placeSchema),
  }),
  create: endpoint({
    method: 'post',
    path: '/sites/:siteId/places',
    summary: 'Add a part of a block',
    params: siteParams,
    input: placeInput,
    response: placeSchema,
  }),
  createSeveral: endpoint({
    method: 'post',
    path: '/sites/:siteId/places/several',
    summary: 'Add parts of one place that are alike, all or none',
    params: siteParams,
    input: z.object({
      parentId: z.uuid({ error: 'choose the block' }),
      parts: z
        .array(z.object({ ...fields, id: z.uuid().optional() }))
        .min(1, { error: 'say what stands there' })
        .max(MOST_PARTS, {
          error: `add at most ${MOST_PARTS} at once`,
        }),
    }),
    response: z.array(placeSchema),
  }),
  update: endpoint({
    method: 'patch',
    path: '/sites/:siteId/places/:placeId',
    summary: 'Change a part of a block',
    params: placeParams,
    input: z.object({ ...fields, rowVersion }),
    response: placeSchema,
  }),
  rank: endpoint({
    method: 'put',
    path: '/sites/:siteId/places/:placeId/rank',
    summary: 'Say what comes first when hours are short, of blocks and of their parts',
    params: placeParams,
    input: z.object({
      rank: z.int({ error: 'choose 1, 2 or 3' }).min(1, { error: 'choose 1, 2 or 3' }).max(3, { error: 'choose 1, 2 or 3' }).nullable(),
      spreads: z.boolean(),
      rowVersion,
    }),
    response: ok,
  }),
  events: endpoint({
    method: 'get',
    path: '/sites/:siteId/plant-events',
    restsOn: ['counts', 'site', 'library'],
    summary: 'What became of single plants: affected, rescued, lost, replaced; the newest first',
    params: siteParams,
    input: z.object({}),
    response: z.array(plantEventSchema),
  }),
  addEvent: endpoint({
    method: 'post',
    path: '/sites/:siteId/plant-events',
    summary: 'Record what became of some plants of a place',
    params: siteParams,
    input: z.object({
      placeId: z.uuid({ error: 'choose where they stand' }),
      happened: z.enum(plantHappenings, { error: 'choose what became of them' }),
      plants: z
        .int({ error: 'enter a whole number of plants' })
        .min(1, { error: 'must be at least 1' })
        .max(10_000_000, { error: 'must be at most 10,000,000' }),
      organismId: z.string().max(80).nullable().default(null),
      happenedOn: civilDateSchema,
      note,
    }),
    response: ok,
  }),
  removeEvent: endpoint({
    method: 'delete',
    path: '/sites/:siteId/plant-events/:plantEventId',
    summary: 'Remove what became of plants; it can be restored',
    params: eventParams,
    input: z.object({ rowVersion }),
    response: ok,
  }),
  restoreEvent: endpoint({
    method: 'post',
    path: '/sites/:siteId/plant-events/:plantEventId/restore',
    summary: 'Undo the removal of what became of plants',
    params: eventParams,
    input: z.object({ rowVersion }),
    response: ok,
  }),
  remove: endpoint({
    method: 'delete',
    path: '/sites/:siteId/places/:placeId',
    summary: 'Remove a part of a block with what lies in it; it can be restored',
    params: placeParams,
    input: z.object({ rowVersion }),
    response: z.object({ id, rowVersion }),
  }),
  restore: endpoint({
    method: 'post',
    path: '/sites/:siteId/places/:placeId/restore',
    summary: 'Undo the removal of a part of a block',
    params: placeParams,
    input: z.object({ rowVersion }),
    response: placeSchema,
  }),
}
