import { hours, methodKinds, plantParts, signKinds } from '@bocado/library/vocabulary'
import { z } from 'zod'
import { civilDateSchema, id, madeElsewhere, instantSchema, note, number, rowVersion, text } from './common.js'
import { endpoint } from './endpoint.js'
import { figureSchema, organismSchema, quantitySchema, reachSchema } from './organisms.js'
import { watchForecastSchema } from './watchForecasts.js'

export { damageSigns, hazardGroups, hours, methodKinds, plantMarks, plantParts, signKinds } from '@bocado/library/vocabulary'

const provenance = {
  confidence: figureSchema.shape.confidence,
  region: z.string(),
  source: figureSchema.shape.source,
}
const sign = z.object({
  part: z.enum(plantParts),
  sign: z.enum(signKinds),
  months: z.array(z.int()),
  typical: z.number(),
  tell: z.string(),
  hour: z.enum(hours).optional(),
})
const seenAs = z.object({ text: z.string(), drawing: z.string() })

const aboutSchema = z.object({
  family: z.string(),
  winters: z.object({ as: z.string(), where: z.string() }),
  hosts: z.array(z.string()),
  hostFamilies: z.array(z.string()),
  varieties: z.array(z.object({ what: z.string(), effect: z.string(), ...provenance })),
  signs: z.array(sign),
  damage: z.object({ stage: z.string(), text: z.string(), drawing: z.string(), degrees: z.array(z.number()) }),
  look: z.object({ where: z.string(), hour: z.string() }),
  reach: z.array(reachSchema.extend({ note: z.string().optional() })),
  doesNotWork: z.array(z.object({ what: z.string(), why: z.string() })),
  enemies: z.array(z.string()),
  arrives: z.array(z.string()),
  hygiene: z.array(z.string()),
  report: z.string().nullable(),
  identity: z.object({
    lookAlikes: z.array(z.object({ id: z.string(), name: z.string(), status: z.string(), burns: z.boolean() })),
    characters: z.array(
      z.object({
        id: z.string(),
        ask: z.string(),
        here: seenAs,
        others: seenAs.extend({ of: z.array(z.string()) }),
        decisive: z.boolean(),
        by: z.enum(['sight', 'touch']),
      }),
    ),
  }),
})
export type About = z.infer<typeof aboutSchema>

export const methodSchema = z.object({
  id: z.string(),
  version: z.string(),
  name: z.string(),
  kind: z.enum(methodKinds),
  /** It comes as a product with a label. */
  product: z.boolean(),
  /** Strains, species, lures or groups, each for its own kinds only. */
  strains: z.array(
    z.object({
      id: z.string(),
      name: z.string(),
      what: z.string(),
      soilFloor: quantitySchema.optional(),
      airFloor: quantitySchema.optional(),
      ceiling: quantitySchema.optional(),
    }),
  ),
  /** It lives: it is ordered for its day, and needs its warmth. */
  living: z.boolean(),
  airFloor: quantitySchema.optional(),
  ceiling: quantitySchema.optional(),
  what: z.string(),
  steps: z.array(z.object({ do: z.string(), within: z.string().optional() })),
  materials: z.array(z.string()),
  goodJob: z.string(),
  failedJob: z.string(),
  worksOn: z.string(),
  provokes: z.string(),
  hazards: organismSchema.shape.hazards,
  evidence: z.enum(['tested', 'mixed', 'anecdotal']),
  suits: z.object({ size: z.string(), density: z.string() }),
  hours: z.object({ perUnit: z.number(), unit: z.string(), ...provenance }),
  judgeAfterDays: z.int(),
  /** It has to be there before the stage comes, and stays with it. */
  lasting: z.boolean(),
  /** Days for which what was put on goes on acting. */
  lasts: quantitySchema.optional(),
  fairTest: z.string().optional(),
})
export type Method = z.infer<typeof methodSchema>

/** The row of an own entry: of the site, or shared by every site of its holding. */
const ownRowSchema = z.object({ id, rowVersion, shared: z.boolean() })

/** One line of the library: enough to find it as one types. */
const briefSchema = z.object({
  id: z.string(),
  what: z.enum(['animal', 'disease', 'weed', 'bloom', 'method']),
  name: z.string(),
  /** Scientific name, or the kind of a method. */
  beside: z.string(),
  /** Further words by which it is found: hosts, family, look-alikes. */
  words: z.string(),
  silhouette: z.string().nullable(),
  monthsOnly: z.boolean(),
  /** Row of the site's own entry; null for one of the library. */
  own: ownRowSchema.nullable(),
  /** Watches of this season. */
  watches: z.array(z.object({ id, blockId: id })),
})
export type LibraryBrief = z.infer<typeof briefSchema>

