import { READING_LIMITS } from '@bocado/core/limits'
import { z } from 'zod'
import {
  civilDateSchema,
  id,
  madeElsewhere,
  instantSchema,
  madeSchema,
  note,
  number,
  rowVersion,
  takenInput,
  takenSchema,
  text,
} from './common.js'
import { downwindSchema, NEAR_M } from './ground.js'
import { departureSchema, jobSheetSchema } from './jobSheet.js'
import { endpoint } from './endpoint.js'
import { blockKinds } from './sites.js'

export const formulations = ['liquid', 'powder', 'granules', 'dust', 'bait', 'dispensers', 'living', 'cover', 'trap', 'other'] as const
/** Ways in which a label lets it be applied. */
export const applicationWays = [
  'spray',
  'spot-spray',
  'drench',
  'dusting',
  'granules',
  'bait',
  'dispensers',
  'release',
  'paint',
  'injection',
  'cover',
  'trap',
] as const
export const gateRefusals = [
  'no-way-to-act',
  'other-strain',
  'no-stage',
  'target-not-on-label',
  'crop-not-on-label',
  'place-not-on-label',
] as const
export const gateDoubts = ['unmapped', 'strain-not-said'] as const
/** In which labels give their rates: those of hectares, of acres, and of small ground. A rate stays in the unit of its label. */
export const rateUnits = [
  'L/ha',
  'kg/ha',
  'mL/ha',
  'g/ha',
  'pieces/ha',
  'fl oz/acre',
  'pt/acre',
  'qt/acre',
  'gal/acre',
  'oz/acre',
  'lb/acre',
  'pieces/acre',
  'mL/m²',
  'g/m²',
  'mL/L',
  'g/L',
  '% v/v',
  'fl oz/gal',
  'oz/gal',
  'mL/plant',
  'g/plant',
  'pieces/plant',
  'mL/m row',
  'g/m row',
  'L/10 000 m² wall',
  'kg/10 000 m² wall',
  'L/10 000 m³ canopy',
  'kg/10 000 m³ canopy',
] as const
/** Where what was taken went, or what was left over. */
export const disposals = ['leave', 'dry', 'compost-hot', 'bag', 'bury', 'burn', 'waste-site'] as const
export const beeHazards = ['none-stated', 'hazardous-in-bloom', 'forbidden-in-bloom'] as const

/** What a label seldom says: a guess by the kind of material stands in for it, and is marked. */
export const assumable = ['effect', 'residualDays'] as const

