import { z } from 'zod'
import { civilDateSchema, id, number, rowVersion, text } from './common.js'
import { endpoint } from './endpoint.js'

export const ruleActs = ['everything', 'spraying', 'chemicals', 'cutting', 'burning', 'soil-work'] as const
export const ruleKinds = ['closed-days', 'closed-hours', 'wind', 'notice', 'consent', 'kept-clear'] as const
export const ruleOwners = ['own', 'law'] as const

/** How a site treats chemicals: freely; by a programme that prevents; last, and only what is selective; not at all; by an organic certificate. */
export const chemicalPolicies = ['any', 'programme', 'last', 'never', 'organic'] as const

/** A day of the year, MM-DD. */
export const monthDaySchema = z
  .string({ error: 'choose a day of the year' })
  .regex(/^(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])$/, { error: 'choose a day of the year' })
const monthDay = monthDaySchema.nullable()

export const siteRuleSchema = z.object({
  id,
  name: z.string(),
  kind: z.enum(ruleKinds),
  act: z.enum(ruleActs),
  whose: z.enum(ruleOwners),
  /** The place that it binds, and the block of that; null: the whole site. */
  placeId: id.nullable(),
  blockId: id.nullable(),
  /** It keeps a plant from harm that is awake then, and is changed with it. */
  companionId: id.nullable(),
  fromDay: monthDay,
  untilDay: monthDay,
  fromHour: z.number().nullable(),
  untilHour: z.number().nullable(),
  /** m/s, days or metres, by its kind. */
  amount: z.number().nullable(),
  /** Where it is written, and when somebody last read it there. */
  source: z.string(),
  readOn: civilDateSchema.nullable(),
  rowVersion,
})
export type SiteRule = z.infer<typeof siteRuleSchema>

const hour = number('the hour', 0, 24).nullable().default(null)
const fields = z.object({
  name: text('what the rule says', 120),
  kind: z.enum(ruleKinds, { error: 'choose what it sets' }),
  act: z.enum(ruleActs, { error: 'choose what it binds' }),
  whose: z.enum(ruleOwners, { error: 'choose whose rule it is' }),
  /** null: the whole site. */
  placeId: z.uuid({ error: 'choose a place of this site' }).nullable().default(null),
  fromDay: monthDay.default(null),
  untilDay: monthDay.default(null),
  fromHour: hour,
  untilHour: hour,
  amount: number('how much', 0, 1000).nullable().default(null),
  source: z.string().trim().max(300, { error: 'use at most 300 characters' }).default(''),
  readOn: civilDateSchema.nullable().default(null),
})
/** Each kind needs its own numbers. */
const whole = <S extends z.ZodType<z.infer<typeof fields>>>(schema: S) =>
  schema
    .refine(({ kind, fromDay, untilDay }) => kind !== 'closed-days' || (fromDay !== null && untilDay !== null), {
      path: ['fromDay'],
      error: 'say from which day of the year until which it holds',
    })
    .refine(({ fromDay, untilDay }) => (fromDay === null) === (untilDay === null), {
      path: ['untilDay'],
      error: 'say both days, or neither: then it holds all year',
    })
    .refine(({ kind, fromHour, untilHour }) => kind !== 'closed-hours' || (fromHour !== null && untilHour !== null), {
      path: ['fromHour'],
      error: 'say from which hour until which it forbids',
    })
    .refine(({ kind, fromHour, untilHour }) => kind !== 'closed-hours' || fromHour === null || fromHour !== untilHour, {
      path: ['untilHour'],
      error: 'has to be another hour',
    })
    .refine(({ kind, amount }) => !['wind', 'notice', 'kept-clear'].includes(kind) || (amount !== null && amount > 0), {
      path: ['amount'],
      error: 'say how much',
    })

const siteParams = z.object({ siteId: id })
const ruleParams = z.object({ siteId: id, siteRuleId: id })

export const rules = {
  list: endpoint({
    method: 'get',
    path: '/sites/:siteId/own-rules',
    restsOn: ['site', 'blooms', 'day'],
    summary: 'Rules of the place, and of plants that must not be harmed: closed days and hours, wind, notice and distances',
    params: siteParams,
    input: z.object({}),
    response: z.array(siteRuleSchema),
  }),
  add: endpoint({
    method: 'post',
    path: '/sites/:siteId/own-rules',
    summary: 'Add a rule of the place',
    params: siteParams,
    input: whole(fields),
    response: siteRuleSchema,
  }),
  update: endpoint({
    method: 'patch',
    path: '/sites/:siteId/own-rules/:siteRuleId',
    summary: 'Change a rule of the place',
    params: ruleParams,
    input: whole(fields.extend({ rowVersion })),
    response: siteRuleSchema,
  }),
  remove: endpoint({
    method: 'delete',
    path: '/sites/:siteId/own-rules/:siteRuleId',
    summary: 'Remove a rule of the place; it can be restored',
    params: ruleParams,
    input: z.object({ rowVersion }),
    response: z.object({ id, rowVersion }),
  }),
  restore: endpoint({
    method: 'post',
    path: '/sites/:siteId/own-rules/:siteRuleId/restore',
    summary: 'Undo the removal of a rule',
    params: ruleParams,
    input: z.object({ rowVersion }),
    response: siteRuleSchema,
  }),
}