const entrySchema = organismSchema.extend({
  monthsOnly: z.boolean(),
  about: aboutSchema,
  generations: z.array(
    z.object({
      id: z.string(),
      name: z.string(),
      reachableStages: z.array(z.string()),
      noReach: z.string().nullable(),
      events: z.array(z.object({ id: z.string(), name: z.string(), stage: z.string() })),
    }),
  ),
  figures: z.array(figureSchema),
  methods: z.array(methodSchema),
  /** The season as this site's weather has it. */
  year: watchForecastSchema.omit({ treatments: true, rounds: true, decision: true, seen: true, offer: true, moved: true }),
  own: ownRowSchema.nullable(),
})
export type LibraryEntry = z.infer<typeof entrySchema>

export const indicatorSchema = z.object({
  id: z.string(),
  name: z.string(),
  scientificName: z.string(),
  tell: z.string(),
  hazards: organismSchema.shape.hazards,
  events: z.array(z.object({ id: z.string(), name: z.string(), heat: figureSchema.omit({ path: true, own: true }) })),
  /** On the site's own route: then the band shows it. */
  route: z.object({ id, place: z.string(), blockId: id.nullable(), rowVersion }).nullable(),
  /** A plant of the site's own, and what its own dates have made of it so far. */
  own: z
    .object({
      id,
      blockId: id.nullable(),
      rowVersion,
      learnt: z.array(z.object({ event: z.string(), heat: z.number(), seasons: z.int() })),
    })
    .nullable(),
})
export type Indicator = z.infer<typeof indicatorSchema>

/** A sign that was looked for, and whether it was seen. */
export interface SignObservation {
  part: (typeof plantParts)[number]
  sign: (typeof signKinds)[number]
  seen: boolean
}

export const suspectsInput = z.object({
  /** Crop or place as the user names it; nothing: anywhere. */
  place: z.string().max(100).default(''),
  month: z.coerce.number({ error: 'choose a month' }).int().min(1).max(12),
  hour: z.enum(hours).optional(),
  /** `leaf:holes,stem:frass` */
  seen: z.string().max(2000).default(''),
  notSeen: z.string().max(2000).default(''),
})
const suspect = z.object({
  id: z.string(),
  name: z.string(),
  kind: z.string(),
  probability: z.number(),
  /** Whether it is an organism with a page of its own. */
  organism: z.boolean(),
  silhouette: z.string().nullable(),
  /** What one sees when one looks closer, for the signs that were seen. */
  tells: z.array(z.string()),
  whatHelps: z.string().nullable(),
  /** What harms whoever touches it. */
  touch: z.array(z.string()),
})
export const suspectsSchema = z.object({
  /** Below a floor of likelihood nothing in the library fits. */
  nothingFits: z.boolean(),
  /** What burns or poisons and is not excluded yet: until then nothing is asked that has to be touched. */
  burning: z.array(z.string()),
  suspects: z.array(suspect),
  next: z.array(
    z.object({
      part: z.enum(plantParts),
      sign: z.enum(signKinds),
      gain: z.number(),
      shownBy: z.array(z.object({ name: z.string(), tell: z.string() })),
    }),
  ),
})
export type Suspects = z.infer<typeof suspectsSchema>

/** Something that nobody could name, with what was seen of it. */
const unknownFindSchema = z.object({
  id,
  blockId: id.nullable(),
  foundOn: civilDateSchema,
  place: z.string(),
  observations: z.array(z.object({ part: z.enum(plantParts), sign: z.enum(signKinds), seen: z.boolean() })),
  howMany: z.int().nullable(),
  note: z.string(),
  photoId: id.nullable(),
  /** Organism that it turned out to be. */
  namedAs: z.string().nullable(),
  personName: z.string(),
  rowVersion,
})
export type UnknownFind = z.infer<typeof unknownFindSchema>