const rateForSchema = z.object({ crop: z.string(), target: z.string().nullable(), rate: z.number() })
const notWithinSchema = z.object({ method: z.string(), days: z.int() })
export const productSchema = z.object({
  id,
  name: z.string(),
  /** Methods of the library that it is for; none: nobody has said what it is. */
  methods: z.array(z.string()),
  /** Strain, species, lure or group, where the method has any. */
  strain: z.string().nullable(),
  active: z.string(),
  formulation: z.enum(formulations).nullable(),
  ways: z.array(z.enum(applicationWays)),
  /** Organisms, crops and kinds of place that the label names; none where they were not entered. */
  targets: z.array(z.string()),
  crops: z.array(z.string()),
  places: z.array(z.enum(blockKinds)),
  /** What was said of it before methods were named. */
  kindBefore: z.string().nullable(),
  stages: z.array(z.string()),
  effect: z.number(),
  residualDays: z.number(),
  /** Which of these two nobody has said: they are guesses by what it is. */
  assumed: z.array(z.enum(assumable)),
  labelRate: z.number(),
  rateUnit: z.enum(rateUnits),
  reEntryHours: z.number(),
  preHarvestDays: z.int(),
  bees: z.enum(beeHazards),
  protection: z.string(),
  /** The label lets only licensed applicators use it: a record of it is a draft until one of them signs it. */
  licensedOnly: z.boolean(),
  /** Number under which it is registered; empty where nobody typed it. */
  registration: z.string(),
  /** What the label says of when it may be used; null where it says nothing, or nobody typed it. */
  leastIntervalDays: z.int().nullable(),
  mostPerSeason: z.int().nullable(),
  rainFastHours: z.number().nullable(),
  maxWindMs: z.number().nullable(),
  minTempC: z.number().nullable(),
  maxTempC: z.number().nullable(),
  /** Lower rates of the label for crops and targets, in the same unit. */
  rates: z.array(rateForSchema),
  /** Most of it a season on the same ground, in the unit of its rate. */
  mostAmount: z.number().nullable(),
  /** Least water, L/ha. */
  leastVolume: z.number().nullable(),
  /** Days until something else may be sown, and until animals may graze there. */
  plantBackDays: z.int().nullable(),
  grazingDays: z.int().nullable(),
  /** It stays in hay, manure or compost of what was treated. */
  carriesOver: z.boolean(),
  /** m kept from water, and with nozzles that let little drift. */
  bufferM: z.number().nullable(),
  bufferLowDriftM: z.number().nullable(),
  /** Group of its mode of action, as the label prints it; empty where nobody typed it. */
  actionGroup: z.string(),
  /** Methods that need so many days between it and them. */
  notWithin: z.array(notWithinSchema),
  /** Varieties that it harms. */
  burns: z.array(z.string()),
  /** Stages of the crop in which the label allows it, in its words. */
  cropStages: z.string(),
  soilMinC: z.number().nullable(),
  /** An organic certificate allows it; null: nobody said. */
  organic: z.boolean().nullable(),
  /** Of what is living: days from order to delivery, and for which it keeps once it is there; null where nobody said. */
  orderDays: z.int().nullable(),
  keepsDays: z.int().nullable(),
  /** What the label asks of water, adjuvant, dye and order of mixing, in its words. */
  mixing: z.string(),
  /** g of the active in 1 L or 1 kg; most kg of it on a hectare and season. */
  activeGramsPer: z.number().nullable(),
  mostActiveKgHa: z.number().nullable(),
  /** The law lets it be used only with a permit for the place and time. */
  needsPermit: z.boolean(),
  /** The day on which the numbers of its label were read. */
  readOn: civilDateSchema.nullable(),
  /** Every site of the holding has it on its shelf. */
  shared: z.boolean(),
  rowVersion,
})
export type Product = z.infer<typeof productSchema>
/** What a label says, apart from whose shelf it stands on. */
export const labelSchema = productSchema.omit({ shared: true })
export type Label = z.infer<typeof labelSchema>

/** A whole number that few labels name. */
const wholeOf = (name: string, least: number, most: number) =>
  z
    .int({ error: `enter ${name}` })
    .min(least, { error: `must be at least ${least}` })
    .max(most, { error: `must be at most ${most}` })
    .nullable()
    .default(null)
