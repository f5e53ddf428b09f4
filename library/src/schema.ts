import { z } from 'zod'
import { aboutSchema } from './about.js'
import { bloomEvents } from './vocabulary.js'
import { confidenceSchema, hazardSchema, provenance, quantitySchema, sourceSchema } from './provenance.js'

export { quantitySchema, units } from './provenance.js'

/** An event on the heat scale. For a Weibull `shape` and `onset` say how it is spread, and `spread` is not asked. */
const eventSchema = z
  .strictObject({
    id: z.string().regex(/^[a-z0-9-]+$/),
    name: z.string().min(3),
    stage: z.string().min(3),
    heat: quantitySchema,
    atShare: quantitySchema,
    spread: quantitySchema.optional(),
    shape: quantitySchema.optional(),
    onset: quantitySchema.optional(),
    heatSe: quantitySchema,
    distribution: z.enum(['lognormal', 'normal', 'logistic', 'weibull']).default('lognormal'),
    countedFrom: z.string().optional(),
  })
  .refine((e) => (e.distribution === 'weibull' ? e.shape && e.onset : e.spread), {
    error: 'a Weibull needs shape and onset, any other distribution its spread',
  })

export const silhouettes = [
  'egg',
  'young-larva',
  'larva',
  'pupa',
  'adult',
  'nymph',
  'mite',
  'slug',
  'spore',
  'lesion',
  'seedling',
  'rosette',
  'bolt',
  'flower',
  'pod',
  'tuber',
  'shed',
] as const

const heatRuleSchema = z.strictObject({
  method: z.enum(['average', 'clamped-average', 'single-sine', 'double-sine', 'single-triangle', 'double-triangle']),
  lower: quantitySchema,
  upper: quantitySchema.optional(),
  cutoff: z.enum(['horizontal', 'intermediate', 'vertical']).optional(),
  confidence: confidenceSchema,
  source: sourceSchema,
})

/** Heat by the entry's own rule from the season's start at which the biofix is expected, as long as none was entered. */
const expectedSchema = z.strictObject({ heat: quantitySchema, heatSe: quantitySchema })

const ask = z.string().min(20)
/** Month and day in the northern hemisphere; the southern one is half a year later. From September on: of the autumn before the season. */
const monthDay = { month: z.int().min(1).max(12), day: z.int().min(1).max(31) }
const biofixSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('date'), ask, ...monthDay }),
  z.strictObject({ kind: z.literal('sustained-catch'), ask, checks: z.int().min(1), expected: expectedSchema }),
  z.strictObject({
    kind: z.literal('bloom'),
    ask,
    plant: z.string(),
    /** What is seen on it, where the plant is one of the bloom log. */
    event: z.enum(bloomEvents).optional(),
    expected: expectedSchema,
  }),
  z.strictObject({ kind: z.literal('chill'), ask, portions: quantitySchema }),
])

const usualSchema = z.strictObject({ months: z.array(z.int().min(1).max(12)).min(1), bloom: z.string().min(3), ...provenance })

const infectionModelSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('wetness'),
    tmin: quantitySchema,
    topt: quantitySchema,
    tmax: quantitySchema,
    wmin: quantitySchema,
    wmax: quantitySchema,
    longestBreak: quantitySchema,
  }),
  z.strictObject({ kind: z.literal('apple-scab') }),
  z.strictObject({
    kind: z.literal('severity-table'),
    table: z.enum(['late-blight', 'early-blight']),
    dueAt: quantitySchema,
    /** Values since the last treatment at which the next is due. */
    followUpAt: quantitySchema.optional(),
  }),
  z.strictObject({ kind: z.literal('physiological-days'), dueAt: quantitySchema }),
  z.strictObject({ kind: z.literal('two-day-humidity') }),
  z.strictObject({ kind: z.literal('vine-powdery-mildew'), dueAt: quantitySchema }),
  z.strictObject({ kind: z.literal('vine-downy-mildew') }),
  z.strictObject({ kind: z.literal('fire-blight') }),
  z.strictObject({ kind: z.literal('onion-downy-mildew') }),
])

