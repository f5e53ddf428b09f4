import { z } from 'zod'
import { civilDateSchema, id, rowVersion, text } from './common.js'
import { endpoint } from './endpoint.js'

/** An owner or neighbour allows; an authority permits. */
export const permissionKinds = ['consent', 'permit'] as const
/** How somebody was told. */
export const noticeWays = ['told', 'printed', 'sent'] as const

export const permissionSchema = z.object({
  id,
  kind: z.enum(permissionKinds),
  /** Who gave it. */
  byWhom: z.string(),
  /** The rule of the place that asks for it; null: any that does. */
  ruleId: id.nullable(),
  /** Where it holds, and for which product; null: everywhere, and for any. */
  placeId: id.nullable(),
  productId: id.nullable(),
  validFrom: civilDateSchema,
  /** Its last day; null: it has none. */
  validUntil: civilDateSchema.nullable(),
  /** Its number, or where it is kept. */
  reference: z.string(),
  rowVersion,
})
export type Permission = z.infer<typeof permissionSchema>

export const noticeSchema = z.object({
  id,
  treatmentId: id,
  toWhom: z.string(),
  way: z.enum(noticeWays),
  givenOn: civilDateSchema,
  rowVersion,
})
export type Notice = z.infer<typeof noticeSchema>

const permissionFields = z.object({
  kind: z.enum(permissionKinds, { error: 'choose what it is' }),
  byWhom: text('who gave it', 120),
  ruleId: z.uuid({ error: 'choose a rule of this place' }).nullable().default(null),
  placeId: z.uuid({ error: 'choose where' }).nullable().default(null),
  productId: z.uuid({ error: 'choose a product' }).nullable().default(null),
  validFrom: civilDateSchema,
  validUntil: civilDateSchema.nullable().default(null),
  reference: z.string().trim().max(120, { error: 'use at most 120 characters' }).default(''),
})
const inOrder = <S extends z.ZodType<{ validFrom: string; validUntil: string | null }>>(schema: S) =>
  schema.refine(({ validFrom, validUntil }) => validUntil === null || validFrom <= validUntil, {
    path: ['validUntil'],
    error: 'must not lie before its first day',
  })

const siteParams = z.object({ siteId: id })
const permissionParams = z.object({ siteId: id, permissionId: id })
const noticeParams = z.object({ siteId: id, noticeId: id })
const version = z.object({ rowVersion })

export const permissions = {
  list: endpoint({
    method: 'get',
    path: '/sites/:siteId/permissions',
    restsOn: ['treatments', 'site'],
    summary: 'Consents and permits: who allowed what, where, until when',
    params: siteParams,
    input: z.object({}),
    response: z.array(permissionSchema),
  }),
  add: endpoint({
    method: 'post',
    path: '/sites/:siteId/permissions',
    summary: 'Note a consent or a permit',
    params: siteParams,
    input: inOrder(permissionFields),
    response: permissionSchema,
  }),
  update: endpoint({
    method: 'patch',
    path: '/sites/:siteId/permissions/:permissionId',
    summary: 'Change a consent or a permit',
    params: permissionParams,
    input: inOrder(permissionFields.extend({ rowVersion })),
    response: permissionSchema,
  }),
  remove: endpoint({
    method: 'delete',
    path: '/sites/:siteId/permissions/:permissionId',
    summary: 'Remove a consent or a permit; it can be restored',
    params: permissionParams,
    input: version,
    response: z.object({ id, rowVersion }),
  }),
  restore: endpoint({
    method: 'post',
    path: '/sites/:siteId/permissions/:permissionId/restore',
    summary: 'Undo the removal of a consent or a permit',
    params: permissionParams,
    input: version,
    response: permissionSchema,
  }),
  giveNotice: endpoint({
    method: 'post',
    path: '/sites/:siteId/notices',
    summary: 'Note that somebody was told of a treatment',
    params: siteParams,
    input: z.object({
      treatmentId: z.uuid({ error: 'name the treatment' }),
      toWhom: text('who was told', 120),
      way: z.enum(noticeWays, { error: 'choose how' }),
      givenOn: civilDateSchema,
    }),
    response: noticeSchema,
  }),
  removeNotice: endpoint({
    method: 'delete',
    path: '/sites/:siteId/notices/:noticeId',
    summary: 'Remove a notice; it can be restored',
    params: noticeParams,
    input: version,
    response: z.object({ id, rowVersion }),
  }),
  restoreNotice: endpoint({
    method: 'post',
    path: '/sites/:siteId/notices/:noticeId/restore',
    summary: 'Undo the removal of a notice',
    params: noticeParams,
    input: version,
    response: noticeSchema,
  }),
}