const productFields = z.object({
  name: text('the name on the label', 120),
  methods: z.array(z.string()).max(6).default([]),
  strain: z.string().max(80).nullable().default(null),
  active: z.string().trim().max(200, { error: 'use at most 200 characters' }).default(''),
  formulation: z.enum(formulations).nullable().default(null),
  ways: z.array(z.enum(applicationWays)).default([]),
  targets: z.array(z.string()).max(200).default([]),
  crops: z
    .array(z.string().trim().min(2, { error: 'name the crop' }).max(80))
    .max(100)
    .default([]),
  places: z.array(z.enum(blockKinds)).default([]),
  stages: z.array(z.string()).min(1, { error: 'choose at least one stage that it reaches' }),
  /** On few labels: null leaves it to a guess by what it is. */
  effect: number('the share it kills', 0, 1).nullable().default(null),
  residualDays: number('the days its residue acts', 0, 365).nullable().default(null),
  labelRate: number('the highest rate on the label', 0.0001, 100_000),
  rateUnit: z.enum(rateUnits, { error: 'choose the unit of the rate' }),
  reEntryHours: number('the re-entry interval on the label', 0, 8760),
  preHarvestDays: z
    .int({ error: 'enter the days to harvest on the label' })
    .min(0, { error: 'must be at least 0' })
    .max(365, { error: 'must be at most 365' }),
  bees: z.enum(beeHazards, { error: 'choose what the label says about bees' }),
  protection: text('the protective gear the label asks for', 500),
  licensedOnly: z.boolean().default(false),
  registration: z.string().trim().max(60, { error: 'use at most 60 characters' }).default(''),
  leastIntervalDays: wholeOf('the days between two treatments on the label', 1, 365),
  mostPerSeason: wholeOf('the treatments a season on the label', 1, 100),
  rainFastHours: number('the rain-fast hours on the label', 0, 96).nullable().default(null),
  maxWindMs: number('the highest wind on the label', 0, 20).nullable().default(null),
  minTempC: number('the lowest temperature on the label', -20, 50).nullable().default(null),
  maxTempC: number('the highest temperature on the label', -20, 50).nullable().default(null),
  rates: z
    .array(
      z.object({
        crop: z.string().trim().max(80).default(''),
        target: z.string().max(80).nullable().default(null),
        rate: number('the rate', 0.0001, 100_000),
      }),
    )
    .max(50)
    .default([]),
  mostAmount: number('the most a season on the label', 0.0001, 1_000_000).nullable().default(null),
  leastVolume: number('the least water on the label', 0.1, 20_000).nullable().default(null),
  plantBackDays: wholeOf('the days until something else is sown', 1, 3650),
  grazingDays: wholeOf('the days until animals graze', 1, 3650),
  carriesOver: z.boolean().default(false),
  bufferM: number('the distance from water', 0.1, NEAR_M, 'm').nullable().default(null),
  bufferLowDriftM: number('the distance from water', 0, NEAR_M, 'm').nullable().default(null),
  actionGroup: z.string().trim().max(40, { error: 'use at most 40 characters' }).default(''),
  notWithin: z
    .array(z.object({ method: z.string().max(80), days: z.int({ error: 'enter the days between' }).min(1).max(365) }))
    .max(20)
    .default([]),
  burns: z.array(z.string().trim().min(2).max(80)).max(50).default([]),
  cropStages: z.string().trim().max(300, { error: 'use at most 300 characters' }).default(''),
  soilMinC: number('the lowest soil temperature on the label', -5, 40, '°C').nullable().default(null),
  orderDays: wholeOf('the days from order to delivery', 0, 120),
  keepsDays: wholeOf('the days for which it keeps', 0, 365),
  organic: z.boolean().nullable().default(null),
  mixing: z.string().trim().max(300, { error: 'use at most 300 characters' }).default(''),
  activeGramsPer: number('the grams of active in a litre or kilogram', 0.000_001, 1000).nullable().default(null),
  mostActiveKgHa: number('the most of the active a season', 0.000_001, 1000).nullable().default(null),
  needsPermit: z.boolean().default(false),
  readOn: civilDateSchema.nullable().default(null),
  shared: z.boolean().default(false),
})
/** A label that names two temperatures names the lower first. */
const inOrder = <S extends z.ZodType<{ minTempC: number | null; maxTempC: number | null }>>(schema: S) =>
  schema.refine(({ minTempC, maxTempC }) => minTempC === null || maxTempC === null || minTempC < maxTempC, {
    path: ['maxTempC'],
    error: 'has to lie above the lowest temperature',
  })
export const productInput = inOrder(productFields)
/** Fields of a label, as files have them. */
export const labelFields = Object.keys(productFields.shape) as (keyof typeof productFields.shape)[]

export const weatherThenSchema = z.object({
  tempC: z.number().nullable(),
  humidityPct: z.number().nullable(),
  windMs: z.number().nullable(),
  /** Degrees from which it blew, clockwise from north. */
  windFrom: z.number().nullable(),
})

/** What else is noted of a treatment that was done. */
export const particularsSchema = z.object({
  endedAt: instantSchema.nullable(),
  way: z.enum(applicationWays).nullable(),
  machineId: id.nullable(),
  lotId: id.nullable(),
  /** Of the product, in that in which its rate is measured. */
  amountUsed: z.number().nullable(),
  waterL: z.number().nullable(),
  /** Stage of the crop, in words or as its code; of what it was done against. */
  cropStage: z.string(),
  targetStage: z.string(),
  /** Bags carried away, and where what was taken or left over went. */
  bags: z.number().nullable(),
  waste: z.enum(disposals).nullable(),
})
/** The count and the window behind a treatment. */
export const whySchema = z
  .object({
    countedOn: civilDateSchema.nullable(),
    per100: z.number().nullable(),
    threshold: z.number().nullable(),
    opens: civilDateSchema.nullable(),
    closes: civilDateSchema.nullable(),
  })
  .nullable()