const infectionSchema = z.strictObject({
  model: infectionModelSchema,
  confidence: confidenceSchema,
  source: sourceSchema,
  /** Heat since the biofix at which the host or the source is past it; without it until the season ends. */
  ends: quantitySchema.optional(),
  /** Heat from infection to symptoms, by the entry's rule. */
  latent: z.strictObject({ heat: quantitySchema, heatSe: quantitySchema }),
  /** Days after infection in which a curative material may still work; 0: none does. */
  curativeDays: quantitySchema,
  /** Where the inoculum comes from: whether it is there is a fact to record. */
  inoculum: z.string().min(20),
  lookFor: z.string().min(20),
  usual: usualSchema,
})

const emergenceSchema = z.strictObject({
  clock: z.discriminatedUnion('kind', [
    z.strictObject({ kind: z.literal('thermal'), base: quantitySchema, optimum: quantitySchema }),
    z.strictObject({ kind: z.literal('hydrothermal-threshold'), base: quantitySchema, optimum: quantitySchema, waterBase: quantitySchema }),
    z.strictObject({ kind: z.literal('hydrothermal-product'), base: quantitySchema, optimum: quantitySchema, waterBase: quantitySchema }),
  ]),
  onset: quantitySchema,
  median: quantitySchema,
  shape: quantitySchema,
  medianSe: quantitySchema,
  usual: usualSchema,
})

/** An event outside the model: it is seen, dated, and after some seasons makes a clock of its own. */
const namedEventSchema = z.strictObject({
  id: z.string().regex(/^[a-z0-9-]+$/),
  name: z.string().min(3),
  stage: z.string(),
  /** A published sum of heat to it where no more of the year is known: it dates the event, and no window. */
  figure: z
    .strictObject({
      lower: quantitySchema,
      upper: quantitySchema.optional(),
      heat: quantitySchema,
      heatSe: quantitySchema,
      /** From a day of the northern year, or from the day on which an earlier named event was seen. */
      from: z.union([
        z.strictObject({ month: z.int().min(1).max(12), day: z.int().min(1).max(31) }),
        z.strictObject({ after: z.string() }),
      ]),
    })
    .optional(),
})

const stageSchema = z.strictObject({
  id: z.string().regex(/^[a-z-]+$/),
  name: z.string().min(3),
  silhouette: z.enum(silhouettes),
  where: z.string().min(3),
})

