import { z } from 'zod'
import { provenance } from './provenance.js'
import { cropStages } from './vocabulary.js'

const stage = z.enum(cropStages)

export const cropSchema = z
  .strictObject({
    id: z.string().regex(/^[a-z-]+$/),
    name: z.string().min(3),
    /** Other words that people have for it. */
    words: z.array(z.string()),
    /** Crops of one family feed the same pests and diseases of the soil. */
    family: z.string().min(5),
    lives: z.enum(['annual', 'perennial']),
    /** Its stages in their order; each with the days by which it follows others, wide, as practice knows them. */
    stages: z
      .array(
        z.strictObject({
          id: stage,
          after: z.array(z.strictObject({ stage, days: z.tuple([z.number().min(0), z.number().max(250)]) })).default([]),
        }),
      )
      .min(2),
    /** Between which stages it is in flower; null where it is gathered before. */
    flowers: z.strictObject({ from: stage, until: stage }).nullable(),
    /** Whether a light frost ends it, or it stands one; asked of annuals. */
    frost: z.enum(['kills', 'bears']).optional(),
    /** Stage from which it must stand open to bees or wind, so that a cover comes off. */
    openFrom: stage.optional(),
  })
  .superRefine(({ stages, flowers, lives, frost, openFrom }, ctx) => {
    const at = new Map(stages.map(({ id }, i) => [id, i]))
    for (const [i, { id, after }] of stages.entries())
      for (const { stage: base, days } of after) {
        if ((at.get(base) ?? Infinity) >= i)
          ctx.addIssue({ code: 'custom', message: `${id} follows ${base}, which does not stand before it` })
        if (days[0] > days[1]) ctx.addIssue({ code: 'custom', message: `${id} follows ${base} by ${days[0]} to ${days[1]} days` })
      }
    if (flowers && !(at.has(flowers.from) && at.has(flowers.until)))
      ctx.addIssue({ code: 'custom', message: 'flowers between stages it does not have' })
    if (openFrom && !at.has(openFrom)) ctx.addIssue({ code: 'custom', message: 'stands open from a stage it does not have' })
    if (lives === 'annual' && frost === undefined) ctx.addIssue({ code: 'custom', message: 'says whether frost ends it' })
  })
export type Crop = z.infer<typeof cropSchema>

/** The crops, and how sure their days are. */
export const cropsSchema = z.strictObject({ ...provenance, crops: z.array(cropSchema) })
