import { MS_PER_DAY } from '@bocado/core/time'
import { MONTHLY_RAIN_LIMITS, READING_LIMITS } from '@bocado/core/limits'
import { z } from 'zod'
import { aspects } from './aspects.js'
import { civilDateSchema, id, instantSchema, note, number, rowVersion, text } from './common.js'
import { chemicalPolicies } from './rules.js'
import { endpoint } from './endpoint.js'
import { roles } from './rights.js'

export const blockKinds = ['orchard', 'vineyard', 'field', 'bed', 'tunnel', 'pots', 'natural-area'] as const
export const soilTextures = ['sand', 'loamy-sand', 'sandy-loam', 'loam', 'silt-loam', 'clay-loam', 'clay'] as const
export const soilCovers = ['bare', 'covered'] as const
export const wetEventKinds = ['overhead-watering', 'condensation', 'hail'] as const
export const unitSystems = ['metric', 'us'] as const

/** Somebody of a site, and whether they have an account of their own. */
export const personSchema = z.object({
  id,
  name: z.string(),
  role: z.enum(roles),
  /** Holds an applicator's licence. */
  licensed: z.boolean(),
  licenceNumber: z.string(),
  /** Its last day; null where nobody said. */
  licenceUntil: civilDateSchema.nullable(),
  signsIn: z.boolean(),
  /** Of a volunteer: the one day, and the blocks. */
  help: z.object({ on: civilDateSchema, blockIds: z.array(id) }).nullable(),
  rowVersion,
})
export type Person = z.infer<typeof personSchema>

/** Who owns sites, and beside them a shelf, organisms and methods that all of them have. */
export const holdingSchema = z.object({ id, name: z.string(), sites: z.int(), rowVersion })
export type Holding = z.infer<typeof holdingSchema>

/** What one looks after: a garden, a farm, land such as a park or reserve, or other people's ground. It sets what is shown and asked first. */
export const siteKinds = ['garden', 'farm', 'land', 'others'] as const
export type SiteKind = (typeof siteKinds)[number]

export const siteSchema = z.object({
  id,
  holding: holdingSchema,
  name: z.string(),
  kind: z.enum(siteKinds),
  place: z.string(),
  latitude: z.number().nullable(),
  longitude: z.number().nullable(),
  elevationM: z.number().nullable(),
  /** Who changed what is kept so long; null: always. Of treatments it is always kept. */
  auditYears: z.int().nullable(),
  timeZone: z.string(),
  units: z.enum(unitSystems),
  /** Whose rules hold here, and when the site's list of what must be reported was last held against them; null: nobody did yet. */
  rules: z.object({ country: z.string(), region: z.string(), checkedOn: civilDateSchema.nullable() }),
  /** How it uses chemicals, and the organic certificate that it holds, where it does. */
  policy: z.object({ chemicals: z.enum(chemicalPolicies), certificate: z.string(), certifiedOn: civilDateSchema.nullable() }),
  /** Whether first finds, catches and blooms are told to other sites of the server that do the same. */
  sharesFirst: z.boolean(),
  rowVersion,
  /** The site's day now; in the demonstration the demo clock's. */
  today: civilDateSchema,
  season: z.object({ start: civilDateSchema, end: civilDateSchema }),
  /** First days of the seasons that something is kept of, and of the one now; the newest first. */
  seasons: z.array(civilDateSchema),
  /** Set where it is kept to be looked at only. */
  archivedAt: instantSchema.nullable(),
  /** How often each aspect of it has changed, for whoever wants to know whether what they hold is fresh. */
  versions: z.partialRecord(z.enum(aspects), z.int()),
  people: z.array(personSchema),
})
export type Site = z.infer<typeof siteSchema>

const isTimeZone = (zone: string): boolean => {
  try {
    new Intl.DateTimeFormat('en', { timeZone: zone })
    return true
  } catch {
    return false
  }
}

