import { z } from 'zod'
import { civilDateSchema, id, madeElsewhere, note, number, rowVersion, takenInput, takenSchema } from './common.js'
import { endpoint } from './endpoint.js'
import { lineSchema } from './ground.js'
import { photoInput } from './library.js'

/** What was seen where a flag stands; gone is said only once what lies in the soil has died. */
export const flagSights = ['standing', 'regrowing', 'none', 'gone'] as const
export const flagStates = ['found', 'regrowing', 'back', 'treated', 'none-standing', 'gone'] as const
export type FlagState = (typeof flagStates)[number]
/** Share of the ground of a patch that the plant covers, in %. */
export const coverClasses = ['under-1', '1-5', '5-25', '25-50', '50-75', 'over-75'] as const
/** Heights by the hand that measures them. */
export const heightClasses = ['finger', 'hand', 'knee', 'hip'] as const
/** Of the pin or the tape. */
export const flagColours = ['red', 'orange', 'yellow', 'green', 'blue', 'pink', 'white'] as const

/** Whether it is likely to be there still: found here before, next to a find, or neither. */
export const flagPriors = ['likely', 'even', 'unlikely'] as const

/** What two people found one after the other on the same ground: how much one look overlooks. */
export const secondLookSchema = z.object({
  id,
  placeId: id,
  placeName: z.string(),
  organismId: z.string(),
  organismName: z.string(),
  lookedOn: civilDateSchema,
  first: z.int(),
  second: z.int(),
  both: z.int(),
  note: z.string(),
  personName: z.string(),
  rowVersion,
})
export type SecondLook = z.infer<typeof secondLookSchema>

export const flagVisitSchema = z.object({
  id,
  seenOn: civilDateSchema,
  sight: z.enum(flagSights),
  plants: z.int().nullable(),
  areaM2: z.number().nullable(),
  cover: z.enum(coverClasses).nullable(),
  /** Of the stages that its organism has. */
  stage: z.string().nullable(),
  height: z.enum(heightClasses).nullable(),
  /** What was done against it on this visit. */
  methodId: z.string().nullable(),
  methodName: z.string().nullable(),
  taken: takenSchema.nullable(),
  minutes: z.int().nullable(),
  dueOn: civilDateSchema.nullable(),
  photoId: id.nullable(),
  note: z.string(),
  personName: z.string(),
  rowVersion,
})
export type FlagVisit = z.infer<typeof flagVisitSchema>

const positionSchema = z.object({
  latitude: z.number(),
  longitude: z.number(),
  /** m by which it may lie off, as the device says. */
  accuracyM: z.number().nullable(),
})

export const flagSchema = z.object({
  id,
  /** null: nobody could name it yet. */
  organismId: z.string().nullable(),
  organismName: z.string().nullable(),
  placeId: id,
  placeName: z.string(),
  /** On the pin. */
  number: z.int(),
  colour: z.enum(flagColours).nullable(),
  position: positionSchema.nullable(),
  note: z.string(),
  /** How likely it is there still before anybody looks, as the user says; null: nobody said. */
  prior: z.enum(flagPriors).nullable(),
  foundOn: civilDateSchema,
  state: z.enum(flagStates),
  /** How often in a row nothing was found. */
  cleanLooks: z.int(),
  /** Until when what lies in the soil may be alive; null where that is not known. */
  bankAlive: z.object({ of: z.enum(['seed', 'root']), from: civilDateSchema, until: civilDateSchema }).nullable(),
  /** The newest visit. */
  last: flagVisitSchema,
  /** How likely nothing is left above the ground, by looks that found nothing and by what one look overlooks; null: that was not measured. */
  absent: z.object({ probability: z.number(), looks: z.int() }).nullable(),
  dueOn: civilDateSchema.nullable(),
  /** The newest first. */
  visits: z.array(flagVisitSchema),
  rowVersion,
})
export type Flag = z.infer<typeof flagSchema>

export const searchSchema = z.object({
  id,
  placeId: id,
  placeName: z.string(),
  organismIds: z.array(z.string()),
  organismNames: z.array(z.string()),
  searchedOn: civilDateSchema,
  minutes: z.int().nullable(),
  /** m across the way that were seen. */
  viewM: z.number().nullable(),
  track: z.array(lineSchema).nullable(),
  lengthM: z.number().nullable(),
  /** Share of the place that was seen: from the track, or as somebody said. */
  covered: z.object({ share: z.number(), from: z.enum(['track', 'said']) }).nullable(),
  /** Whether any of it was found. */
  found: z.boolean(),
  note: z.string(),
  personName: z.string(),
  rowVersion,
})
export type Search = z.infer<typeof searchSchema>