const answers = z.record(z.string(), z.enum(['here', 'others', 'unsure']))
export const identityVerdictSchema = z.object({
  verdict: z.enum(['matches', 'does-not-match', 'unsure']),
  open: z.array(z.string()),
  likely: z.array(z.string()),
  ask: z.array(z.string()),
  /** What has to be touched, and must not be yet: something that burns or poisons is not excluded by sight. */
  later: z.array(z.string()),
})
const identityCheckSchema = z.object({
  id,
  organismId: z.string(),
  blockId: id.nullable(),
  checkedOn: civilDateSchema,
  answers,
  verdict: identityVerdictSchema.shape.verdict,
  likely: z.array(z.string()),
  photoId: id.nullable(),
  note: z.string(),
  personName: z.string(),
  rowVersion,
})
export type IdentityCheck = z.infer<typeof identityCheckSchema>

/** An organism that must be reported where a site lies, by the site's own list. */
const reportableSchema = z.object({
  id,
  organismId: z.string(),
  organismName: z.string(),
  /** Whom to tell, and how. */
  whom: z.string(),
  note: z.string(),
  rowVersion,
})
export type Reportable = z.infer<typeof reportableSchema>
export const reportDutiesSchema = z.object({
  listed: z.array(reportableSchema),
  /** Where the library knows of a duty in some places: to be checked for this one. */
  toCheck: z.array(z.object({ organismId: z.string(), organismName: z.string(), text: z.string() })),
})

const seenSide = z.object({ text: z.string(), drawing: z.string() })
/** Whether a watched organism has been told from the protected look-alikes that could be destroyed in its stead. */
export const toldApartSchema = z.object({
  state: z.enum(['clear', 'ask', 'other', 'unsure']),
  /** Names of the protected look-alikes that are not ruled out. */
  open: z.array(z.string()),
  /** The character that decides, or the one that spoke for another. */
  character: z.object({ id: z.string(), ask: z.string(), here: seenSide, others: seenSide }).nullable(),
  /** When somebody last looked in this place and season. */
  checkedOn: civilDateSchema.nullable(),
})
export type ToldApart = z.infer<typeof toldApartSchema>

export const photoInput = z.object({
  /** A JPEG of at most 1.2 MB, base64. */
  jpeg: z
    .string({ error: 'choose a picture' })
    .max(1_700_000, { error: 'is larger than 1.2 MB; make it smaller' })
    .regex(/^\/9j\/[A-Za-z0-9+/=]+$/, { error: 'is no JPEG picture; choose a photo' }),
  takenOn: civilDateSchema,
  position: z
    .object({ latitude: number('the latitude', -90, 90), longitude: number('the longitude', -180, 180) })
    .nullable()
    .default(null),
})
const photoSchema = z.object({
  id,
  organismId: z.string(),
  shows: z.string(),
  reference: z.boolean(),
  takenOn: civilDateSchema,
  position: z.object({ latitude: z.number(), longitude: z.number() }).nullable(),
  rowVersion,
})
export type Photo = z.infer<typeof photoSchema>

const siteParams = z.object({ siteId: id })
const organismParams = z.object({ siteId: id, organismId: z.string() })
const rowParams = z.object({ siteId: id, rowId: id })
const ownParams = z.object({ siteId: id, kind: z.enum(['organism', 'method']), rowId: id })
const own = z.object({ id, rowVersion, entryId: z.string() })
/** An entry as its authors write it, or spelt out; what is wrong in it is named by its path. */
const ownInput = z.object({
  entry: z.record(z.string(), z.unknown(), { error: 'must be an object' }),
  /** Version of the entry that is changed; without one it is added as a new one. */
  rowVersion: rowVersion.nullable().default(null),
  /** Every site of the holding shall have it. */
  shared: z.boolean().default(false),
})
/** What an entry held before another of the same id was laid over it. */
const overwrittenSchema = z.object({
  auditId: z.int(),
  kind: z.enum(['organism', 'method']),
  name: z.string(),
  overwrittenBy: z.string(),
  at: instantSchema,
})

const watchParams = z.object({ siteId: id, watchId: id })
const reportableParams = z.object({ siteId: id, reportableId: id })
const ownPlantParams = z.object({ siteId: id, plantRowId: id })
const ownPlantInput = z.object({
  name: text('the name of the plant', 120),
  tell: z.string().trim().max(500, { error: 'use at most 500 characters' }).default(''),
  /** In or beside which block it flowers; a crop's own flowers in theirs. */
  blockId: id.nullable().default(null),
})
const findParams = z.object({ siteId: id, findId: id })