/** Shorter than this it is kept nowhere: what law asks for records is often three years, and may be more. */
export const AUDIT_YEARS = { least: 3, most: 50 } as const

const siteFields = {
  name: text('the name of the site', 120),
  kind: z.enum(siteKinds, { error: 'choose what you look after' }).default('farm'),
  place: text('where it is', 200),
  timeZone: z
    .string({ error: 'choose a time zone' })
    .refine(isTimeZone, { error: 'choose a time zone from the list, such as America/Los_Angeles' }),
  units: z.enum(unitSystems, { error: 'choose the units' }),
  latitude: number('the latitude', -90, 90).nullable().default(null),
  longitude: number('the longitude', -180, 180).nullable().default(null),
  elevationM: number('the elevation', -450, 6000, 'm').nullable().default(null),
  auditYears: z
    .int({ error: 'enter whole years, or leave it empty' })
    .min(AUDIT_YEARS.least, { error: `keep it at least ${AUDIT_YEARS.least} years` })
    .max(AUDIT_YEARS.most, { error: `enter at most ${AUDIT_YEARS.most} years, or leave it empty: then it is always kept` })
    .nullable()
    .default(null),
}
/** The one day on which a volunteer works, and in which blocks. */
export const helpInput = z.object({
  on: civilDateSchema,
  blockIds: z.array(z.uuid()).min(1, { error: 'choose at least one block' }).max(50, { error: 'use at most 50 blocks' }),
})
type Helps = z.ZodType<{ role: (typeof roles)[number]; help: z.infer<typeof helpInput> | null }>
/** A volunteer works on one day, in some blocks; nobody else is held to one. */
export const helpingOnly = <S extends Helps>(schema: S) =>
  schema.refine(({ role, help }) => role !== 'volunteer' || help !== null, { path: ['help'], error: 'choose the day and the blocks' })
const personFields = z.object({
  name: text('a name', 120),
  role: z.enum(roles, { error: 'choose a role' }),
  licensed: z.boolean().default(false),
  licenceNumber: z.string().trim().max(60, { error: 'use at most 60 characters' }).default(''),
  licenceUntil: civilDateSchema.nullable().default(null),
  help: helpInput.nullable().default(null),
})
export const personInput = helpingOnly(personFields)
/** Somebody new, or with `personId` somebody who works at another site of the holding. */
export const memberInput = helpingOnly(personFields.extend({ personId: id.nullable().default(null) }))
/** Without a holding the site begins one of its own. Who starts it owns it. */
export const siteInput = z.object({ ...siteFields, holdingId: z.uuid().nullable().default(null) })
const ruler = z.string().trim().max(80, { error: 'use at most 80 characters' })
/** Rules of another country or region are checked anew. */
export const rulesInput = z.object({ country: ruler, region: ruler, checkedOn: civilDateSchema.nullable().default(null), rowVersion })
export const policyInput = z
  .object({
    chemicals: z.enum(chemicalPolicies, { error: 'choose how chemicals are used here' }),
    certificate: z.string().trim().max(120, { error: 'use at most 120 characters' }).default(''),
    certifiedOn: civilDateSchema.nullable().default(null),
    rowVersion,
  })
  .refine(({ chemicals, certificate }) => chemicals !== 'organic' || certificate !== '', {
    path: ['certificate'],
    error: 'name the certificate',
  })
export const sitePatch = z.object({ ...siteFields, kind: z.enum(siteKinds), rowVersion })

export const checkAreaSchema = z.object({ id, blockId: id, name: z.string(), note: z.string(), rowVersion })
export type CheckArea = z.infer<typeof checkAreaSchema>

/** How a place is thought of when hours are short: 1 first, 3 last; null: nobody ranked it. */
export const rankedSchema = {
  rank: z.int().min(1).max(3).nullable(),
  /** What grows there gets away from there: by water, an edge, machines. */
  spreads: z.boolean(),
}

