import { z } from 'zod'
import { civilDateSchema, id, instantSchema } from './common.js'
import { endpoint } from './endpoint.js'

export const alertKinds = [
  'opens',
  'peak',
  'closes',
  'infection',
  'hours',
  'frost',
  'entry',
  'count',
  'bloom',
  'silent',
  'order',
  'keeps',
] as const

export const alertSchema = z.object({
  id,
  kind: z.enum(alertKinds),
  /** The civil day on which it matters. */
  about: civilDateSchema,
  /** Minutes matter. */
  urgent: z.boolean(),
  /** What its words are made of: names, civil days, moments, hours and shares. */
  says: z.record(z.string(), z.union([z.string(), z.number()])),
  /** Of the watch that it is about, where it is about one. */
  watchId: id.nullable(),
  madeAt: instantSchema,
  /** It was there when one looked at all of them last. */
  seen: z.boolean(),
})
export type Alert = z.infer<typeof alertSchema>

export const mailWays = ['none', 'at-once', 'digest'] as const
export const pushWays = ['none', 'urgent', 'all'] as const
const hour = z.int({ error: 'choose an hour' }).min(0).max(23)

const settings = z.object({
  mail: z.enum(mailWays),
  /** Where mail goes; needed where any is wanted. */
  address: z.union([z.literal(''), z.email({ error: 'enter a mail address' }).max(200)]),
  /** Hours of the site's clock in which nothing is sent; null: none. */
  quietFrom: hour.nullable(),
  quietUntil: hour.nullable(),
  /** What cannot wait is sent in quiet hours, too. */
  urgentAnyway: z.boolean(),
  digestHour: hour,
  /** What comes to one’s devices at once; quiet hours hold for it, too. */
  push: z.enum(pushWays).default('none'),
  /** Kinds that one does not want to be told of elsewhere than here. */
  muted: z.array(z.enum(alertKinds)),
})
export const alertSettingsSchema = settings.extend({
  /** A server of mail is set up. */
  canMail: z.boolean(),
  /** Devices that agreed to be pushed to. */
  devices: z.int(),
  /** A calendar reads what lies ahead by a link of one's own; since when, null without one. */
  calendarSince: instantSchema.nullable(),
})
export type AlertSettings = z.infer<typeof alertSettingsSchema>

const settingsInput = settings
  .refine(({ mail, address }) => mail === 'none' || address !== '', { path: ['address'], error: 'enter a mail address' })
  .refine(({ quietFrom, quietUntil }) => (quietFrom === null) === (quietUntil === null), {
    path: ['quietUntil'],
    error: 'say both hours, or neither',
  })

const siteParams = z.object({ siteId: id })

export const alerts = {
  list: endpoint({
    method: 'get',
    path: '/sites/:siteId/alerts',
    restsOn: ['forecasts', 'day', 'site'],
    summary: 'What was worth telling in the last two weeks, the newest first',
    params: siteParams,
    input: z.object({}),
    response: z.array(alertSchema),
  }),
  see: endpoint({
    method: 'post',
    path: '/sites/:siteId/alerts/seen',
    summary: 'Say that one has seen all that is told',
    params: siteParams,
    input: z.object({}),
    response: z.array(alertSchema),
  }),
  settings: endpoint({
    method: 'get',
    path: '/sites/:siteId/alert-settings',
    restsOn: ['site'],
    summary: 'How one is told elsewhere',
    params: siteParams,
    input: z.object({}),
    response: alertSettingsSchema,
  }),
  set: endpoint({
    method: 'put',
    path: '/sites/:siteId/alert-settings',
    summary: 'Say how one wants to be told elsewhere',
    params: siteParams,
    input: settingsInput,
    response: alertSettingsSchema,
  }),
  makeCalendar: endpoint({
    method: 'post',
    path: '/sites/:siteId/calendar-link',
    summary: 'Make a link by which a calendar reads what lies two days ahead or more; the one before opens nothing any more',
    params: siteParams,
    input: z.object({}),
    response: alertSettingsSchema.extend({ token: z.string() }),
  }),
  endCalendar: endpoint({
    method: 'delete',
    path: '/sites/:siteId/calendar-link',
    summary: 'End the link of one’s calendar',
    params: siteParams,
    input: z.object({}),
    response: alertSettingsSchema,
  }),
  pushKey: endpoint({
    method: 'post',
    path: '/account/push-key',
    summary: 'The key by which a browser asks its maker for pushes of this server',
    params: z.object({}),
    input: z.object({}),
    response: z.object({ key: z.string() }),
  }),
  addDevice: endpoint({
    method: 'post',
    path: '/account/push-devices',
    summary: 'Have pushes come to a browser, as its maker gave it an address for them',
    params: z.object({}),
    input: z.object({ endpoint: z.url().max(1000), p256dh: z.string().min(80).max(120), auth: z.string().min(16).max(40) }),
    response: z.object({ devices: z.int() }),
  }),
  removeDevice: endpoint({
    method: 'delete',
    path: '/account/push-devices',
    summary: 'Have no more pushes come to a browser',
    params: z.object({}),
    input: z.object({ endpoint: z.string().min(1).max(1000) }),
    response: z.object({ devices: z.int() }),
  }),
  inbox: endpoint({
    method: 'get',
    path: '/demo/inbox',
    summary: 'Mail that the demonstration would have sent, the newest first',
    params: z.object({}),
    input: z.object({}),
    response: z.array(z.object({ id, to: z.string(), subject: z.string(), text: z.string(), sentAt: instantSchema })),
  }),
}
