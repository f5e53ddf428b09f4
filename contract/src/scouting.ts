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

/** A count in one area on one day: what was found on each sample unit, by class. */
export const roundSchema = z.object({
  id,
  watchId: id,
  /** null: in the block itself; otherwise in its untreated check area. */
  checkAreaId: id.nullable(),
  checkAreaName: z.string().nullable(),
  countedOn: civilDateSchema,
  units: z.array(tally),
  /** By which unit it was counted. */
  unit: sampleUnitSchema,
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
})
export type Round = z.infer<typeof roundSchema>

export const roundInput = z.object({
  watchId: z.uuid({ error: 'choose what was counted' }),
  checkAreaId: id.nullable().default(null),
  countedOn: civilDateSchema,
  /** By which unit it was counted; null: as the site counts it when it is stored. */
  unit: sampleUnitSchema.nullable().default(null),
  units: z.array(tally).min(1, { error: 'count at least one sample unit' }).max(1000, { error: 'at most 1000 sample units in a round' }),
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
      /** null where there is no rule yet. */
      rowVersion: rowVersion.nullable(),
    }),
    response: z.object({ id, rowVersion }),
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
