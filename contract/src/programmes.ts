import { z } from 'zod'
import { bloomEvents, cropStages } from '@bocado/library/vocabulary'
import { id, number, rowVersion, text } from './common.js'
import { endpoint } from './endpoint.js'

export const whenKinds = ['at-once', 'after', 'months', 'window', 'regrowth', 'count', 'bloom', 'crop-stage'] as const

const when = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('at-once') }),
  z.object({ kind: z.literal('after'), step: z.int().min(0).max(19), days: number('the days after', 0, 730) }),
  z.object({ kind: z.literal('months'), months: z.array(z.int().min(1).max(12)).min(1, { error: 'choose at least one month' }).max(12) }),
  z.object({ kind: z.literal('window') }),
  z.object({ kind: z.literal('regrowth'), cm: number('the height in cm', 1, 1000) }),
  z.object({
    kind: z.literal('bloom'),
    plantId: text('the plant', 80),
    event: z.enum(bloomEvents, { error: 'choose the bloom' }),
    days: number('the days after', 0, 365),
  }),
  z.object({ kind: z.literal('crop-stage'), stage: z.enum(cropStages, { error: 'choose the stage' }) }),
  z.object({ kind: z.literal('count'), per100: number('how many per 100', 0.01, 100_000) }),
])
const whole = (name: string, least: number, most: number) =>
  z
    .int({ error: `enter ${name} as a whole number` })
    .min(least, { error: `must be at least ${least}` })
    .max(most, { error: `must be at most ${most}` })
const each = (name: string, most: number) => number(name, 0, most).nullable().default(null)

export const programmeStepSchema = z.object({
  /** A product of the shelf or a method by hand: one of both. */
  productId: id.nullable(),
  methodId: z.string().nullable(),
  when,
  everyDays: z.int().nullable(),
  emptyChecks: z.int().nullable(),
  /** In the first, the second and the third year. */
  visits: z.tuple([z.int(), z.int(), z.int()]),
  /** Of one visit; null: nobody said. Money in whatever the farm reckons in. */
  hours: z.number().nullable(),
  litres: z.number().nullable(),
  bags: z.number().nullable(),
  money: z.number().nullable(),
})
export type ProgrammeStep = z.infer<typeof programmeStepSchema>

export const programmeSchema = z.object({
  id,
  watchId: id,
  name: z.string(),
  /** It is the one that is followed: its steps come up when they are due. */
  followed: z.boolean(),
  /** Money that an hour of work costs. */
  hourly: z.number().nullable(),
  steps: z.array(programmeStepSchema),
  rowVersion,
})
export type Programme = z.infer<typeof programmeSchema>

const stepInput = z.object({
  productId: z.uuid().nullable().default(null),
  methodId: z.string().max(80).nullable().default(null),
  when,
  everyDays: whole('the days between', 1, 730).nullable().default(null),
  emptyChecks: whole('how many looks', 1, 20).nullable().default(null),
  visits: z.tuple([whole('the visits', 0, 365), whole('the visits', 0, 365), whole('the visits', 0, 365)]),
  hours: each('the hours of a visit', 10_000),
  litres: each('the litres of a visit', 1_000_000),
  bags: each('the bags of a visit', 100_000),
  money: each('the money of a visit', 10_000_000),
})
const fields = z.object({
  name: text('what it is called', 120),
  followed: z.boolean().default(false),
  hourly: each('what an hour costs', 100_000),
  steps: z.array(stepInput).min(1, { error: 'add at least one step' }).max(20, { error: 'at most 20 steps' }),
})
/** A step follows one that stands before it, and each has its means. */
const inOrder = <S extends z.ZodType<z.infer<typeof fields>>>(schema: S) =>
  schema.check((ctx) => {
    ctx.value.steps.forEach((step, i) => {
      const fault = (path: string, message: string): void => {
        ctx.issues.push({ code: 'custom', path: ['steps', i, path], message, input: step })
      }
      if ((step.productId === null) === (step.methodId === null)) fault('methodId', 'choose a product, or a method by hand')
      if (step.when.kind === 'after' && step.when.step >= i) fault('when', 'has to follow a step that stands before it')
    })
  })

const siteParams = z.object({ siteId: id })
const programmeParams = z.object({ siteId: id, programmeId: id })

export const programmes = {
  list: endpoint({
    method: 'get',
    path: '/sites/:siteId/programmes',
    restsOn: ['treatments', 'watches'],
    summary: 'Programmes of the watches of a site: steps with when each is due, and what they take',
    params: siteParams,
    input: z.object({}),
    response: z.array(programmeSchema),
  }),
  add: endpoint({
    method: 'post',
    path: '/sites/:siteId/watches/:watchId/programmes',
    summary: 'Add a programme; one that is followed takes the place of the one before',
    params: z.object({ siteId: id, watchId: id }),
    input: inOrder(fields),
    response: programmeSchema,
  }),
  update: endpoint({
    method: 'patch',
    path: '/sites/:siteId/programmes/:programmeId',
    summary: 'Change a programme',
    params: programmeParams,
    input: inOrder(fields.extend({ rowVersion })),
    response: programmeSchema,
  }),
  remove: endpoint({
    method: 'delete',
    path: '/sites/:siteId/programmes/:programmeId',
    summary: 'Remove a programme; it can be restored',
    params: programmeParams,
    input: z.object({ rowVersion }),
    response: z.object({ id, rowVersion }),
  }),
  restore: endpoint({
    method: 'post',
    path: '/sites/:siteId/programmes/:programmeId/restore',
    summary: 'Undo the removal of a programme',
    params: programmeParams,
    input: z.object({ rowVersion }),
    response: programmeSchema,
  }),
}
