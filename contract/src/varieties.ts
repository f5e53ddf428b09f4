import { z } from 'zod'
import { civilDateSchema, id, note, rowVersion, text } from './common.js'
import { endpoint } from './endpoint.js'

/** Parts of a plant that are counted one by one. */
export const countedParts = ['leaf', 'stem', 'bud', 'flower', 'fruit', 'root', 'plant'] as const

const howMany = (what: string, least: number) =>
  z
    .int({ error: `enter ${what} as a whole number` })
    .min(least, { error: `enter ${what} as a whole number from ${least}` })
    .max(1_000_000, { error: 'is more than a million; enter what one person looked at' })

const lookFields = z.object({
  organismId: z.string().min(1),
  blockId: id,
  variety: text('the name of the variety', 120),
  /** What the library says of such varieties, by its words; null: nothing of it fits. */
  libraryVariety: z.string().max(200).nullable().default(null),
  part: z.enum(countedParts, { error: 'choose what was looked at' }),
  lookedOn: civilDateSchema,
  looked: howMany('how many were looked at', 1),
  hit: howMany('how many of them were hit', 0),
  /** Per cent of the leaf, of those that were hit, as the drawn degrees have it; null: not judged. */
  degree: z.number().min(0).max(100).nullable().default(null),
  note,
})

type Counted = Pick<z.infer<typeof lookFields>, 'hit' | 'looked' | 'degree' | 'part'>
const fewerHit = ({ hit, looked }: Counted): boolean => hit <= looked
const FEWER_HIT = { error: 'cannot be more than were looked at', path: ['hit'] }
const ofLeaves = ({ degree, part }: Counted): boolean => degree === null || part === 'leaf'
const OF_LEAVES = { error: 'is a share of a leaf; leave it out for other parts', path: ['degree'] }

export const varietyLookInput = lookFields.refine(fewerHit, FEWER_HIT).refine(ofLeaves, OF_LEAVES)
const varietyLookChange = lookFields
  .omit({ organismId: true })
  .extend({ rowVersion })
  .refine(fewerHit, FEWER_HIT)
  .refine(ofLeaves, OF_LEAVES)

export const varietyLookSchema = z.object({
  id,
  organismId: z.string(),
  blockId: id,
  blockName: z.string(),
  season: civilDateSchema,
  variety: z.string(),
  libraryVariety: z.string().nullable(),
  part: z.enum(countedParts),
  lookedOn: civilDateSchema,
  looked: z.int(),
  hit: z.int(),
  degree: z.number().nullable(),
  note: z.string(),
  personName: z.string(),
  rowVersion,
})
export type VarietyLook = z.infer<typeof varietyLookSchema>

/** How a variety bore it over all its looks, and against those that stood beside it. Intervals at 90 %. */
export const varietyStandingSchema = z.object({
  variety: z.string(),
  libraryVariety: z.string().nullable(),
  part: z.enum(countedParts),
  looked: z.int(),
  hit: z.int(),
  share: z.number(),
  interval: z.object({ low: z.number(), high: z.number() }),
  /** Blocks and seasons in which it was looked at. */
  places: z.int(),
  besideOthers: z
    .object({
      ratio: z.number(),
      interval: z.object({ low: z.number(), high: z.number() }),
      places: z.int(),
      verdict: z.enum(['less', 'not-separable', 'more']),
    })
    .nullable(),
})
export type VarietyStanding = z.infer<typeof varietyStandingSchema>

const siteParams = z.object({ siteId: id })
const lookParams = z.object({ siteId: id, lookId: id })

export const varieties = {
  get: endpoint({
    method: 'get',
    path: '/sites/:siteId/variety-looks',
    restsOn: ['library', 'site'],
    summary: 'How varieties bore an organism here, and the names of varieties that are in use at the site',
    params: siteParams,
    input: z.object({ organismId: z.string() }),
    response: z.object({
      looks: z.array(varietyLookSchema),
      standings: z.array(varietyStandingSchema),
      /** Varieties of any organism’s looks, in their spelling. */
      names: z.array(z.string()),
    }),
  }),
  add: endpoint({
    method: 'post',
    path: '/sites/:siteId/variety-looks',
    summary: 'Record how a variety bore an organism, of this season or a past one',
    params: siteParams,
    input: varietyLookInput,
    response: varietyLookSchema,
  }),
  importLooks: endpoint({
    method: 'post',
    path: '/sites/:siteId/variety-looks/csv',
    summary: 'Take in looks at varieties from a file such as goes out; all of them, or none',
    params: siteParams,
    input: z.object({ csv: z.string().min(1, { error: 'is empty' }).max(1_500_000, { error: 'is larger than 1.5 MB' }) }),
    response: z.object({ added: z.int(), known: z.int() }),
  }),
  update: endpoint({
    method: 'patch',
    path: '/sites/:siteId/variety-looks/:lookId',
    summary: 'Correct a look at a variety',
    params: lookParams,
    input: varietyLookChange,
    response: varietyLookSchema,
  }),
  remove: endpoint({
    method: 'delete',
    path: '/sites/:siteId/variety-looks/:lookId',
    summary: 'Remove a look at a variety; it can be restored',
    params: lookParams,
    input: z.object({ rowVersion }),
    response: z.object({ id, rowVersion }),
  }),
  restore: endpoint({
    method: 'post',
    path: '/sites/:siteId/variety-looks/:lookId/restore',
    summary: 'Undo the removal of a look at a variety',
    params: lookParams,
    input: z.object({ rowVersion }),
    response: varietyLookSchema,
  }),
}
