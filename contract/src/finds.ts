import { z } from 'zod'
import { civilDateSchema, id, instantSchema, rowVersion, text } from './common.js'
import { endpoint } from './endpoint.js'
import { flagPosition, plantCount } from './flags.js'
import { photoInput } from './library.js'

/** What became of a find that somebody without an account sent. */
export const publicFindStates = ['waits', 'flagged', 'refused'] as const

/** A way by which anybody may tell a site what they found: a link, and a code that is printed on a board. */
export const findLinkSchema = z.object({
  id,
  name: z.string(),
  /** Near which finds of it are; null: anywhere at the site. */
  placeId: id.nullable(),
  placeName: z.string().nullable(),
  /** Last day on which something can be sent by it. */
  endsOn: civilDateSchema.nullable(),
  code: z.string(),
  /** The whole link as a picture to scan, as SVG, and in words; null where no phone reaches this server. */
  picture: z.string().nullable(),
  link: z.string().nullable(),
  /** Of what came by it. */
  sent: z.int(),
  rowVersion,
})
export type FindLink = z.infer<typeof findLinkSchema>

/** What somebody without an account sent: it counts for nothing until a person who works here has looked at it. */
export const publicFindSchema = z.object({
  id,
  linkName: z.string(),
  /** Near which its link hangs. */
  placeId: id.nullable(),
  said: z.string(),
  note: z.string(),
  seenOn: civilDateSchema,
  position: z.object({ latitude: z.number(), longitude: z.number(), accuracyM: z.number().nullable() }).nullable(),
  hasPhoto: z.boolean(),
  sentAt: instantSchema,
  state: z.enum(publicFindStates),
  flagId: id.nullable(),
  rowVersion,
})
export type PublicFind = z.infer<typeof publicFindSchema>

const siteParams = z.object({ siteId: id })
const linkParams = z.object({ siteId: id, findLinkId: id })
const findParams = z.object({ siteId: id, findId: id })
const version = z.object({ rowVersion })
const empty = z.object({})
const code = z
  .string()
  .regex(/^[2-9a-z]{12}$/, { error: 'is no code of this server: type the twelve letters and digits that stand on the board' })

/** Finds by people without an account: the links by which they come, and the inbox in which they wait. */
export const finds = {
  links: endpoint({
    method: 'get',
    path: '/sites/:siteId/find-links',
    restsOn: ['words', 'site'],
    summary: 'The links by which anybody may send finds',
    params: siteParams,
    input: empty,
    response: z.array(findLinkSchema),
  }),
  addLink: endpoint({
    method: 'post',
    path: '/sites/:siteId/find-links',
    summary: 'Make a link by which anybody may send finds',
    params: siteParams,
    input: z.object({
      name: text('where it hangs, or whom it goes to', 80),
      placeId: z.uuid({ error: 'choose a place of this site' }).nullable().default(null),
      endsOn: civilDateSchema.nullable().default(null),
    }),
    response: findLinkSchema,
  }),
  removeLink: endpoint({
    method: 'delete',
    path: '/sites/:siteId/find-links/:findLinkId',
    summary: 'End a link; what came by it stays',
    params: linkParams,
    input: version,
    response: z.object({ id, rowVersion }),
  }),
  restoreLink: endpoint({
    method: 'post',
    path: '/sites/:siteId/find-links/:findLinkId/restore',
    summary: 'Undo the ending of a link',
    params: linkParams,
    input: version,
    response: findLinkSchema,
  }),
  inbox: endpoint({
    method: 'get',
    path: '/sites/:siteId/finds',
    restsOn: ['words'],
    summary: 'Finds that people without an account sent: what waits, then what was put away last',
    params: siteParams,
    input: empty,
    response: z.array(publicFindSchema),
  }),
  flag: endpoint({
    method: 'post',
    path: '/sites/:siteId/finds/:findId/flag',
    summary: 'Let a find in: it becomes a flag, with its photo and its place',
    params: findParams,
    input: z.object({
      /** null: it is not known what it is. */
      organismId: z.string().max(80).nullable(),
      placeId: z.uuid({ error: 'choose where it stands' }),
      plants: plantCount('the plants'),
      /** As it was sent; false where it cannot be right. */
      withPosition: z.boolean().default(true),
      rowVersion,
    }),
    response: publicFindSchema,
  }),
  refuse: endpoint({
    method: 'patch',
    path: '/sites/:siteId/finds/:findId',
    summary: 'Put a find away as none, or take it back into the inbox',
    params: findParams,
    input: z.object({ refused: z.boolean(), rowVersion }),
    response: publicFindSchema,
  }),
  look: endpoint({
    method: 'post',
    path: '/links/finds/look',
    summary: 'Whose link it is, for whoever follows it',
    params: empty,
    input: z.object({ code }),
    response: z.object({ site: z.string(), name: z.string(), today: civilDateSchema }),
  }),
  send: endpoint({
    method: 'post',
    path: '/links/finds',
    summary: 'Tell a site what was found, without an account; sent twice it is kept once',
    params: empty,
    input: z.object({
      code,
      id: z.uuid(),
      said: z.string().trim().max(120, { error: 'use at most 120 characters' }).default(''),
      note: z.string().trim().max(500, { error: 'use at most 500 characters' }).default(''),
      seenOn: civilDateSchema,
      position: flagPosition,
      photo: photoInput.nullable().default(null),
    }),
    response: z.object({ id }),
  }),
}
