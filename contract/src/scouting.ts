import { z } from 'zod'
import { civilDateSchema, id, madeElsewhere, note, number, rowVersion, takenInput, takenSchema, text } from './common.js'
import { endpoint } from './endpoint.js'

const tally = z.record(
  z.string(),
  z.int({ error: 'enter a whole number' }).min(0, { error: 'must be at least 0' }).max(100_000, { error: 'must be at most 100000' }),
)

/** A number on which one decides, per 100 items, and whose it is; of what is to go altogether one is enough. */
export const thresholdSchema = z.object({ per100: z.number(), from: z.enum(['own', 'library', 'every-one']) })
export type Threshold = z.infer<typeof thresholdSchema>

/** What is looked at in one go, in the site's own words, and how many items on it. */
export const sampleUnitSchema = z.object({
  one: text('what one sample unit is called', 60),
  many: text('what several are called', 60),
  items: z.int({ error: 'enter a whole number' }).min(1, { error: 'must be at least 1' }).max(1000, { error: 'must be at most 1000' }),
})
export type SampleUnit = z.infer<typeof sampleUnitSchema>

/** By which kind of class it is counted: the entry's own, the drawn degrees of its damage, or whether a sample unit has any at all. */
export const scales = ['classes', 'degrees', 'presence'] as const
export type Scale = (typeof scales)[number]

/** From which sample unit on a count was at another place, and whether that lies at the edge of the block; null: not said. */
export const countedPlaceSchema = z.object({
  from: z.int({ error: 'enter a whole number' }).min(0, { error: 'must be at least 0' }),
  edge: z.boolean().nullable(),
})
export type CountedPlace = z.infer<typeof countedPlaceSchema>

/** Where on a plant a sample unit was. */
export const plantHeights = ['low', 'middle', 'top'] as const
export type PlantHeight = (typeof plantHeights)[number]

/** Natural enemies as they are told apart in a walk. */
export const enemyKinds = [
  'lady-beetles',
  'lacewings',
  'hover-flies',
  'predatory-bugs',
  'predatory-mites',
  'spiders',
  'ground-beetles',
  'parasitised',
  'others',
] as const
export type EnemyKind = (typeof enemyKinds)[number]
const enemiesSchema = z.partialRecord(
  z.enum(enemyKinds),
  z.int({ error: 'enter a whole number' }).min(0, { error: 'must be at least 0' }).max(100_000, { error: 'must be at most 100000' }),
)
export type Enemies = z.infer<typeof enemiesSchema>

const stratumSchema = z.object({
  edge: z.boolean(),
  units: z.int(),
  places: z.int(),
  per100: z.number(),
  /** Upper bound (one-sided, 90 %) of what is there. */
  upper: z.number(),
  verdict: z.enum(['act', 'stop', 'go-on', 'too-few', 'undecided']).nullable(),
})

/** How much animals sit together, as counts of a site tell it. */
export const clumpingSchema = z.object({
  k: z.number().positive().nullable(),
  taylor: z.object({ a: z.number().positive(), b: z.number() }).nullable(),
  crowding: z.object({ alpha: z.number(), beta: z.number() }).nullable(),
  counts: z.int(),
})
export type Clumping = z.infer<typeof clumpingSchema>

export const planKinds = ['sequential', 'fixed', 'crowding', 'precision'] as const
const wholeUnits = (what: string, min: number) =>
  z
    .int({ error: 'enter a whole number' })
    .min(min, { error: `must be at least ${min}` })
    .max(1000, { error: 'must be at most 1000' })
    .describe(what)
/** How a site ends its counts of an organism, where it goes by a plan of its own. */
export const countingPlanSchema = z.object({
  kind: z.enum(planKinds, { error: 'choose how a count ends' }),
  safeShare: number('what is safe', 0.05, 0.95),
  needless: number('the risk of treating needlessly', 0.01, 0.3),
  missed: number('the risk of missing', 0.01, 0.3),
  relativeSe: number('the precision', 0.05, 0.5),
  leastUnits: wholeUnits('the least sample units', 1),
  leastPlaces: wholeUnits('the least places', 1),
  mostUnits: wholeUnits('the most sample units', 1),
  /** Measured in the counts that there were when the plan was chosen; null: as it is assumed. */
  clumping: clumpingSchema.nullable(),
})
export type OwnCountingPlan = z.infer<typeof countingPlanSchema>