export const blockSchema = z.object({
  id,
  name: z.string(),
  kind: z.enum(blockKinds),
  areaHa: z.number().nullable(),
  grows: z.string(),
  /** The station that was chosen; null: the nearest. */
  stationId: id.nullable(),
  /** The station that it follows. */
  follows: z.object({ stationId: id, name: z.string(), how: z.enum(['chosen', 'nearest', 'first']), km: z.number().nullable() }).nullable(),
  latitude: z.number().nullable(),
  longitude: z.number().nullable(),
  /** °C by which its days' minima and maxima differ from the station's. */
  offsetMin: z.number(),
  offsetMax: z.number(),
  soilTexture: z.enum(soilTextures).nullable(),
  soilCover: z.enum(soilCovers),
  ...rankedSchema,
  rowVersion,
  checkAreas: z.array(checkAreaSchema),
})
export type Block = z.infer<typeof blockSchema>

export const blockInput = z.object({
  name: text('the name of the block', 120),
  kind: z.enum(blockKinds, { error: 'choose what kind of place it is' }),
  areaHa: number('the area', 0.000_01, 100_000, 'ha').nullable().default(null),
  grows: z.string().trim().max(200, { error: 'use at most 200 characters' }).default(''),
  stationId: id.nullable().default(null),
  latitude: number('the latitude', -90, 90).nullable().default(null),
  longitude: number('the longitude', -180, 180).nullable().default(null),
  offsetMin: number('the difference of the nights', -25, 25, '°C difference').default(0),
  offsetMax: number('the difference of the days', -25, 25, '°C difference').default(0),
  soilTexture: z.enum(soilTextures).nullable().default(null),
  soilCover: z.enum(soilCovers).default('bare'),
})

/** A time in which leaves were wet without rain. */
export const wetEventInput = z
  .object({
    kind: z.enum(wetEventKinds, { error: 'choose what made it wet' }),
    startedAt: instantSchema,
    endedAt: instantSchema,
    waterMm: number('the water that reached the ground', 0, 300, 'mm').nullable().default(null),
    note,
  })
  .refine((e) => Date.parse(e.startedAt) < Date.parse(e.endedAt), { error: 'must end after it began', path: ['endedAt'] })
  .refine((e) => Date.parse(e.endedAt) - Date.parse(e.startedAt) <= 7 * MS_PER_DAY, {
    error: 'is longer than a week; enter each watering by itself',
    path: ['endedAt'],
  })
export const wetEventSchema = z.object({
  id,
  blockId: id,
  kind: z.enum(wetEventKinds),
  startedAt: instantSchema,
  endedAt: instantSchema,
  waterMm: z.number().nullable(),
  note: z.string(),
  by: z.string(),
  rowVersion,
})
export type WetEvent = z.infer<typeof wetEventSchema>

const monthNormal = z
  .object({
    min: number('the mean minimum', READING_LIMITS.temperature.least, READING_LIMITS.temperature.most, '°C'),
    max: number('the mean maximum', READING_LIMITS.temperature.least, READING_LIMITS.temperature.most, '°C'),
    rain: number('the rain', MONTHLY_RAIN_LIMITS.least, MONTHLY_RAIN_LIMITS.most, 'mm'),
  })
  .refine((m) => m.min <= m.max, { error: 'the minimum is above the maximum', path: ['min'] })

/** Twelve monthly means, January first, and where they are from. */
export const normalsInput = z.object({
  months: z.array(monthNormal).length(12, { error: 'enter all twelve months' }),
  source: z.string().trim().max(200, { error: 'use at most 200 characters' }).default(''),
  /** null where the site has none yet. */
  rowVersion: rowVersion.nullable(),
})
export const normalsSchema = z.object({
  months: z.array(z.object({ min: z.number(), max: z.number(), rain: z.number() })),
  source: z.string(),
  by: z.string(),
  rowVersion,
})
export type MonthlyNormals = z.infer<typeof normalsSchema>

