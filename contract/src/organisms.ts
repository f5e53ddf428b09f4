import { z } from 'zod'
import { id, rowVersion } from './common.js'
import { countingPlanSchema, scales } from './scouting.js'

const source = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('paper'), authors: z.string(), year: z.int() }),
  z.object({ kind: z.literal('common-knowledge') }),
  z.object({ kind: z.literal('none') }),
])
export const quantitySchema = z.object({
  value: z.number(),
  unit: z.string(),
  confidence: z.enum(['established', 'approximate', 'placeholder']),
  region: z.string(),
  source,
})

export const biofixKinds = ['date', 'sustained-catch', 'bloom', 'chill'] as const

/** One number of a model: what it is worth here, and what the library has where the site, or one block of it, has its own. */
export const figureSchema = quantitySchema.extend({
  path: z.string(),
  own: z
    .object({
      libraryValue: z.number(),
      reason: z.string(),
      blockId: id.nullable(),
      /** Whether it was fitted to the block's records rather than set by a person. */
      fitted: z.boolean(),
    })
    .nullable(),
})
export type ModelFigure = z.infer<typeof figureSchema>

/** A method, the stages that it reaches, and by which of its strains, where it has any. */
export const reachSchema = z.object({ method: z.string(), stages: z.array(z.string()), strains: z.array(z.string()).optional() })

/** What the pages need of a library entry. */
export const organismSchema = z.object({
  id: z.string(),
  version: z.string(),
  name: z.string(),
  scientificName: z.string(),
  kind: z.string(),
  crops: z.array(z.string()),
  /** What it lives on, beside the crops. */
  hosts: z.array(z.string()),
  /** What a watch of it says: dates by heat, months until dates of its own are known, infections by the weather, or emergence. */
  gives: z.enum(['dates', 'months', 'infections', 'emergence']),
  biofix: z.object({
    kind: z.enum(biofixKinds),
    ask: z.string(),
    /** The bloom that it waits for, as the bloom log has it; null for other kinds. */
    bloom: z.object({ plantId: z.string(), event: z.string() }).nullable(),
  }),
  stages: z.array(z.object({ id: z.string(), name: z.string(), silhouette: z.string(), where: z.string() })),
  sampling: z.object({
    unit: z.string(),
    units: z.string(),
    item: z.string(),
    items: z.string(),
    itemsPerUnit: z.int(),
    suggestedUnits: z.int(),
    how: z.string(),
    classes: z.array(z.object({ id: z.string(), name: z.string(), weight: z.number() })),
    threshold: quantitySchema,
    measure: z.enum(['density', 'incidence', 'presence']),
    /** Damage tells how it went, and comes too late to decide on: `decision` says by what to decide. */
    serves: z.enum(['decision', 'outcome']),
    decision: z.string().optional(),
    eliminate: z.boolean(),
    /** Where on the plant it sits matters, and a count says so. */
    byHeight: z.boolean(),
    /** How the site counts it, where it goes by another rule than the library. */
    rule: z
      .object({
        id,
        frame: z.string(),
        reason: z.string(),
        weights: z.record(z.string(), z.number()),
        hasUnit: z.boolean(),
        plan: countingPlanSchema.nullable(),
        rowVersion,
      })
      .nullable(),
    /** By what it is counted here; with `degrees` the classes are degrees, and what comes of them is per cent of what is looked at. */
    scale: z.enum(scales),
    /** Degrees of its damage that are drawn, in per cent, and the drawing. */
    degrees: z.object({ drawing: z.string(), percents: z.array(z.number()) }),
  }),
  /** What to say of an infection that the weather allowed; null where the organism is no disease. */
  infection: z.object({ inoculum: z.string(), lookFor: z.string(), curativeDays: z.number() }).nullable(),
  /** Ways to act on it. */
  reach: z.array(reachSchema),
  tooLate: z.string(),
  poorlyReachable: z.string().nullable(),
  /** Where to look for it, and at which hour. */
  look: z.object({ where: z.string(), hour: z.string() }),
  lookAlikes: z.array(z.string()),
  hazards: z.array(z.object({ group: z.string(), text: z.string(), touch: z.boolean().optional() })),
})
export type Organism = z.infer<typeof organismSchema>
