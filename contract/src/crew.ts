import { z } from 'zod'
import { id, instantSchema, rowVersion, text } from './common.js'
import { endpoint } from './endpoint.js'
import { roles } from './rights.js'
import { helpingOnly, helpInput } from './sites.js'

const LONGEST_DAYS = 30

export const invitationSchema = z.object({
  id,
  name: z.string(),
  role: z.enum(roles),
  licensed: z.boolean(),
  /** Somebody who works here already and has no account yet; null: somebody new. */
  personId: id.nullable(),
  invitedBy: z.string(),
  expiresAt: instantSchema,
  isExpired: z.boolean(),
  rowVersion,
})
export type Invitation = z.infer<typeof invitationSchema>

export const invitationInput = helpingOnly(
  z.object({
    name: text('a name', 120),
    role: z.enum(roles, { error: 'choose a role' }),
    licensed: z.boolean().default(false),
    personId: id.nullable().default(null),
    days: z
      .int()
      .min(1)
      .max(LONGEST_DAYS, { error: `give it at most ${LONGEST_DAYS} days` })
      .default(7),
    help: helpInput.nullable().default(null),
  }),
)

const siteParams = z.object({ siteId: id })
/** The part of the link behind its #, shown once and kept nowhere. */
const secret = z.object({ token: z.string(), expiresAt: instantSchema })

/** How people come to a site. */
export const crew = {
  invitations: endpoint({
    method: 'get',
    path: '/sites/:siteId/invitations',
    restsOn: ['site'],
    summary: 'Invitations that nobody has taken yet',
    params: siteParams,
    input: z.object({}),
    response: z.array(invitationSchema),
  }),
  invite: endpoint({
    method: 'post',
    path: '/sites/:siteId/invitations',
    summary: 'Invite somebody by a link that is shown once',
    params: siteParams,
    input: invitationInput,
    response: secret,
  }),
  withdraw: endpoint({
    method: 'delete',
    path: '/sites/:siteId/invitations/:invitationId',
    summary: 'Withdraw an invitation: its link ends',
    params: z.object({ siteId: id, invitationId: id }),
    input: z.object({ rowVersion }),
    response: z.object({ id }),
  }),
  mailLink: endpoint({
    method: 'post',
    path: '/sites/:siteId/links/mail',
    summary: 'Send a link that was just made to whom it is for, by mail',
    params: siteParams,
    input: z.object({ token: z.string().min(1).max(200), to: z.email({ error: 'enter a mail address' }).max(200) }),
    response: z.object({ to: z.string() }),
  }),
  resetLink: endpoint({
    method: 'post',
    path: '/sites/:siteId/people/:personId/reset-link',
    summary: 'A link with which somebody sets a new password, shown once',
    params: z.object({ siteId: id, personId: id }),
    input: z.object({}),
    response: secret,
  }),
}
