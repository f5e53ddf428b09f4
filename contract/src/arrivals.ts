import { z } from 'zod'
import { civilDateSchema, id, note, rowVersion, text } from './common.js'
import { endpoint } from './endpoint.js'

export const arrivalKinds = ['plants', 'soil', 'machine', 'other'] as const
/** What a look at root or stem showed. */
export const arrivalLooks = ['not-looked', 'clean', 'signs'] as const

/** What was known, of late, of the place from which something came. */
export const carriedSchema = z.object({
  organismId: z.string(),
  organismName: z.string(),
  /** A patch of it stands there, it was over its threshold, or it is watched for there. */
  what: z.enum(['flag', 'over', 'watched']),
  /** When it was last seen there; null where it is only watched for. */
  day: civilDateSchema.nullable(),
})
export type Carried = z.infer<typeof carriedSchema>

export const arrivalSchema = z.object({
  id,
  what: z.enum(arrivalKinds),
  name: z.string(),
  source: z.string(),
  fromSiteId: id.nullable(),
  carries: z.array(carriedSchema),
  arrivedOn: civilDateSchema,
  placeId: id,
  placeName: z.string(),
  rootLook: z.enum(arrivalLooks),
  stemLook: z.enum(arrivalLooks),
  isolatedUntil: civilDateSchema.nullable(),
  /** When it was let to the others. */
  releasedOn: civilDateSchema.nullable(),
  note: z.string(),
  personName: z.string(),
  rowVersion,
})
export type Arrival = z.infer<typeof arrivalSchema>

const fields = {
  what: z.enum(arrivalKinds, { error: 'choose what came' }),
  name: text('what came', 120),
  source: z.string().trim().max(200, { error: 'use at most 200 characters' }).default(''),
  arrivedOn: civilDateSchema,
  placeId: z.uuid({ error: 'choose where it stands' }),
  rootLook: z.enum(arrivalLooks).default('not-looked'),
  stemLook: z.enum(arrivalLooks).default('not-looked'),
  isolatedUntil: civilDateSchema.nullable().default(null),
  releasedOn: civilDateSchema.nullable().default(null),
  note,
}
type Dated = z.ZodType<{ arrivedOn: string; isolatedUntil: string | null; releasedOn: string | null }>
const inOrder = <S extends Dated>(schema: S) =>
  schema
    .refine(({ arrivedOn, isolatedUntil }) => isolatedUntil === null || isolatedUntil >= arrivedOn, {
      path: ['isolatedUntil'],
      error: 'must not lie before the day on which it came',
    })
    .refine(({ arrivedOn, releasedOn }) => releasedOn === null || releasedOn >= arrivedOn, {
      path: ['releasedOn'],
      error: 'must not lie before the day on which it came',
    })

const siteParams = z.object({ siteId: id })
const arrivalParams = z.object({ siteId: id, arrivalId: id })
const version = z.object({ rowVersion })
const ok = z.object({ id, rowVersion })

export const arrivals = {
  list: endpoint({
    method: 'get',
    path: '/sites/:siteId/arrivals',
    restsOn: ['counts', 'site'],
    summary: 'Plants, soil and machines that came in, the newest first',
    params: siteParams,
    input: z.object({}),
    response: z.array(arrivalSchema),
  }),
  add: endpoint({
    method: 'post',
    path: '/sites/:siteId/arrivals',
    summary: 'Record what came in; from a site of one’s own with what was known there',
    params: siteParams,
    input: inOrder(
      z.object({
        ...fields,
        fromSiteId: z.uuid().nullable().default(null),
        /** The block there; null: anywhere on that site. */
        fromBlockId: z.uuid().nullable().default(null),
      }),
    ),
    response: ok,
  }),
  update: endpoint({
    method: 'patch',
    path: '/sites/:siteId/arrivals/:arrivalId',
    summary: 'Say what looks at it showed, and when it was let to the others',
    params: arrivalParams,
    input: inOrder(z.object({ ...fields, rowVersion })),
    response: ok,
  }),
  remove: endpoint({
    method: 'delete',
    path: '/sites/:siteId/arrivals/:arrivalId',
    summary: 'Remove an arrival; it can be restored',
    params: arrivalParams,
    input: version,
    response: ok,
  }),
  restore: endpoint({
    method: 'post',
    path: '/sites/:siteId/arrivals/:arrivalId/restore',
    summary: 'Undo the removal of an arrival',
    params: arrivalParams,
    input: version,
    response: ok,
  }),
}
