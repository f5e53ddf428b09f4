import { z } from 'zod'
import { sessionSchema } from './account.js'
import { id, instantSchema, rowVersion, text } from './common.js'
import { endpoint } from './endpoint.js'

/** A phone that several people of a site work with, one after the other. */
export const phoneSchema = z.object({
  id,
  name: z.string(),
  pairedBy: z.string(),
  /** null: its link was made, and nobody has opened it yet. */
  pairedAt: instantSchema.nullable(),
  seenAt: instantSchema.nullable(),
  /** Until when its link opens; null once it is paired. */
  pairUntil: instantSchema.nullable(),
  rowVersion,
})
export type Phone = z.infer<typeof phoneSchema>

const siteParams = z.object({ siteId: id })
const empty = z.object({})

/** Phones that are handed on: each belongs to a site, and whoever works there comes in on it by a code of four digits. */
export const phones = {
  list: endpoint({
    method: 'get',
    path: '/sites/:siteId/phones',
    restsOn: ['site'],
    summary: 'Shared phones of a site',
    params: siteParams,
    input: empty,
    response: z.array(phoneSchema),
  }),
  offer: endpoint({
    method: 'post',
    path: '/sites/:siteId/phones',
    summary: 'Make a link that pairs a phone with a site; shown once',
    params: siteParams,
    input: z.object({ name: text('a name for the phone', 120) }),
    response: z.object({
      token: z.string(),
      pairUntil: instantSchema,
      /** The whole link as a picture to scan, as SVG; null where no phone reaches this server. */
      code: z.string().nullable(),
      link: z.string().nullable(),
    }),
  }),
  sendAway: endpoint({
    method: 'delete',
    path: '/sites/:siteId/phones/:phoneId',
    summary: 'Send a shared phone away: it opens nothing any more, and whoever is in on it is out',
    params: z.object({ siteId: id, phoneId: id }),
    input: z.object({ rowVersion }),
    response: z.object({ id }),
  }),
  pair: endpoint({
    method: 'post',
    path: '/phones/pair',
    summary: 'Pair this phone by a link',
    params: empty,
    input: z.object({ token: z.string().regex(/^[\w-]{43}$/, { error: 'is no link of this server' }) }),
    response: sessionSchema,
  }),
}
