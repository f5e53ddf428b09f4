import { z } from 'zod'

/** Where a number comes from. A paper is named only where it is certain; most practice knowledge has none. */
export const sourceSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('paper'), authors: z.string().min(3), year: z.int().min(1850).max(2026) }),
  z.strictObject({ kind: z.literal('common-knowledge') }),
  z.strictObject({ kind: z.literal('none') }),
])

export const confidenceSchema = z.enum(['established', 'approximate', 'placeholder'])

const provenance = { confidence: confidenceSchema, region: z.string().min(3), source: sourceSchema }

/** A number with its unit, how sure it is, where it holds and where it is from. */
export const quantitySchema = z
  .strictObject({ value: z.number(), unit: z.enum(['°C', '°C·d', 'share', 'per 100']), ...provenance })
  .refine((q) => q.confidence !== 'established' || q.source.kind === 'paper', {
    error: 'an established value needs a paper',
    path: ['source'],
  })

/** What may harm whom. `none-known` says that somebody looked. */
export const hazardSchema = z.strictObject({
  group: z.enum(['people', 'food', 'animals', 'plants', 'land-and-water', 'materials', 'spread']),
  text: z.string().min(10),
})

const eventSchema = z.strictObject({
  id: z.string().regex(/^[a-z0-9-]+$/),
  name: z.string().min(3),
  stage: z.string().min(3),
  heat: quantitySchema,
  atShare: quantitySchema,
  spread: quantitySchema,
  heatSe: quantitySchema,
  distribution: z.enum(['lognormal', 'normal', 'logistic']),
  countedFrom: z.string().optional(),
})

export const silhouettes = ['egg', 'young-larva', 'larva', 'pupa', 'adult', 'nymph', 'shed'] as const

const stageSchema = z.strictObject({
  id: z.string().regex(/^[a-z-]+$/),
  name: z.string().min(3),
  silhouette: z.enum(silhouettes),
  /** Whether anything applied from outside can reach the stage, and why not. */
  reachable: z.boolean(),
  where: z.string().min(3),
})

export const organismSchema = z.strictObject({
  id: z.string().regex(/^[a-z-]+$/),
  version: z.string().regex(/^\d+\.\d+\.\d+$/),
  name: z.string().min(3),
  scientificName: z.string().min(3),
  kind: z.enum(['insect', 'mite', 'disease', 'weed']),
  crops: z.array(z.string()).min(1),
  heat: z.strictObject({
    method: z.enum(['average', 'clamped-average', 'single-sine', 'double-sine', 'single-triangle', 'double-triangle']),
    lower: quantitySchema,
    upper: quantitySchema.optional(),
    cutoff: z.enum(['horizontal', 'intermediate', 'vertical']).optional(),
    confidence: confidenceSchema,
    source: sourceSchema,
  }),
  biofix: z.strictObject({ kind: z.enum(['date', 'sustained-catch', 'bloom']), ask: z.string().min(20) }),
  stages: z.array(stageSchema).min(2),
  generations: z
    .array(
      z.strictObject({
        id: z.string().regex(/^[a-z0-9-]+$/),
        name: z.string().min(3),
        events: z.array(eventSchema).min(2),
        reachableStages: z.array(z.string()).min(1),
        /** Months, 1 to 12 in the northern hemisphere, in which it can be reached, and the bloom that announces it. */
        usual: z.strictObject({ months: z.array(z.int().min(1).max(12)).min(1), bloom: z.string().min(3), ...provenance }).optional(),
      }),
    )
    .min(1),
  sampling: z.strictObject({
    unit: z.string().min(3),
    units: z.string().min(3),
    item: z.string().min(3),
    items: z.string().min(3),
    itemsPerUnit: z.int().positive(),
    suggestedUnits: z.int().positive(),
    how: z.string().min(20),
    classes: z.array(z.strictObject({ id: z.string().regex(/^[a-z-]+$/), name: z.string().min(3), weight: z.number().min(0) })).min(1),
    threshold: quantitySchema,
  }),
  lookAlikes: z.array(z.string().min(20)).min(1),
  hazards: z.array(hazardSchema).min(1),
})

export type Source = z.infer<typeof sourceSchema>
export type Confidence = z.infer<typeof confidenceSchema>
export type Quantity = z.infer<typeof quantitySchema>
export type Organism = z.infer<typeof organismSchema>
