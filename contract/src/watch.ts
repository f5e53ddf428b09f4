import { z } from 'zod'
import { civilDateSchema, id, note, number, rowVersion, text } from './common.js'

/** `heavy`: known, and last year's disease was heavy. */
export const knowns = ['yes', 'heavy', 'no', 'unknown'] as const

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
  threshold: z.object({ per100: z.number(), reason: z.string() }).nullable(),
  /** Whether what is seen in bloom moves its forecast. */
  followsBloom: z.boolean(),
  /** Library entry and version that the watch is pinned to. */
  model: z.string(),
  rowVersion,
})
export type Watch = z.infer<typeof watchSchema>

const ownThreshold = z.object({ per100: number('the threshold', 0.01, 1000), reason: text('why this site differs', 500) })
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
