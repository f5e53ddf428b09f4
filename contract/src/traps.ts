import { z } from 'zod'
import { civilDateSchema, id, madeElsewhere, note, number, rowVersion, text } from './common.js'
import { endpoint } from './endpoint.js'

export const trapCheckSchema = z.object({
  id,
  day: civilDateSchema,
  /** The check before, or the day on which it was hung. */
  since: civilDateSchema,
  caught: z.int(),
  perDay: z.number(),
  countedBy: z.enum(['person', 'device']),
  note: z.string(),
  personName: z.string(),
  rowVersion,
})
export type TrapCheck = z.infer<typeof trapCheckSchema>

export const trapSchema = z.object({
  id,
  name: z.string(),
  blockId: id,
  blockName: z.string(),
  organismId: z.string(),
  organismName: z.string(),
  event: z.string(),
  eventName: z.string(),
  lure: z.string(),
  lureLoad: z.string(),
  lureOn: civilDateSchema.nullable(),
  /** Every lure that hung in it, the newest first. */
  lures: z.array(z.object({ lure: z.string(), load: z.string(), on: civilDateSchema })),
  lureWeeks: z.int().nullable(),
  /** When its lure is to be changed; null where nobody said how long it lasts. */
  lureUntil: civilDateSchema.nullable(),
  inDisruption: z.boolean(),
  hungOn: civilDateSchema,
  takenDownOn: civilDateSchema.nullable(),
  position: z.object({ latitude: z.number(), longitude: z.number() }).nullable(),
  note: z.string(),
  /** Whether a counter sends what it catches. */
  hasCounter: z.boolean(),
  /** Of the season, in the order of their days. */
  checks: z.array(trapCheckSchema),
  /** The biofix that its catches show, where its organism waits for one and males find the trap. */
  biofix: z.object({ day: civilDateSchema, halfInterval: z.number(), checks: z.array(civilDateSchema) }).nullable(),
  /** The watch that its catches tell of, and whether it waits for a biofix by catches. */
  watch: z.object({ id, biofix: civilDateSchema.nullable(), waits: z.boolean() }).nullable(),
  rowVersion,
})
export type Trap = z.infer<typeof trapSchema>

const caught = z
  .int({ error: 'enter a whole number' })
  .min(0, { error: 'must be at least 0' })
  .max(100_000, { error: 'must be at most 100,000' })

const short = (most: number) =>
  z
    .string()
    .trim()
    .max(most, { error: `use at most ${most} characters` })
    .default('')

const hung = {
  name: text('what the trap is called', 80),
  blockId: z.uuid({ error: 'choose where it hangs' }),
  organismId: z.string({ error: 'choose what it catches' }).min(1, { error: 'choose what it catches' }).max(80),
  /** null: the event from which the heat of its organism counts, or its first. */
  event: z.string().max(80).nullable().default(null),
  lure: short(120),
  lureLoad: short(80),
  lureOn: civilDateSchema.nullable().default(null),
  lureWeeks: z
    .int({ error: 'enter whole weeks' })
    .min(1, { error: 'must be at least 1' })
    .max(60, { error: 'must be at most 60' })
    .nullable()
    .default(null),
  inDisruption: z.boolean().default(false),
  hungOn: civilDateSchema,
  takenDownOn: civilDateSchema.nullable().default(null),
  position: z
    .object({ latitude: number('the latitude', -90, 90), longitude: number('the longitude', -180, 180) })
    .nullable()
    .default(null),
  note,
}
const inOrder = <S extends z.ZodType<{ hungOn: string; takenDownOn: string | null }>>(schema: S) =>
  schema.refine(({ hungOn, takenDownOn }) => takenDownOn === null || takenDownOn >= hungOn, {
    path: ['takenDownOn'],
    error: 'must not lie before the day on which it was hung',
  })

const siteParams = z.object({ siteId: id })
const trapParams = z.object({ siteId: id, trapId: id })
const checkParams = z.object({ siteId: id, checkId: id })
const version = z.object({ rowVersion })
const ok = z.object({ id, rowVersion })