export const plantCount = (what: string) =>
  z
    .int({ error: `enter ${what} as a whole number` })
    .min(0, { error: 'must be at least 0' })
    .max(10_000_000, { error: 'must be at most 10,000,000' })
    .nullable()
    .default(null)
export const workMinutes = z
  .int({ error: 'enter the minutes as a whole number' })
  .min(0, { error: 'must be at least 0' })
  .max(1440, { error: 'must be at most 1440' })
  .nullable()
  .default(null)

const seen = {
  seenOn: civilDateSchema,
  sight: z.enum(flagSights, { error: 'say what is seen there' }),
  plants: plantCount('the plants'),
  areaM2: number('the area', 0.01, 10_000_000, 'm²').nullable().default(null),
  cover: z.enum(coverClasses).nullable().default(null),
  stage: z.string().max(40).nullable().default(null),
  height: z.enum(heightClasses).nullable().default(null),
  methodId: z.string().max(80).nullable().default(null),
  taken: takenInput(0.01),
  minutes: workMinutes,
  dueOn: civilDateSchema.nullable().default(null),
  photo: photoInput.nullable().default(null),
  note,
}
type Seen = z.ZodType<{
  sight: (typeof flagSights)[number]
  plants: number | null
  areaM2: number | null
  seenOn: string
  dueOn: string | null
}>
const sensible = <S extends Seen>(schema: S) =>
  schema
    .refine(({ sight, plants, areaM2 }) => sight === 'standing' || sight === 'regrowing' || (!plants && areaM2 === null), {
      path: ['plants'],
      error: 'where nothing stands there are no plants',
    })
    .refine(({ seenOn, dueOn }) => dueOn === null || dueOn > seenOn, { path: ['dueOn'], error: 'must lie after the day of the visit' })

export const flagPosition = z
  .object({
    latitude: number('the latitude', -90, 90),
    longitude: number('the longitude', -180, 180),
    accuracyM: number('the accuracy', 0, 100_000).nullable().default(null),
  })
  .nullable()
  .default(null)

const pin = {
  /** null: it is not known what it is. */
  organismId: z.string().max(80).nullable(),
  placeId: z.uuid({ error: 'choose where it stands' }),
  /** null: the next number of the site. */
  number: z
    .int({ error: 'enter the number of the pin as a whole number' })
    .min(1, { error: 'must be at least 1' })
    .max(1_000_000, { error: 'must be at most 1,000,000' })
    .nullable()
    .default(null),
  colour: z.enum(flagColours).nullable().default(null),
  position: flagPosition,
}

const searched = {
  placeId: z.uuid({ error: 'choose where you searched' }),
  organismIds: z.array(z.string().max(80)).min(1, { error: 'say what you looked for' }).max(30, { error: 'use at most 30' }),
  searchedOn: civilDateSchema,
  minutes: workMinutes,
  viewM: number('the width', 0.2, 200, 'm').nullable().default(null),
  /** Of the place, where no track tells it. */
  coveredShare: number('the share', 0.01, 1).nullable().default(null),
  found: z.boolean().default(false),
  note,
}

const siteParams = z.object({ siteId: id })
const flagParams = z.object({ siteId: id, flagId: id })
const visitParams = z.object({ siteId: id, visitId: id })
const searchParams = z.object({ siteId: id, searchId: id })
const secondLookParams = z.object({ siteId: id, secondLookId: id })
const found = (who: string) =>
  z
    .int({ error: `enter what ${who} found as a whole number` })
    .min(0, { error: 'must be at least 0' })
    .max(100_000, { error: 'must be at most 100,000' })
const version = z.object({ rowVersion })
const ok = z.object({ id, rowVersion })

