import { z } from 'zod'
import { hazardSchema, provenance, quantitySchema } from './provenance.js'
import { methodKinds } from './vocabulary.js'

const words = z.string().min(3)

/** A way to act: how it is done, how one sees whether it was done well, what it reaches and what it brings about. */
export const methodSchema = z.strictObject({
  id: z.string().regex(/^[a-z0-9-]+$/),
  version: z.string().regex(/^\d+\.\d+\.\d+$/),
  name: words,
  kind: z.enum(methodKinds),
  /** It comes as a product with a label: nothing is planned with it but what stands on the shelf. */
  product: z.boolean().default(false),
  /** Strains, species, lures or groups: each acts on its own kinds only, and the wrong one does nothing. */
  strains: z
    .array(
      z.strictObject({
        id: z.string().regex(/^[a-z0-9-]+$/),
        name: words,
        what: words,
        /** Lowest soil temperature at which it works. */
        soilFloor: quantitySchema.optional(),
        /** Lowest air temperature, as the mean of a day, and the highest of its medium at which it lives. */
        airFloor: quantitySchema.optional(),
        ceiling: quantitySchema.optional(),
      }),
    )
    .default([]),
  /** It lives: it is ordered for its day, looked at when it comes, and needs its warmth; without strains its bounds stand here. */
  living: z.boolean().default(false),
  airFloor: quantitySchema.optional(),
  ceiling: quantitySchema.optional(),
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
  /** It stands or works for as long as the stage does, and has to be there before it: covers, collars, dispensers, releases. */
  lasting: z.boolean().default(false),
  /** Days for which what was put on goes on acting. */
  lasts: quantitySchema.optional(),
  /** The plant takes it up: rain does not wash it off after its rain-fast hours. */
  systemic: z.boolean().default(false),
  /** How to find out for oneself whether it works. */
  fairTest: words.optional(),
})
export type Method = z.infer<typeof methodSchema>