export const traps = {
  list: endpoint({
    method: 'get',
    path: '/sites/:siteId/traps',
    restsOn: ['watches', 'site', 'library', 'day'],
    summary: 'The traps of a season with their checks, and the biofix that they show',
    params: siteParams,
    input: z.object({ season: civilDateSchema }),
    response: z.array(trapSchema),
  }),
  add: endpoint({
    method: 'post',
    path: '/sites/:siteId/traps',
    summary: 'Hang a trap',
    params: siteParams,
    input: inOrder(z.object(hung)),
    response: ok,
  }),
  update: endpoint({
    method: 'patch',
    path: '/sites/:siteId/traps/:trapId',
    summary: 'Change a trap: its lure, where it hangs, that it was taken down',
    params: trapParams,
    input: inOrder(z.object({ ...hung, rowVersion })),
    response: ok,
  }),
  remove: endpoint({
    method: 'delete',
    path: '/sites/:siteId/traps/:trapId',
    summary: 'Remove a trap; its catches stay records of its block. It can be restored',
    params: trapParams,
    input: version,
    response: ok,
  }),
  restore: endpoint({
    method: 'post',
    path: '/sites/:siteId/traps/:trapId/restore',
    summary: 'Undo the removal of a trap',
    params: trapParams,
    input: version,
    response: ok,
  }),
  check: endpoint({
    method: 'post',
    path: '/sites/:siteId/trap-checks',
    summary: 'Record what a trap caught since the check before',
    params: siteParams,
    input: z.object({ trapId: z.uuid({ error: 'choose the trap' }), day: civilDateSchema, caught, note, ...madeElsewhere }),
    response: ok,
  }),
  removeCheck: endpoint({
    method: 'delete',
    path: '/sites/:siteId/trap-checks/:checkId',
    summary: 'Remove a check; it can be restored',
    params: checkParams,
    input: version,
    response: ok,
  }),
  restoreCheck: endpoint({
    method: 'post',
    path: '/sites/:siteId/trap-checks/:checkId/restore',
    summary: 'Undo the removal of a check',
    params: checkParams,
    input: version,
    response: ok,
  }),
  paste: endpoint({
    method: 'post',
    path: '/sites/:siteId/traps/:trapId/checks',
    summary: 'Record several checks of a trap, all or none',
    params: trapParams,
    input: z.object({
      checks: z
        .array(z.object({ day: civilDateSchema, caught }))
        .min(1, { error: 'enter at least one check' })
        .max(400, { error: 'at most 400 checks at a time' }),
    }),
    response: z.object({ checks: z.int() }),
  }),
  takeFile: endpoint({
    method: 'post',
    path: '/sites/:siteId/trap-checks/file',
    summary: 'Take the checks of a CSV file, each into the trap of its name, all or none; those that are recorded already stay',
    params: siteParams,
    input: z.object({
      text: z.string({ error: 'choose a file' }).min(1, { error: 'the file is empty' }).max(2_000_000, { error: 'is larger than 2 MB' }),
    }),
    response: z.object({ checks: z.int(), known: z.int() }),
  }),
  issueToken: endpoint({
    method: 'post',
    path: '/sites/:siteId/traps/:trapId/token',
    summary: 'Let a counter send what the trap catches; its token is shown this once, and an earlier one ends',
    params: trapParams,
    input: z.object({}),
    response: z.object({ token: z.string() }),
  }),
  endToken: endpoint({
    method: 'delete',
    path: '/sites/:siteId/traps/:trapId/token',
    summary: 'Send the counter of a trap away; what it sent stays',
    params: trapParams,
    input: z.object({}),
    response: z.object({ id }),
  }),
}

/** What the counter of a trap sends: the catch of whole days. A day that is sent again stands for what it sent before. */
export const catchesPushInput = z.object({
  catches: z
    .array(z.object({ day: civilDateSchema, caught }))
    .min(1, { error: 'send at least one day' })
    .max(400, { error: 'send at most 400 days at once' }),
})
