import { z } from 'zod'
import { monthSchema, provenance } from './provenance.js'
import { cropStages, damageDrawings, hours, lookAlikeStatus, plantParts, signKinds } from './vocabulary.js'

const words = z.string().min(3)
const list = z.array(words)
const id = z.string().regex(/^[a-z0-9-]+$/)

/** A sign by which something gives itself away: where, when, how typical it is of it, and what one sees when one looks closer. */
export const signSchema = z.strictObject({
  part: z.enum(plantParts),
  sign: z.enum(signKinds),
  months: z.array(monthSchema).min(1),
  /** Share of the cases in which it is seen, 0 to 1; a judgement, not a count. */
  typical: z.number().gt(0).max(1),
  tell: z.string().min(10),
  hour: z.enum(hours).optional(),
})

const seenAs = { text: z.string().min(2), drawing: id }

/** A character that tells it from look-alikes: one question, two answers, each with its drawing. */
const characterSchema = z.strictObject({
  id,
  ask: words,
  here: z.strictObject(seenAs),
  others: z.strictObject({ ...seenAs, of: z.array(id).min(1) }),
  /** Whether one answer against it settles that it is something else. */
  decisive: z.boolean(),
  /** Whether it has to be crushed, broken, smelled or pulled to be seen. */
  by: z.enum(['sight', 'touch']).default('sight'),
})

/** What is known of an organism beside its numbers: how to find it, how to be sure of it, and what can be done. */
export const aboutSchema = z.strictObject({
  /** Family of the organism. */
  family: words,
  winters: z.strictObject({ as: words, where: words }),
  hosts: list.min(1),
  hostFamilies: list,
  /** Varieties or kinds that bear it well or badly. */
  varieties: z.array(z.strictObject({ what: words, effect: words, ...provenance })),
  signs: z.array(signSchema).min(1),
  damage: z.strictObject({
    /** Stage that does it. */
    stage: words,
    text: words,
    drawing: z.enum(damageDrawings),
    /** Degrees in per cent, for which pictures are drawn. */
    degrees: z.array(z.number().gt(0).max(100)).min(3),
  }),
  look: z.strictObject({ where: words, hour: words }),
  /**
   * Between which stages of a crop that is sown or planted anew each year it comes to it or harms it, and which of its own stages do: what a
   * date of sowing can keep apart.
   */
  meets: z
    .array(
      z.strictObject({
        /** Crops of the library. */
        crops: z.array(id).min(1),
        from: z.enum(cropStages),
        until: z.enum(cropStages),
        stages: z.array(id).min(1),
        /** It winters in the soil where the crop grew: a cover over the same ground shuts it in. */
        wintersThere: z.boolean(),
        ...provenance,
      }),
    )
    .default([]),
  /** Methods, the stages that each reaches, and by which of its strains or species where it has any. */
  reach: z
    .array(z.strictObject({ method: id, stages: z.array(id).min(1), strains: z.array(id).min(1).optional(), note: words.optional() }))
    .min(1),
  doesNotWork: z.array(z.strictObject({ what: words, why: words })).min(1),
  enemies: list,
  arrives: list.min(1),
  hygiene: list,
  /** Where a duty to report or to control may exist. */
  report: words.nullable(),
  identity: z
    .strictObject({
      lookAlikes: z.array(z.strictObject({ id, name: words, status: z.enum(lookAlikeStatus), burns: z.boolean().default(false) })).min(1),
      characters: z.array(characterSchema).min(2),
    })
    .refine(
      ({ lookAlikes, characters }) => characters.every(({ others }) => others.of.every((of) => lookAlikes.some((l) => l.id === of))),
      {
        error: 'a character names a look-alike that is not listed',
        path: ['characters'],
      },
    ),
})
export type About = z.infer<typeof aboutSchema>
export type Sign = z.infer<typeof signSchema>
