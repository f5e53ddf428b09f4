import { z } from 'zod'
import { id, number, rowVersion, text } from './common.js'
import { endpoint } from './endpoint.js'

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