/** A count in one area on one day: what was found on each sample unit, by class. */
export const roundSchema = z.object({
  id,
  watchId: id,
  /** null: in the block itself; otherwise in its untreated check area. */
  checkAreaId: id.nullable(),
  checkAreaName: z.string().nullable(),
  countedOn: civilDateSchema,
  units: z.array(tally),
  /** By which classes, and what each weighs today: it is corrected by these. */
  classes: z.array(z.object({ id: z.string(), name: z.string(), weight: z.number() })),
  /** What was counted: how many there are, which share of items has any, or which share of sample units. */
  measure: z.enum(['density', 'incidence', 'presence']),
  /** By which unit it was counted. */
  unit: sampleUnitSchema,
  /** Where the places were; null where nobody kept that. */
  places: z.array(countedPlaceSchema).nullable(),
  /** Where on the plant each sample unit was, null: not said; null where nobody kept that. */
  heights: z.array(z.enum(plantHeights).nullable()).nullable(),
  /** What was found at each height, where several were looked at. */
  byHeight: z.array(z.object({ height: z.enum(plantHeights), units: z.int(), per100: z.number() })),
  scale: z.enum(scales),
  enemies: enemiesSchema,
  /** That the walk took; null where nobody measured. */
  minutes: z.int().nullable(),
  /** What was picked or crushed on the walk. */
  taken: takenSchema.nullable(),
  note: z.string(),
  personName: z.string(),
  rowVersion,
  /** Effective count of each unit: Σ weight·n. */
  effective: z.array(z.number()),
  per100: z.number(),
  /** The one of its day; null where none is known. */
  threshold: thresholdSchema.nullable(),
  crossed: z.boolean(),
  /**
   * What it decides by itself, as far as counts on single sample units can: act or leave it, or neither. null where nothing can be said: no
   * threshold, classes that weigh differently, or an untreated check area.
   */
  verdict: z.enum(['act', 'stop', 'undecided', 'too-few']).nullable(),
  /** Edge and inside by themselves, where both were counted; against the threshold of its day. */
  strata: z.array(stratumSchema),
  /** Which of them to treat where the other may be left; null: all or nothing. */
  spot: z.enum(['edge', 'inside']).nullable(),
})
export type Round = z.infer<typeof roundSchema>

export const roundInput = z.object({
  watchId: z.uuid({ error: 'choose what was counted' }),
  checkAreaId: id.nullable().default(null),
  countedOn: civilDateSchema,
  /** By which unit it was counted; null: as the site counts it when it is stored. */
  unit: sampleUnitSchema.nullable().default(null),
  units: z.array(tally).min(1, { error: 'count at least one sample unit' }).max(1000, { error: 'at most 1000 sample units in a round' }),
  places: z
    .array(countedPlaceSchema)
    .min(1, { error: 'name the first place' })
    .max(1000, { error: 'at most 1000 places' })
    .refine((all) => all[0]?.from === 0, { error: 'the first place begins with the first sample unit' })
    .refine((all) => all.every(({ from }, i) => i === 0 || from > (all[i - 1]?.from ?? 0)), {
      error: 'each place begins after the one before',
    })
    .nullable()
    .default(null),
  /** Where on the plant each sample unit was. */
  heights: z
    .array(z.enum(plantHeights, { error: `choose ${plantHeights.join(', ')}` }).nullable())
    .max(1000, { error: 'at most 1000 sample units in a round' })
    .nullable()
    .default(null),
  scale: z.enum(scales).default('classes'),
  enemies: enemiesSchema.default({}),
  minutes: z
    .int({ error: 'enter the minutes as a whole number' })
    .min(0, { error: 'must be at least 0' })
    .max(1440, { error: 'must be at most 1440' })
    .nullable()
    .default(null),
  taken: takenInput(0.01),
  note,
  ...madeElsewhere,
})

export const decisionKinds = ['tolerate', 'enemies'] as const
/** What is over its threshold is left for now, for a reason and until a day; a later count calls for a new decision. */
export const decisionSchema = z.object({
  id,
  /** The count that it rests on. */
  roundId: id,
  /** `enemies`: natural enemies are at work, and are waited for. */
  kind: z.enum(decisionKinds),
  reason: z.string(),
  decidedOn: civilDateSchema,
  lookAgainOn: civilDateSchema,
  personName: z.string(),
  rowVersion,
})
export type Decision = z.infer<typeof decisionSchema>

const decisionParams = z.object({ siteId: id, decisionId: id })
const siteParams = z.object({ siteId: id })
const ruleParams = z.object({ siteId: id, ruleId: id })
const roundParams = z.object({ siteId: id, roundId: id })

