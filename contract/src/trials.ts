import { z } from 'zod'
import { civilDateSchema, id, number, rowVersion, text } from './common.js'
import { endpoint } from './endpoint.js'

/** Of what a trial is made. */
export const trialUnits = ['plants', 'pots', 'beds', 'plots'] as const
/** What is looked at: how many there are, or whether the plant lives. */
export const trialMeasures = ['count', 'alive'] as const
/** A trial tells nothing of fewer pairs, and nobody counts more. */
export const FEWEST_TRIAL_PAIRS = 3
export const MOST_TRIAL_PAIRS = 40

const countedSchema = z.object({ countedOn: civilDateSchema, counts: z.record(z.string(), z.number()) })
const effectSchema = z.object({ effect: z.number(), low: z.number(), high: z.number() })

export const trialSchema = z.object({
  id,
  name: z.string(),
  /** What is tried, in words. */
  what: z.string(),
  /** The product or the method by hand that is tried; null for both where it is none: a date, a variety, a height. */
  productId: id.nullable(),
  methodId: z.string().nullable(),
  placeId: id,
  placeName: z.string(),
  /** Against what; null where the plants themselves are looked at. */
  organismId: z.string().nullable(),
  units: z.enum(trialUnits),
  measure: z.enum(trialMeasures),
  /** It drives off or draws what comes: side by side it tells what is preferred, not what would be taken. */
  moves: z.boolean(),
  /** Neighbours, of which the lot named one to be treated. */
  pairs: z.array(z.object({ treated: z.string(), check: z.string() })),
  drawnOn: civilDateSchema,
  /** When it was treated; null where nobody has said. */
  treatedOn: civilDateSchema.nullable(),
  judgeAfterDays: z.int(),
  /** First day on which it can be judged; null while nobody has said when it was treated. */
  judgeFrom: civilDateSchema.nullable(),
  before: countedSchema.nullable(),
  after: countedSchema.nullable(),
  result: z
    .object({
      verdict: z.enum(['worked', 'worse', 'cannot-tell', 'too-few']),
      /** The effect that is shown of counts; null for what lives or dies. */
      shown: effectSchema.extend({ atLeast: z.boolean() }).nullable(),
      used: z.int(),
      leftOut: z.int(),
      /** Of what lives or dies: pairs in which only one lives, and how likely that is by chance. */
      survival: z.object({ onlyTreated: z.int(), onlyCheck: z.int(), p: z.number() }).nullable(),
    })
    .nullable(),
  note: z.string(),
  personName: z.string(),
  rowVersion,
})
export type Trial = z.infer<typeof trialSchema>

const siteParams = z.object({ siteId: id })
const trialParams = z.object({ siteId: id, trialId: id })
const version = z.object({ rowVersion })

export const trials = {
  list: endpoint({
    method: 'get',
    path: '/sites/:siteId/trials',
    restsOn: ['treatments', 'site'],
    summary: 'Fair trials: what was drawn by lot, counted, and what it says',
    params: siteParams,
    input: z.object({}),
    response: z.array(trialSchema),
  }),
  draw: endpoint({
    method: 'post',
    path: '/sites/:siteId/trials',
    summary: 'Plan a fair trial: the lot names which of each two neighbours is treated',
    params: siteParams,
    input: z.object({
      name: text('a name for the trial', 80),
      what: text('what is tried', 200),
      productId: z.uuid({ error: 'choose a product of the shelf' }).nullable().default(null),
      methodId: z.string().max(80).nullable().default(null),
      placeId: z.uuid({ error: 'choose where' }),
      organismId: z.string().max(80).nullable().default(null),
      units: z.enum(trialUnits, { error: 'choose plants, pots, beds or plots' }),
      measure: z.enum(trialMeasures, { error: 'choose what is looked at' }),
      moves: z.boolean().default(false),
      pairs: z
        .int({ error: 'enter how many pairs' })
        .min(FEWEST_TRIAL_PAIRS, { error: `must be at least ${FEWEST_TRIAL_PAIRS}` })
        .max(MOST_TRIAL_PAIRS, { error: `must be at most ${MOST_TRIAL_PAIRS}` }),
      judgeAfterDays: z
        .int({ error: 'enter the days until it can be judged' })
        .min(0, { error: 'must be at least 0' })
        .max(400, { error: 'must be at most 400' }),
      note: z.string().trim().max(500, { error: 'use at most 500 characters' }).default(''),
    }),
    response: trialSchema,
  }),
  treated: endpoint({
    method: 'patch',
    path: '/sites/:siteId/trials/:trialId',
    summary: 'Say when what the lot named was treated',
    params: trialParams,
    input: z.object({ treatedOn: civilDateSchema.nullable(), rowVersion }),
    response: trialSchema,
  }),
  count: endpoint({
    method: 'put',
    path: '/sites/:siteId/trials/:trialId/counts',
    summary: 'Keep the count before, or the one by which it is judged; a second one of the same puts the first right',
    params: trialParams,
    input: z.object({
      phase: z.enum(['before', 'after']),
      countedOn: civilDateSchema,
      counts: z.record(z.string().max(20), number('the count', 0, 1_000_000)),
      rowVersion,
    }),
    response: trialSchema,
  }),
  remove: endpoint({
    method: 'delete',
    path: '/sites/:siteId/trials/:trialId',
    summary: 'Remove a trial; it can be restored',
    params: trialParams,
    input: version,
    response: z.object({ id, rowVersion }),
  }),
  restore: endpoint({
    method: 'post',
    path: '/sites/:siteId/trials/:trialId/restore',
    summary: 'Undo the removal of a trial',
    params: trialParams,
    input: version,
    response: trialSchema,
  }),
}