export const treatmentSchema = z.object({
  id,
  watchId: id,
  /** What it is done with: a product of the shelf, or a method by hand. One of both. */
  productId: id.nullable(),
  methodId: z.string().nullable(),
  /** Of the product or the method; of what was done as it was called that day. */
  name: z.string(),
  /** The block, or the part of it, that is treated. */
  placeId: id,
  placeName: z.string(),
  status: z.enum(['planned', 'done']),
  plannedOn: civilDateSchema,
  /** Set where it was done although neither the library nor the label names this use: no coverage is computed. */
  deviation: z.object({ because: z.enum(gateRefusals), reason: z.string() }).nullable(),
  done: z
    .object({
      startedAt: instantSchema,
      /** The site's civil day of the start. */
      day: civilDateSchema,
      /** Null where it was done by hand. */
      rate: z.number().nullable(),
      rateUnit: z.enum(rateUnits).nullable(),
      areaHa: z.number().nullable(),
      /** m kept clear of water, hives, neighbours and what is sensitive; null where nobody said. */
      keptClearM: z.number().nullable(),
      /** Of work. */
      minutes: z.number().nullable(),
      /** What was picked, pulled or caught. */
      taken: takenSchema.nullable(),
      doneById: id,
      doneByName: z.string(),
      weather: weatherThenSchema,
      reEntryUntil: instantSchema.nullable(),
      ...particularsSchema.shape,
      /** Its lot and its machine, as they are called. */
      lotNumber: z.string().nullable(),
      machineName: z.string().nullable(),
      /** Why it was done: the last count before it, and the window in which it stood, as they were known when it was recorded. */
      why: whySchema,
      /** What it departed from of label, law and rules of the place; a record accepts that, and says it. */
      departures: z.array(departureSchema),
      departureReason: z.string(),
      /** The label, effect and stages of that day; the shelf may say otherwise today. Null where it was done by hand. */
      label: labelSchema.nullable(),
      /** What it does to the stages that it reaches, by the label of that day or by the kind of method. */
      does: z.object({
        methods: z.array(z.string()),
        effect: z.number(),
        residualDays: z.number(),
        assumed: z.array(z.enum(assumable)),
      }),
      /** `restored` where a correction had once put a later label in its place; `doubtful` where it may have. */
      labelState: z.enum(['kept', 'restored', 'doubtful']),
      /** Who of those who are licensed signed it as it stands; null while nobody has. */
      signed: z.object({ byName: z.string(), at: instantSchema, licence: z.string() }).nullable(),
    })
    .nullable(),
  note: z.string(),
  personName: z.string(),
  rowVersion,
})
export type Treatment = z.infer<typeof treatmentSchema>

/** `id` is the page's own: what is made without signal is stored once, however often it is sent. */
export const planInput = z.object({
  ...madeElsewhere,
  watchId: z.uuid({ error: 'choose a watch' }),
  productId: z.uuid({ error: 'choose a product' }).nullable().default(null),
  /** A method that needs no product. One of both has to be named. */
  methodId: z.string().max(80).nullable().default(null),
  /** Where it acts; the whole block where nothing is chosen. */
  placeId: z.uuid({ error: 'choose where' }).nullable().default(null),
  plannedOn: civilDateSchema,
  note,
})
export const doneInput = z.object({
  startedAt: instantSchema,
  /** Needed where a product was used. */
  rate: number('the rate used', 0.0001, 100_000).nullable().default(null),
  areaHa: number('the area treated', 0.000_000_1, 100_000, 'ha').nullable().default(null),
  /** m kept clear of what lies near: what is left of the drawn place is the most that was treated. */
  keptClearM: number('the distance', 0.1, NEAR_M, 'm').nullable().default(null),
  minutes: number('the minutes of work', 0, 100_000).nullable().default(null),
  /** What was picked, pulled or caught. */
  taken: takenInput(0),
  /** Who did it; whoever records it where nobody is named. */
  doneById: z.uuid({ error: 'choose who did it' }).nullable().default(null),
  made: madeSchema,
  weather: z.object({
    tempC: number('the temperature', READING_LIMITS.temperature.least, READING_LIMITS.temperature.most, '°C').nullable().default(null),
    humidityPct: number('the humidity', READING_LIMITS.humidity.least, READING_LIMITS.humidity.most).nullable().default(null),
    windMs: number('the wind', READING_LIMITS.wind.least, READING_LIMITS.wind.most, 'm/s').nullable().default(null),
    windFrom: number('the direction', READING_LIMITS.direction.least, READING_LIMITS.direction.most).nullable().default(null),
  }),
  note,
  endedAt: instantSchema.nullable().default(null),
  way: z.enum(applicationWays).nullable().default(null),
  machineId: z.uuid({ error: 'choose a machine' }).nullable().default(null),
  lotId: z.uuid({ error: 'choose a lot' }).nullable().default(null),
  amountUsed: number('the amount used', 0.000_001, 1_000_000).nullable().default(null),
  waterL: number('the water', 0.001, 1_000_000).nullable().default(null),
  cropStage: z.string().trim().max(80, { error: 'use at most 80 characters' }).default(''),
  targetStage: z.string().trim().max(80, { error: 'use at most 80 characters' }).default(''),
  bags: number('the bags', 0, 10_000).nullable().default(null),
  waste: z.enum(disposals).nullable().default(null),
  /** What whoever did it says to its departing from label, law or rules of the place. */
  departureReason: z.string().trim().max(500, { error: 'use at most 500 characters' }).default(''),
  rowVersion,
})