export const scouting = {
  setRule: endpoint({
    method: 'put',
    path: '/sites/:siteId/organisms/:organismId/counting-rule',
    summary: 'Set how the site counts an organism; rounds that were counted before are reckoned by it as well',
    params: z.object({ siteId: id, organismId: z.string() }),
    input: z.object({
      weights: z.record(z.string(), number('the weight', 0, 100)),
      frame: z.string().trim().max(500, { error: 'use at most 500 characters' }).default(''),
      reason: text('why this site counts otherwise', 500),
      /** Of the site's own, for rounds from now on; null: the library's. */
      unit: sampleUnitSchema
        .extend({
          suggested: z
            .int({ error: 'enter a whole number' })
            .min(1, { error: 'must be at least 1' })
            .max(1000, { error: 'must be at most 1000' }),
        })
        .nullable()
        .default(null),
      scale: z.enum(scales, { error: 'choose by what it is counted' }).default('classes'),
      plan: countingPlanSchema.nullable().default(null),
      /** null where there is no rule yet. */
      rowVersion: rowVersion.nullable(),
    }),
    response: z.object({ id, rowVersion }),
  }),
  spread: endpoint({
    method: 'get',
    path: '/sites/:siteId/organisms/:organismId/spread',
    restsOn: ['counts'],
    summary: 'How much animals sit together by the counts of the site, all seasons; null where they are too few to tell',
    params: z.object({ siteId: id, organismId: z.string() }),
    input: z.object({}),
    response: z.object({ clumping: clumpingSchema.nullable(), counts: z.int() }),
  }),
  removeRule: endpoint({
    method: 'delete',
    path: '/sites/:siteId/counting-rules/:ruleId',
    summary: 'Count as the library says again; can be restored',
    params: ruleParams,
    input: z.object({ rowVersion }),
    response: z.object({ id, rowVersion }),
  }),
  restoreRule: endpoint({
    method: 'post',
    path: '/sites/:siteId/counting-rules/:ruleId/restore',
    summary: 'Undo the removal of a counting rule',
    params: ruleParams,
    input: z.object({ rowVersion }),
    response: z.object({ id, rowVersion }),
  }),
  decide: endpoint({
    method: 'post',
    path: '/sites/:siteId/decisions',
    summary: 'Leave what is over its threshold for now, for a reason, until somebody looks again',
    params: siteParams,
    input: z.object({
      roundId: z.uuid({ error: 'choose the count that it rests on' }),
      kind: z.enum(decisionKinds, { error: 'choose what was decided' }),
      reason: text('why', 500),
      lookAgainOn: civilDateSchema,
    }),
    response: z.object({ id, rowVersion }),
  }),
  removeDecision: endpoint({
    method: 'delete',
    path: '/sites/:siteId/decisions/:decisionId',
    summary: 'Take a decision back; it can be restored',
    params: decisionParams,
    input: z.object({ rowVersion }),
    response: z.object({ id, rowVersion }),
  }),
  restoreDecision: endpoint({
    method: 'post',
    path: '/sites/:siteId/decisions/:decisionId/restore',
    summary: 'Undo the taking back of a decision',
    params: decisionParams,
    input: z.object({ rowVersion }),
    response: z.object({ id, rowVersion }),
  }),
  list: endpoint({
    method: 'get',
    path: '/sites/:siteId/rounds',
    restsOn: ['counts', 'watches', 'site', 'library'],
    summary: 'Counting rounds of a season',
    params: siteParams,
    input: z.object({ season: civilDateSchema }),
    response: z.array(roundSchema),
  }),
  create: endpoint({
    method: 'post',
    path: '/sites/:siteId/rounds',
    summary: 'Record a counting round',
    params: siteParams,
    input: roundInput,
    response: roundSchema,
  }),
  update: endpoint({
    method: 'patch',
    path: '/sites/:siteId/rounds/:roundId',
    summary: 'Correct a counting round',
    params: roundParams,
    input: roundInput.omit({ watchId: true, unit: true, id: true, made: true }).extend({ rowVersion }),
    response: roundSchema,
  }),
  remove: endpoint({
    method: 'delete',
    path: '/sites/:siteId/rounds/:roundId',
    summary: 'Remove a counting round; can be restored',
    params: roundParams,
    input: z.object({ rowVersion }),
    response: z.object({ id, rowVersion }),
  }),
  restore: endpoint({
    method: 'post',
    path: '/sites/:siteId/rounds/:roundId/restore',
    summary: 'Undo the removal of a counting round',
    params: roundParams,
    input: z.object({ rowVersion }),
    response: roundSchema,
  }),
}
