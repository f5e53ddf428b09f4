import { z } from 'zod'
import { signInWays } from './account.js'
import { id, instantSchema } from './common.js'
import { endpoint } from './endpoint.js'

const MOST = 100

export const auditActions = ['create', 'change', 'remove', 'restore'] as const

/** Somebody changed something: who, when, what, and each value before and after. */
export const auditEntrySchema = z.object({
  id: z.int(),
  at: instantSchema,
  by: z.string(),
  action: z.enum(auditActions),
  /** What kind of thing, as the database calls it, and which of them. */
  entity: z.string(),
  entityId: id,
  /** What it is called, where it has a name. */
  name: z.string().nullable(),
  changes: z.array(z.object({ field: z.string(), before: z.string().nullable(), after: z.string().nullable() })),
})
export type AuditEntry = z.infer<typeof auditEntrySchema>

export const siteSignInSchema = z.object({
  name: z.string(),
  how: z.enum(signInWays),
  /** The shared phone on which it was; null elsewhere. */
  phone: z.string().nullable(),
  at: instantSchema,
  seenAt: instantSchema,
})
export type SiteSignIn = z.infer<typeof siteSignInSchema>

export const audit = {
  signIns: endpoint({
    method: 'get',
    path: '/sites/:siteId/sign-ins',
    restsOn: ['site'],
    summary: 'Who of a site signed in, newest first: the last two hundred',
    params: z.object({ siteId: id }),
    input: z.object({}),
    response: z.array(siteSignInSchema),
  }),
  list: endpoint({
    method: 'get',
    path: '/sites/:siteId/audit',
    restsOn: ['site', 'stations', 'weather', 'watches', 'blooms', 'counts', 'treatments', 'library'],
    summary: 'Who changed what at a site, newest first, or of one thing',
    params: z.object({ siteId: id }),
    input: z.object({
      /** Entries older than this one. */
      before: z.coerce.number().int().min(1).optional(),
      entityId: id.optional(),
      personId: id.optional(),
      most: z.coerce.number().int().min(1).max(MOST).default(50),
    }),
    response: z.object({ entries: z.array(auditEntrySchema), isMore: z.boolean() }),
  }),
}
