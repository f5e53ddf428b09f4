import { cropStages } from '@bocado/library/vocabulary'
import { z } from 'zod'
import { civilDateSchema, id, note, number, rowVersion, text } from './common.js'
import { scales } from './scouting.js'

/** `heavy`: known, and last year's disease was heavy. */
export const knowns = ['yes', 'heavy', 'no', 'unknown'] as const

/** What a threshold is reckoned from: where what a deed costs is as much as it saves (Pedigo, Hutchins & Higley 1986). */
export const economicsSchema = z.object({
  /** Money per hectare. */
  cost: number('what a treatment costs', 0.01, 100_000),
  /** Money per kilogram. */
  price: number('the price', 0.0001, 100_000),
  /** Kilograms per hectare that are lost for each one per 100 items. */
  loss: number('what is lost', 0.0001, 1_000_000),
  /** Share of that loss which the treatment prevents. */
  control: number('what it prevents', 0.01, 1),
  /** Days from the count until it acts, and in which they double meanwhile; null where they do not breed on. */
  lagDays: number('the days until it acts', 0, 60),
  doublingDays: number('the days in which they double', 0.5, 365).nullable(),
})
export type Economics = z.infer<typeof economicsSchema>

const thresholdStep = z.object({
  /** From this stage of the crop on. */
  from: z.enum(cropStages, { error: 'choose a stage of the crop' }),
  per100: number('the threshold', 0.01, 100_000),
})

export const watchSchema = z.object({
  id,
  organismId: z.string(),
  blockId: id,
  season: civilDateSchema,
  /** As it was entered; null as long as nobody has. */
  biofix: civilDateSchema.nullable(),
  biofixNote: z.string(),
  /** Whether a source of infection is known in or near the block. */
  sourceKnown: z.enum(knowns),
  /** The site's own threshold, where it differs from the library's, with its reason. */
  threshold: z
    .object({
      per100: z.number(),
      reason: z.string(),
      /** By what was counted when it was set; it holds for no other. */
      scale: z.enum(scales),
      steps: z.array(thresholdStep),
      economics: economicsSchema.nullable(),
      /** The one of today by the stage of the crop; `stage` null: before the first step, or no crop is known to stand there. */
      now: z.object({ per100: z.number(), stage: z.enum(cropStages).nullable(), sure: z.boolean() }).nullable(),
    })
    .nullable(),
  /** Whether what is seen in bloom moves its forecast. */
  followsBloom: z.boolean(),
  /** Library entry and version that the watch is pinned to. */
  model: z.string(),
  rowVersion,
})
export type Watch = z.infer<typeof watchSchema>

const ownThreshold = z.object({
  per100: number('the threshold', 0.01, 100_000),
  reason: text('why this site differs', 500),
  scale: z.enum(scales).default('classes'),
  steps: z
    .array(thresholdStep)
    .max(8, { error: 'at most 8 stages' })
    .refine((all) => new Set(all.map(({ from }) => from)).size === all.length, { error: 'each stage once' })
    .default([]),
  economics: economicsSchema.nullable().default(null),
})
export const watchInput = z.object({
  organismId: z.string({ error: 'choose an organism' }).min(1, { error: 'choose an organism' }),
  blockId: z.uuid({ error: 'choose a block' }),
  season: civilDateSchema,
  biofix: civilDateSchema.nullable().default(null),
  biofixNote: note,
  sourceKnown: z.enum(knowns).default('unknown'),
  threshold: ownThreshold.nullable().default(null),
})
/** Several organisms of one block at once; what is asked of each comes afterwards. */
export const watchesInput = z.object({
  organismIds: z
    .array(z.string().min(1))
    .min(1, { error: 'choose an organism' })
    .max(40, { error: 'at most 40 at once' })
    .refine((ids) => new Set(ids).size === ids.length, { error: 'each once' }),
  blockId: z.uuid({ error: 'choose a block' }),
  season: civilDateSchema,
})
export const watchPatch = z.object({
  biofix: civilDateSchema.nullable(),
  biofixNote: note,
  sourceKnown: z.enum(knowns).default('unknown'),
  threshold: ownThreshold.nullable(),
  rowVersion,
})