export const organismSchema = z
  .strictObject({
    id: z.string().regex(/^[a-z-]+$/),
    version: z.string().regex(/^\d+\.\d+\.\d+$/),
    name: z.string().min(3),
    scientificName: z.string().min(3),
    kind: z.enum(['insect', 'mite', 'mollusc', 'disease', 'weed']),
    crops: z.array(z.string()).min(1),
    /** Broods that overlap and go on for as long as it is warm: after the modelled ones it breeds on. */
    breeds: z.enum(['broods', 'continuous']).default('broods'),
    /** No trustworthy number of its year is known: it is given by months, and nothing is computed from its heat rule. */
    monthsOnly: z.boolean().default(false),
    heat: heatRuleSchema,
    biofix: biofixSchema,
    stages: z.array(stageSchema).min(2),
    generations: z.array(
      z.strictObject({
        id: z.string().regex(/^[a-z0-9-]+$/),
        name: z.string().min(3),
        /** In their order; none where only months are known. */
        events: z.array(eventSchema),
        /** The stages that its window is for, as long as no way to act is chosen: each is reached by some method. */
        reachableStages: z.array(z.string()).min(1),
        /** That no known method reaches it, and what is left to do. */
        noReach: z.string().min(20).optional(),
        /** Day length at which half of this generation's sensitive stage, which `at` begins, goes into diapause, and how sharply. */
        diapause: z.strictObject({ at: z.string(), criticalHours: quantitySchema, slope: quantitySchema }).optional(),
        /** Months, 1 to 12 in the northern hemisphere, in which it can be reached, and the bloom that announces it. */
        usual: usualSchema.optional(),
      }),
    ),
    /** What is seen of it and can be dated, where no figure tells its day. */
    named: z.array(namedEventSchema).default([]),
    /** What of it outlives a mild winter, and the cold that kills it. */
    carriesOver: z
      .array(
        z.strictObject({
          what: z.string().min(5),
          medium: z.enum(['soil', 'air']),
          killedBelow: quantitySchema,
          /** What to do, and by when, where it may have lived; what stays alive all the same where it froze. */
          alive: z.string().min(20),
          killed: z.string().min(20),
        }),
      )
      .default([]),
    /** What ends its season where that is no heat; the first that comes does. */
    ends: z.array(z.strictObject({ by: z.enum(['frost', 'day-length']), limit: quantitySchema, what: z.string().min(5) })).default([]),
    /** What of a weed lies in the soil when none stands, and how long it lives there. */
    bank: z
      .strictObject({ of: z.enum(['seed', 'root']), shortest: quantitySchema, longest: quantitySchema })
      .refine(({ shortest, longest }) => shortest.value <= longest.value, {
        error: 'the longest is not below the shortest',
        path: ['longest'],
      })
      .optional(),
    infection: infectionSchema.optional(),
    emergence: emergenceSchema.optional(),
    /** What still helps once the last stage that can be reached is past. */
    tooLate: z.string().min(20),
    /** What to do where no treatment from outside reaches enough of it. */
    poorlyReachable: z.string().min(20).optional(),
    sampling: z
      .strictObject({
        unit: z.string().min(3),
        units: z.string().min(3),
        item: z.string().min(3),
        items: z.string().min(3),
        itemsPerUnit: z.int().positive(),
        suggestedUnits: z.int().positive(),
        how: z.string().min(20),
        classes: z.array(z.strictObject({ id: z.string().regex(/^[a-z-]+$/), name: z.string().min(3), weight: z.number().min(0) })).min(1),
        threshold: quantitySchema,
        /** What is counted: how many there are, or which share of items has any. */
        measure: z.enum(['density', 'incidence']).default('density'),
        /** Damage tells how it went, and comes too late to decide on. */
        serves: z.enum(['decision', 'outcome']).default('decision'),
        /** By what to decide, where the count comes too late. */
        decision: z.string().min(20).optional(),
        /** It is to go altogether: one is enough to act. */
        eliminate: z.boolean().default(false),
        /** It sits low or high on the plant, which tells where to look next and what a treatment has to reach: a count says where it was. */
        byHeight: z.boolean().default(false),
      })
      .refine((s) => s.serves === 'decision' || s.decision !== undefined, {
        error: 'a count that comes too late to decide on says by what to decide',
        path: ['decision'],
      }),
    lookAlikes: z.array(z.string().min(20)).min(1),
    hazards: z.array(hazardSchema).min(1),
    about: aboutSchema,
  })
  .refine((o) => o.monthsOnly || o.generations.every(({ events }) => events.length >= 2), {
    error: 'a generation needs at least two events, or the entry monthsOnly',
    path: ['generations'],
  })
  .refine((o) => !o.monthsOnly || o.generations.every(({ usual }) => usual !== undefined), {
    error: 'an entry by months says in which months each generation can be reached',
    path: ['generations'],
  })
  .refine(
    (o) =>
      o.named.every(
        ({ figure }) => !figure || !('after' in figure.from) || o.named.some(({ id }) => id === (figure.from as { after: string }).after),
      ),
    {
      error: 'a figure counts from a day or from a named event of the entry',
      path: ['named'],
    },
  )
  .refine((o) => o.named.every(({ stage }) => o.stages.some(({ id }) => id === stage)), {
    error: 'a named event is of a stage that the entry has',
    path: ['named'],
  })

export type Source = z.infer<typeof sourceSchema>
export type Confidence = z.infer<typeof confidenceSchema>
export type Quantity = z.infer<typeof quantitySchema>
export type Organism = z.infer<typeof organismSchema>
export type Biofix = z.infer<typeof biofixSchema>

/** A plant whose bloom tells the season. */
export const indicatorSchema = z.strictObject({
  id: z.string().regex(/^[a-z-]+$/),
  version: z.string().regex(/^\d+\.\d+\.\d+$/),
  name: z.string().min(3),
  scientificName: z.string().min(3),
  heat: heatRuleSchema,
  biofix: biofixSchema,
  events: z.array(eventSchema.and(z.object({ id: z.enum(bloomEvents) }))).min(3),
  /** How to tell that the event has come, always on the same plant. */
  tell: z.string().min(20),
  hazards: z.array(hazardSchema).min(1),
})
export type Indicator = z.infer<typeof indicatorSchema>