export const flags = {
  list: endpoint({
    method: 'get',
    path: '/sites/:siteId/flags',
    restsOn: ['counts', 'site', 'library', 'day'],
    summary: 'Patches that were flagged, as they stood on a day, and the searches before it',
    params: siteParams,
    input: z.object({
      /** As it was known on that day; without it today. */
      on: civilDateSchema.optional(),
    }),
    response: z.object({
      flags: z.array(flagSchema),
      /** The newest first. */
      searches: z.array(searchSchema),
      /** By organism and season, the newest first. */
      years: z.array(
        z.object({
          organismId: z.string(),
          season: civilDateSchema,
          /** Flags at which it stood on some visit of that season. */
          standing: z.int(),
          /** Flags that were visited and had none all season. */
          clean: z.int(),
          /** m² of what stood, each flag at its largest; null where no size was written down. */
          areaM2: z.number().nullable(),
          minutes: z.int(),
        }),
      ),
      /** Organisms whose plants flower lower from pass to pass, with the days of these passes. */
      /** How much one look overlooks, by organism, from two people on the same ground. */
      detect: z.array(z.object({ organismId: z.string(), share: z.number(), lower: z.number() })),
      secondLooks: z.array(secondLookSchema),
      smaller: z.array(z.object({ organismId: z.string(), organismName: z.string(), passes: z.array(civilDateSchema) })),
    }),
  }),
  add: endpoint({
    method: 'post',
    path: '/sites/:siteId/flags',
    summary: 'Flag a patch that was found, with what is seen there',
    params: siteParams,
    input: sensible(z.object({ ...pin, ...seen, ...madeElsewhere })),
    response: ok,
  }),
  update: endpoint({
    method: 'patch',
    path: '/sites/:siteId/flags/:flagId',
    summary: 'Correct a flag, or name what it marks; its visits stay',
    params: flagParams,
    input: z.object({ ...pin, note, prior: z.enum(flagPriors).nullable().default(null), rowVersion }),
    response: ok,
  }),
  addSecondLook: endpoint({
    method: 'post',
    path: '/sites/:siteId/second-looks',
    summary: 'Record what two people found one after the other on the same ground',
    params: siteParams,
    input: z
      .object({
        placeId: z.uuid({ error: 'choose where you looked' }),
        organismId: z.string({ error: 'choose what you looked for' }).min(1, { error: 'choose what you looked for' }).max(80),
        lookedOn: civilDateSchema,
        first: found('the first one'),
        second: found('the second one'),
        both: found('both'),
        note,
      })
      .refine(({ first, second, both }) => both <= Math.min(first, second), {
        path: ['both'],
        error: 'cannot be more than one of them found',
      }),
    response: ok,
  }),
  removeSecondLook: endpoint({
    method: 'delete',
    path: '/sites/:siteId/second-looks/:secondLookId',
    summary: 'Remove such a record; it can be restored',
    params: secondLookParams,
    input: version,
    response: ok,
  }),
  restoreSecondLook: endpoint({
    method: 'post',
    path: '/sites/:siteId/second-looks/:secondLookId/restore',
    summary: 'Undo the removal of such a record',
    params: secondLookParams,
    input: version,
    response: ok,
  }),
  remove: endpoint({
    method: 'delete',
    path: '/sites/:siteId/flags/:flagId',
    summary: 'Remove a flag with its visits; it can be restored',
    params: flagParams,
    input: version,
    response: ok,
  }),
  restore: endpoint({
    method: 'post',
    path: '/sites/:siteId/flags/:flagId/restore',
    summary: 'Undo the removal of a flag',
    params: flagParams,
    input: version,
    response: ok,
  }),
  visit: endpoint({
    method: 'post',
    path: '/sites/:siteId/flag-visits',
    summary: 'Record what is seen and done at a flag',
    params: siteParams,
    input: sensible(z.object({ flagId: z.uuid({ error: 'choose the flag' }), ...seen, ...madeElsewhere })),
    response: ok,
  }),
  removeVisit: endpoint({
    method: 'delete',
    path: '/sites/:siteId/flag-visits/:visitId',
    summary: 'Remove a visit; it can be restored. The first is the flag itself',
    params: visitParams,
    input: version,
    response: ok,
  }),
  restoreVisit: endpoint({
    method: 'post',
    path: '/sites/:siteId/flag-visits/:visitId/restore',
    summary: 'Undo the removal of a visit',
    params: visitParams,
    input: version,
    response: ok,
  }),
  addSearch: endpoint({
    method: 'post',
    path: '/sites/:siteId/searches',
    summary: 'Record a search with its effort, also one that found nothing',
    params: siteParams,
    input: z.object({
      ...searched,
      track: z.array(lineSchema).max(20, { error: 'has more than 20 parts' }).nullable().default(null),
      ...madeElsewhere,
    }),
    response: ok,
  }),
  removeSearch: endpoint({
    method: 'delete',
    path: '/sites/:siteId/searches/:searchId',
    summary: 'Remove a search; it can be restored',
    params: searchParams,
    input: version,
    response: ok,
  }),
  restoreSearch: endpoint({
    method: 'post',
    path: '/sites/:siteId/searches/:searchId/restore',
    summary: 'Undo the removal of a search',
    params: searchParams,
    input: version,
    response: ok,
  }),
  readTrack: endpoint({
    method: 'post',
    path: '/sites/:siteId/track-preview',
    summary: 'Read the tracks of a GPX, GeoJSON or CSV file; nothing is stored',
    params: siteParams,
    input: z.object({
      text: z.string().min(1, { error: 'the file is empty' }).max(1_900_000, { error: 'is over 1.9 MB; send it in parts' }),
    }),
    response: z.object({ tracks: z.array(z.object({ name: z.string(), line: lineSchema, lengthM: z.number() })) }),
  }),
}