/** What was done without having been planned, whatever it was. */
export const unplannedInput = planInput
  .omit({ plannedOn: true })
  .extend(doneInput.omit({ rowVersion: true, note: true }).shape)
  .extend({
    /** What whoever did it says to its being named neither by the library nor by the label, where it is not. */
    deviationReason: z.string().trim().max(500, { error: 'use at most 500 characters' }).default(''),
  })

const siteParams = z.object({ siteId: id })
const productParams = z.object({ siteId: id, productId: id })
const treatmentParams = z.object({ siteId: id, treatmentId: id })
const version = z.object({ rowVersion })

/** Why an hour cannot be used. */
export const hourBlocks = [
  'rule',
  'entry',
  'bees',
  'wind',
  'towards',
  'inversion',
  'rain',
  'temperature',
  'delta-t',
  'soil',
  'dark',
  'sun',
] as const
const hourBlock = z.enum(hourBlocks)
export const watchHoursSchema = z.object({
  /** First civil day of `hours`, by the clock of the site: today. */
  from: civilDateSchema,
  /** Members of the forecast; 0 where there is none, and then no hour is known. */
  members: z.int(),
  /** Hours of `hours` that are over. */
  over: z.int(),
  /** Day by day 24 hours: the members in which each can be used, in which something is not known, and that each reason blocks. */
  hours: z.array(z.object({ usable: z.int(), unknown: z.int(), blocked: z.partialRecord(hourBlock, z.int()) })),
  /** Of each day the members in which at least one hour that is left can be used. */
  days: z.array(z.int()),
  /** What binds it, and whose limit it is: of the label, usual for its kind, or a rule of the place, by law or of its own. */
  limits: z.array(z.object({ reason: hourBlock, from: z.enum(['label', 'usual', 'law', 'own']) })),
  /** Hours that a limit alone keeps from being used in at least half of the members. */
  costs: z.array(z.object({ reason: hourBlock, hours: z.int() })),
  /** Rules of the place that close hours of the board or lower its wind. */
  rules: z.array(z.string()),
  /** What flowers there on one of the days and binds it. */
  flowers: z.array(z.string()),
  /** What its drops must not be carried to. */
  downwind: z.array(downwindSchema),
  /** Whether the forecast says where the wind blows from. */
  knowsDirection: z.boolean(),
})
export type WatchHours = z.infer<typeof watchHoursSchema>

/** What is known of what may still be saved where nothing reaches an organism any more. */
export const lateSchema = z.object({
  /** Weight of one fruit, head or bunch in kg, by what was picked there; null while fewer than two harvests have both weight and number. */
  ownWeightKg: z.number().nullable(),
  /** First frost of autumn by past seasons of the station: of an early year, and of a usual one; null where fewer than five are known. */
  frost: z.object({ early: civilDateSchema, usual: civilDateSchema, seasons: z.int() }).nullable(),
  /** Crops of other families that may ripen before frost where they are sown today, the surest first. */
  replace: z.array(
    z.object({ cropName: z.string(), from: civilDateSchema, until: civilDateSchema, ripens: z.enum(['surely', 'perhaps']) }),
  ),
})
export type Late = z.infer<typeof lateSchema>