export const checkAreaInput = z.object({ name: text('the name of the check area', 120), note })

const siteParams = z.object({ siteId: id })
const ok = z.object({ id, rowVersion })
const personParams = z.object({ siteId: id, personId: id })

const normalsEndpoints = {
  normals: endpoint({
    method: 'get',
    path: '/sites/:siteId/monthly-normals',
    restsOn: ['site', 'weather', 'stations'],
    summary: 'Monthly normals typed for a site, and those of its own stations to compare with',
    params: siteParams,
    input: z.object({}),
    response: z.object({
      typed: normalsSchema.nullable(),
      /** Of the station with the longest history; each month with the years behind it. */
      own: z
        .object({
          stationName: z.string(),
          months: z.array(z.object({ years: z.int(), min: z.number(), max: z.number(), rain: z.number().nullable() }).nullable()),
        })
        .nullable(),
    }),
  }),
  typeNormals: endpoint({
    method: 'put',
    path: '/sites/:siteId/monthly-normals',
    summary: 'Enter the monthly normals of a site',
    params: siteParams,
    input: normalsInput,
    response: normalsSchema,
  }),
  removeNormals: endpoint({
    method: 'delete',
    path: '/sites/:siteId/monthly-normals',
    summary: 'Take the typed normals away',
    params: siteParams,
    input: z.object({ rowVersion }),
    response: ok,
  }),
}

export const sites = {
  ...normalsEndpoints,
  list: endpoint({
    method: 'get',
    path: '/sites',
    restsOn: ['site', 'day'],
    summary: 'One’s sites, with the people who work there',
    params: z.object({}),
    input: z.object({}),
    response: z.array(siteSchema),
  }),
  create: endpoint({
    method: 'post',
    path: '/sites',
    summary: 'Start a site; who starts it owns it',
    params: z.object({}),
    input: siteInput,
    response: siteSchema,
  }),
  update: endpoint({
    method: 'patch',
    path: '/sites/:siteId',
    summary: 'Change a site',
    params: siteParams,
    input: sitePatch,
    response: siteSchema,
  }),
  setRules: endpoint({
    method: 'patch',
    path: '/sites/:siteId/rules',
    summary: 'Say whose rules hold at a site, and that its list of what must be reported was held against them',
    params: siteParams,
    input: rulesInput,
    response: siteSchema,
  }),
  setPolicy: endpoint({
    method: 'patch',
    path: '/sites/:siteId/policy',
    summary: 'Say how a site uses chemicals, and which organic certificate it holds',
    params: siteParams,
    input: policyInput,
    response: siteSchema,
  }),
  shareFirst: endpoint({
    method: 'patch',
    path: '/sites/:siteId/share-first',
    summary: 'Say whether first finds, catches and blooms are told to other sites of the server that do the same',
    params: siteParams,
    input: z.object({ sharesFirst: z.boolean(), rowVersion }),
    response: siteSchema,
  }),
  nameHolding: endpoint({
    method: 'patch',
    path: '/sites/:siteId/holding',
    summary: 'Name the holding of a site',
    params: siteParams,
    input: z.object({ name: text('the name of the holding', 120), rowVersion }),
    response: holdingSchema,
  }),
  addPerson: endpoint({
    method: 'post',
    path: '/sites/:siteId/people',
    summary: 'Add a person',
    params: siteParams,
    input: memberInput,
    response: personSchema,
  }),
  changePerson: endpoint({
    method: 'patch',
    path: '/sites/:siteId/people/:personId',
    summary: 'Change a person’s name, role or licence',
    params: personParams,
    input: helpingOnly(personFields.extend({ rowVersion })),
    response: personSchema,
  }),
  removePerson: endpoint({
    method: 'delete',
    path: '/sites/:siteId/people/:personId',
    summary: 'A person leaves the site; what they recorded keeps their name',
    params: personParams,
    input: z.object({ rowVersion }),
    response: ok,
  }),
  restorePerson: endpoint({
    method: 'post',
    path: '/sites/:siteId/people/:personId/restore',
    summary: 'Undo that a person left',
    params: personParams,
    input: z.object({ rowVersion }),
    response: personSchema,
  }),
  archive: endpoint({
    method: 'post',
    path: '/sites/:siteId/archive',
    summary: 'Keep a site to be looked at only, or take it up again',
    params: siteParams,
    input: z.object({ archived: z.boolean(), rowVersion }),
    response: siteSchema,
  }),
  remove: endpoint({
    method: 'delete',
    path: '/sites/:siteId',
    summary: 'Remove an archived site; can be restored',
    params: siteParams,
    input: z.object({ rowVersion }),
    response: ok,
  }),
  restore: endpoint({
    method: 'post',
    path: '/sites/:siteId/restore',
    summary: 'Undo the removal of a site',
    params: siteParams,
    input: z.object({ rowVersion }),
    response: siteSchema,
  }),
}