export const library = {
  list: endpoint({
    method: 'get',
    path: '/sites/:siteId/library',
    restsOn: ['library', 'watches'],
    summary: 'Everything in the library, the site’s own entries among it, in one line each',
    params: siteParams,
    input: z.object({}),
    response: z.array(briefSchema),
  }),
  entry: endpoint({
    method: 'get',
    path: '/sites/:siteId/library/organisms/:organismId',
    restsOn: ['library', 'watches', 'weather', 'stations', 'site', 'day'],
    summary: 'An organism with what is known of it and its year by this site’s weather',
    params: organismParams,
    input: z.object({ blockId: z.uuid().optional() }),
    response: entrySchema,
  }),
  methods: endpoint({
    method: 'get',
    path: '/sites/:siteId/library/methods',
    restsOn: ['library'],
    summary: 'Ways to act',
    params: siteParams,
    input: z.object({}),
    response: z.array(methodSchema.extend({ own: ownRowSchema.nullable() })),
  }),
  indicators: endpoint({
    method: 'get',
    path: '/sites/:siteId/library/bloom-plants',
    restsOn: ['blooms'],
    summary: 'Plants whose bloom tells the season',
    params: siteParams,
    input: z.object({}),
    response: z.array(indicatorSchema),
  }),
  addToRoute: endpoint({
    method: 'post',
    path: '/sites/:siteId/bloom-plants',
    summary: 'Put a bloom plant on the site’s route',
    params: siteParams,
    input: z.object({
      plantId: z.string(),
      place: z.string().trim().max(200).default(''),
      /** In or beside which block it flowers. */
      blockId: id.nullable().default(null),
    }),
    response: z.object({ id, rowVersion }),
  }),
  changeOnRoute: endpoint({
    method: 'patch',
    path: '/sites/:siteId/bloom-plants/:rowId',
    summary: 'Say where a plant of the route stands',
    params: rowParams,
    input: z.object({ place: z.string().trim().max(200).default(''), blockId: id.nullable().default(null), rowVersion }),
    response: z.object({ id, rowVersion }),
  }),
  addOwnPlant: endpoint({
    method: 'post',
    path: '/sites/:siteId/own-bloom-plants',
    summary: 'Add a bloom plant of the site’s own, or the flowers of a crop; its heat is learnt from its dates',
    params: siteParams,
    input: ownPlantInput,
    response: z.object({ id, rowVersion }),
  }),
  changeOwnPlant: endpoint({
    method: 'patch',
    path: '/sites/:siteId/own-bloom-plants/:plantRowId',
    summary: 'Change a bloom plant of the site’s own',
    params: ownPlantParams,
    input: ownPlantInput.extend({ rowVersion }),
    response: z.object({ id, rowVersion }),
  }),
  removeOwnPlant: endpoint({
    method: 'delete',
    path: '/sites/:siteId/own-bloom-plants/:plantRowId',
    summary: 'Remove a bloom plant of the site’s own; can be restored, its dates stay in the log',
    params: ownPlantParams,
    input: z.object({ rowVersion }),
    response: z.object({ id, rowVersion }),
  }),
  restoreOwnPlant: endpoint({
    method: 'post',
    path: '/sites/:siteId/own-bloom-plants/:plantRowId/restore',
    summary: 'Undo the removal of a bloom plant of the site’s own',
    params: ownPlantParams,
    input: z.object({ rowVersion }),
    response: z.object({ id, rowVersion }),
  }),
  removeFromRoute: endpoint({
    method: 'delete',
    path: '/sites/:siteId/bloom-plants/:rowId',
    summary: 'Take a bloom plant off the route',
    params: rowParams,
    input: z.object({ rowVersion }),
    response: z.object({ id, rowVersion }),
  }),
  signs: endpoint({
    method: 'get',
    path: '/sites/:siteId/signs',
    restsOn: ['library'],
    summary: 'Signs by which anything in the library gives itself away, by the part on which they are seen',
    params: siteParams,
    input: z.object({}),
    response: z.array(z.object({ part: z.enum(plantParts), sign: z.enum(signKinds) })),
  }),
  suspects: endpoint({
    method: 'get',
    path: '/sites/:siteId/suspects',
    restsOn: ['library', 'watches', 'forecasts', 'site', 'day'],
    summary: 'What the signs speak for, and what to look for next',
    params: siteParams,
    input: suspectsInput,
    response: suspectsSchema,
  }),
  unknownFinds: endpoint({
    method: 'get',
    path: '/sites/:siteId/unknown-finds',
    restsOn: ['library'],
    summary: 'Finds that nobody could name, newest first',
    params: siteParams,
    input: z.object({}),
    response: z.array(unknownFindSchema),
  }),
  keepUnknown: endpoint({
    method: 'post',
    path: '/sites/:siteId/unknown-finds',
    summary: 'Keep what nobody can name, with what was seen of it, to be named later',
    params: siteParams,
    input: z.object({
      place: z.string().trim().max(100).default(''),
      blockId: id.nullable().default(null),
      seen: z.string().max(2000).default(''),
      notSeen: z.string().max(2000).default(''),
      howMany: z.int({ error: 'enter a whole number' }).min(1).max(10_000_000).nullable().default(null),
      photo: photoInput.nullable().default(null),
      note,
      /** null: the day on which it is stored. */
      foundOn: civilDateSchema.nullable().default(null),
      ...madeElsewhere,
    }),
    response: unknownFindSchema,
  }),
  nameUnknown: endpoint({
    method: 'patch',
    path: '/sites/:siteId/unknown-finds/:findId',
    summary: 'Say what a find turned out to be',
    params: findParams,
    input: z.object({ namedAs: z.string().nullable(), rowVersion }),
    response: unknownFindSchema,
  }),
  removeUnknown: endpoint({
    method: 'delete',
    path: '/sites/:siteId/unknown-finds/:findId',
    summary: 'Remove a find; can be restored',
    params: findParams,
    input: z.object({ rowVersion }),
    response: z.object({ id, rowVersion }),
  }),
  restoreUnknown: endpoint({
    method: 'post',
    path: '/sites/:siteId/unknown-finds/:findId/restore',
    summary: 'Undo the removal of a find',
    params: findParams,
    input: z.object({ rowVersion }),
    response: unknownFindSchema,
  }),
  checks: endpoint({
    method: 'get',
    path: '/sites/:siteId/identity-checks',
    restsOn: ['library', 'site'],
    summary: 'Checks of identity, newest first',
    params: siteParams,
    input: z.object({ organismId: z.string() }),
    response: z.array(identityCheckSchema),
  }),
  verdict: endpoint({
    method: 'get',
    path: '/sites/:siteId/library/organisms/:organismId/verdict',
    restsOn: ['library'],
    summary: 'What answers so far amount to; nothing is stored',
    params: organismParams,
    input: z.object({ answers: z.string().max(4000).default('') }),
    response: identityVerdictSchema,
  }),
  reportDuties: endpoint({
    method: 'get',
    path: '/sites/:siteId/report-duties',
    restsOn: ['library'],
    summary: 'Which organisms must be reported here, and which to check for it',
    params: siteParams,
    input: z.object({}),
    response: reportDutiesSchema,
  }),
  setReportable: endpoint({
    method: 'put',
    path: '/sites/:siteId/organisms/:organismId/reportable',
    summary: 'Put an organism on the list of those that must be reported here, or change whom to tell',
    params: organismParams,
    input: z.object({
      whom: text('whom to tell', 500),
      note,
      /** null where it is not on the list yet. */
      rowVersion: rowVersion.nullable(),
    }),
    response: reportableSchema,
  }),
  removeReportable: endpoint({
    method: 'delete',
    path: '/sites/:siteId/reportables/:reportableId',
    summary: 'Take an organism off the list; can be restored',
    params: reportableParams,
    input: z.object({ rowVersion }),
    response: z.object({ id, rowVersion }),
  }),
  restoreReportable: endpoint({
    method: 'post',
    path: '/sites/:siteId/reportables/:reportableId/restore',
    summary: 'Undo taking it off the list',
    params: reportableParams,
    input: z.object({ rowVersion }),
    response: reportableSchema,
  }),
  toldApart: endpoint({
    method: 'get',
    path: '/sites/:siteId/watches/:watchId/told-apart',
    restsOn: ['library', 'site', 'watches'],
    summary: 'Whether what is watched has been told from its protected look-alikes, and what to ask',
    params: watchParams,
    input: z.object({}),
    response: toldApartSchema,
  }),
  tellApart: endpoint({
    method: 'post',
    path: '/sites/:siteId/watches/:watchId/told-apart',
    summary: 'Say what was seen of the character that tells it from its protected look-alikes',
    params: watchParams,
    input: z.object({
      characterId: z.string({ error: 'choose a character' }),
      answer: z.enum(['here', 'others', 'unsure'], { error: 'say what was seen' }),
    }),
    response: toldApartSchema,
  }),
  check: endpoint({
    method: 'post',
    path: '/sites/:siteId/identity-checks',
    summary: 'Keep a check of identity as evidence, with a photo where there is one',
    params: siteParams,
    input: z.object({
      organismId: z.string(),
      blockId: id.nullable().default(null),
      answers: answers.refine((a) => Object.keys(a).length > 0, { error: 'answer at least one question' }),
      photo: photoInput.nullable().default(null),
      note,
      /** null: the day on which it is stored. */
      checkedOn: civilDateSchema.nullable().default(null),
      ...madeElsewhere,
    }),
    response: identityCheckSchema,
  }),
  removeCheck: endpoint({
    method: 'delete',
    path: '/sites/:siteId/identity-checks/:rowId',
    summary: 'Remove a check of identity; can be restored',
    params: rowParams,
    input: z.object({ rowVersion }),
    response: z.object({ id, rowVersion }),
  }),
  restoreCheck: endpoint({
    method: 'post',
    path: '/sites/:siteId/identity-checks/:rowId/restore',
    summary: 'Undo the removal of a check',
    params: rowParams,
    input: z.object({ rowVersion }),
    response: z.object({ id, rowVersion }),
  }),
  photos: endpoint({
    method: 'get',
    path: '/sites/:siteId/photos',
    restsOn: ['library'],
    summary: 'Photos of an organism and its look-alikes',
    params: siteParams,
    input: z.object({ organismId: z.string() }),
    response: z.array(photoSchema),
  }),
  confirmPhoto: endpoint({
    method: 'patch',
    path: '/sites/:siteId/photos/:rowId',
    summary: 'Say what a photo shows, and whether it belongs to the site’s reference set',
    params: rowParams,
    input: z.object({ shows: z.string().min(1), reference: z.boolean(), rowVersion }),
    response: photoSchema,
  }),
  removePhoto: endpoint({
    method: 'delete',
    path: '/sites/:siteId/photos/:rowId',
    summary: 'Remove a photo; can be restored',
    params: rowParams,
    input: z.object({ rowVersion }),
    response: z.object({ id, rowVersion }),
  }),
  restorePhoto: endpoint({
    method: 'post',
    path: '/sites/:siteId/photos/:rowId/restore',
    summary: 'Bring a removed photo back',
    params: rowParams,
    input: z.object({ rowVersion }),
    response: z.object({ id, rowVersion }),
  }),
  saveOrganism: endpoint({
    method: 'post',
    path: '/sites/:siteId/own-organisms',
    summary: 'Add an organism of the site’s own, or replace one',
    params: siteParams,
    input: ownInput,
    response: own,
  }),
  saveMethod: endpoint({
    method: 'post',
    path: '/sites/:siteId/own-methods',
    summary: 'Add a method of the site’s own, or replace one',
    params: siteParams,
    input: ownInput,
    response: own,
  }),
  overwritten: endpoint({
    method: 'get',
    path: '/sites/:siteId/own-entries/overwritten',
    restsOn: ['library'],
    summary: 'Own entries that another with the same id was laid over, before entries had ids of their own',
    params: siteParams,
    input: z.object({}),
    response: z.array(overwrittenSchema),
  }),
  bringBackOverwritten: endpoint({
    method: 'post',
    path: '/sites/:siteId/own-entries/overwritten/:auditId',
    summary: 'Bring an overwritten entry back beside the one that took its place',
    params: z.object({ siteId: id, auditId: z.coerce.number().int().min(1) }),
    input: z.object({}),
    response: own,
  }),
  removeOwn: endpoint({
    method: 'delete',
    path: '/sites/:siteId/own-entries/:kind/:rowId',
    summary: 'Remove an entry of the site’s own; can be restored',
    params: ownParams,
    input: z.object({ rowVersion }),
    response: z.object({ id, rowVersion }),
  }),
  restoreOwn: endpoint({
    method: 'post',
    path: '/sites/:siteId/own-entries/:kind/:rowId/restore',
    summary: 'Undo the removal of an own entry',
    params: ownParams,
    input: z.object({ rowVersion }),
    response: z.object({ id, rowVersion }),
  }),
}