export const treatments = {
  late: endpoint({
    method: 'get',
    path: '/sites/:siteId/watches/:watchId/late',
    restsOn: ['weather', 'stations', 'treatments', 'blooms', 'watches', 'site', 'day'],
    summary: 'What may still be saved where nothing reaches it any more',
    params: z.object({ siteId: id, watchId: id }),
    input: z.object({}),
    response: lateSchema,
  }),
  hours: endpoint({
    method: 'get',
    path: '/sites/:siteId/watches/:watchId/hours',
    restsOn: ['weather', 'stations', 'treatments', 'blooms', 'watches', 'library', 'site', 'day'],
    summary: 'The hours of the days ahead in which a product, or a method by hand, can be used',
    params: z.object({ siteId: id, watchId: id }),
    input: z.object({ productId: z.uuid().optional(), methodId: z.string().max(80).optional() }),
    response: watchHoursSchema,
  }),
  sheet: endpoint({
    method: 'get',
    path: '/sites/:siteId/treatments/:treatmentId/sheet',
    restsOn: ['treatments', 'watches', 'blooms', 'site', 'day'],
    summary: 'What stops a planned treatment on its day, what speaks against it, and the consents and notices it has',
    params: treatmentParams,
    input: z.object({}),
    response: jobSheetSchema,
  }),
  importShelf: endpoint({
    method: 'post',
    path: '/sites/:siteId/products/import',
    summary: 'Put the products of a file on the shelf: all of them, or none with what is wrong row by row',
    params: siteParams,
    input: z.object({
      format: z.enum(['csv', 'json']),
      text: z.string().min(1, { error: 'is empty' }).max(1_500_000, { error: 'is larger than 1.5 MB' }),
    }),
    response: z.array(productSchema),
  }),
  products: endpoint({
    method: 'get',
    path: '/sites/:siteId/products',
    restsOn: ['treatments'],
    summary: 'The shelf',
    params: siteParams,
    input: z.object({}),
    response: z.array(productSchema),
  }),
  addProduct: endpoint({
    method: 'post',
    path: '/sites/:siteId/products',
    summary: 'Put a product on the shelf, by its label',
    params: siteParams,
    input: productInput,
    response: productSchema,
  }),
  updateProduct: endpoint({
    method: 'patch',
    path: '/sites/:siteId/products/:productId',
    summary: 'Correct a product by its label',
    params: productParams,
    input: inOrder(productFields.extend({ rowVersion })),
    response: productSchema,
  }),
  list: endpoint({
    method: 'get',
    path: '/sites/:siteId/treatments',
    restsOn: ['treatments', 'watches', 'site'],
    summary: 'Treatments of a season',
    params: siteParams,
    input: z.object({ season: civilDateSchema }),
    response: z.array(treatmentSchema),
  }),
  plan: endpoint({
    method: 'post',
    path: '/sites/:siteId/treatments',
    summary: 'Plan a treatment',
    params: siteParams,
    input: planInput,
    response: treatmentSchema,
  }),
  move: endpoint({
    method: 'patch',
    path: '/sites/:siteId/treatments/:treatmentId',
    summary: 'Move or change a planned treatment',
    params: treatmentParams,
    input: planInput.omit({ watchId: true, id: true, made: true }).extend({ rowVersion }),
    response: treatmentSchema,
  }),
  record: endpoint({
    method: 'post',
    path: '/sites/:siteId/treatments/:treatmentId/done',
    summary: 'Record a treatment as done',
    params: treatmentParams,
    input: doneInput,
    response: treatmentSchema,
  }),
  recordUnplanned: endpoint({
    method: 'post',
    path: '/sites/:siteId/treatments/done',
    summary: 'Record a treatment that was not planned; one that neither library nor label names is marked as a deviation',
    params: siteParams,
    input: unplannedInput,
    response: treatmentSchema,
  }),
  sign: endpoint({
    method: 'post',
    path: '/sites/:siteId/treatments/:treatmentId/sign',
    summary: 'Sign a record as a licensed applicator; a correction after that asks for it anew',
    params: treatmentParams,
    input: version,
    response: treatmentSchema,
  }),
  remove: endpoint({
    method: 'delete',
    path: '/sites/:siteId/treatments/:treatmentId',
    summary: 'Remove a treatment; can be restored',
    params: treatmentParams,
    input: version,
    response: z.object({ id, rowVersion }),
  }),
  restore: endpoint({
    method: 'post',
    path: '/sites/:siteId/treatments/:treatmentId/restore',
    summary: 'Undo the removal of a treatment',
    params: treatmentParams,
    input: version,
    response: treatmentSchema,
  }),
  weatherAt: endpoint({
    method: 'get',
    path: '/sites/:siteId/watches/:watchId/weather-at',
    restsOn: ['weather', 'stations', 'site'],
    summary: 'What the station of a watch read in an hour',
    params: z.object({ siteId: id, watchId: id }),
    input: z.object({ at: instantSchema }),
    response: weatherThenSchema,
  }),
}
