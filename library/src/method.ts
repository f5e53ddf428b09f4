import { z } from 'zod'
import { hazardSchema, provenance } from './provenance.js'
import { methodKinds } from './vocabulary.js'

const words = z.string().min(3)

/** A way to act: how it is done, how one sees whether it was done well, what it reaches and what it brings about. */
export const methodSchema = z.strictObject({
  id: z.string().regex(/^[a-z0-9-]+$/),
  version: z.string().regex(/^\d+\.\d+\.\d+$/),
  name: words,
  kind: z.enum(methodKinds),
  what: z.string().min(15),
  /** In their order; `within` is the time in which a step has to follow. */
  steps: z.array(z.strictObject({ do: words, within: words.optional() })).min(2),
  materials: z.array(words).min(1),
  goodJob: words,
  failedJob: words,
  worksOn: words,
  provokes: words,
  hazards: z.array(hazardSchema).min(1),
  /** How well it is known to work: by trials, with mixed results, or by what people say. */
  evidence: z.enum(['tested', 'mixed', 'anecdotal']),
  suits: z.strictObject({ size: words, density: words }),
  /** Work in hours for a unit of area, length or number. */
  hours: z.strictObject({ perUnit: z.number().positive(), unit: z.string().min(1), ...provenance }),
  /** Earliest day after it on which its effect can be judged. */
  judgeAfterDays: z.int().min(1),
})
export type Method = z.infer<typeof methodSchema>