const blockParams = z.object({ siteId: id, blockId: id })
const wetEventParams = z.object({ siteId: id, wetEventId: id })
export const blocks = {
  wetEvents: endpoint({
    method: 'get',
    path: '/sites/:siteId/wet-events',
    restsOn: ['site'],
    summary: 'Overhead watering and condensation of a season, newest first',
    params: siteParams,
    input: z.object({ season: civilDateSchema }),
    response: z.array(wetEventSchema),
  }),
  addWetEvent: endpoint({
    method: 'post',
    path: '/sites/:siteId/blocks/:blockId/wet-events',
    summary: 'Enter a time in which leaves were wet without rain',
    params: blockParams,
    input: wetEventInput,
    response: wetEventSchema,
  }),
  removeWetEvent: endpoint({
    method: 'delete',
    path: '/sites/:siteId/wet-events/:wetEventId',
    summary: 'Remove a wet event; it can be restored',
    params: wetEventParams,
    input: z.object({ rowVersion }),
    response: ok,
  }),
  restoreWetEvent: endpoint({
    method: 'post',
    path: '/sites/:siteId/wet-events/:wetEventId/restore',
    summary: 'Undo the removal of a wet event',
    params: wetEventParams,
    input: z.object({ rowVersion }),
    response: wetEventSchema,
  }),
  list: endpoint({
    method: 'get',
    path: '/sites/:siteId/blocks',
    restsOn: ['site', 'stations'],
    summary: 'Blocks with their check areas',
    params: siteParams,
    input: z.object({}),
    response: z.array(blockSchema),
  }),
  create: endpoint({
    method: 'post',
    path: '/sites/:siteId/blocks',
    summary: 'Add a block',
    params: siteParams,
    input: blockInput,
    response: blockSchema,
  }),
  update: endpoint({
    method: 'patch',
    path: '/sites/:siteId/blocks/:blockId',
    summary: 'Change a block',
    params: blockParams,
    input: blockInput.extend({ rowVersion }),
    response: blockSchema,
  }),
  remove: endpoint({
    method: 'delete',
    path: '/sites/:siteId/blocks/:blockId',
    summary: 'Remove a block; it can be restored',
    params: blockParams,
    input: z.object({ rowVersion }),
    response: ok,
  }),
  restore: endpoint({
    method: 'post',
    path: '/sites/:siteId/blocks/:blockId/restore',
    summary: 'Undo the removal of a block',
    params: blockParams,
    input: z.object({ rowVersion }),
    response: blockSchema,
  }),
  addCheckArea: endpoint({
    method: 'post',
    path: '/sites/:siteId/blocks/:blockId/check-areas',
    summary: 'Add an untreated check area',
    params: blockParams,
    input: checkAreaInput,
    response: checkAreaSchema,
  }),
}
