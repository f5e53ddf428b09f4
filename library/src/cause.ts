import { z } from 'zod'
import { signSchema } from './about.js'

/** A cause of damage that is no pest, disease or weed: weather, soil, spray drift, larger animals. */
export const causeSchema = z.strictObject({
  id: z.string().regex(/^[a-z-]+$/),
  name: z.string().min(3),
  tells: z.string().min(10),
  /** Crops on which it is met; none: on all. */
  crops: z.array(z.string()),
  /** How often it is the cause, relative to the others. */
  commonness: z.number().positive(),
  signs: z.array(signSchema).min(1),
  whatHelps: z.string().min(10),
})
export type Cause = z.infer<typeof causeSchema>
