import { DAILY_RAIN_LIMITS, READING_LIMITS, type ReadingLimits } from '@bocado/core/limits'
import { z } from 'zod'
import { civilDateSchema, id, instantSchema, number, rowVersion, text } from './common.js'
import { endpoint } from './endpoint.js'
import type { RefusalUnit } from './refusals.js'
import { soilTextures } from './sites.js'
import { correctionInput, correctionPreviewSchema, correctionSchema, stationInput, stationPatch, stationSchema } from './stations.js'
import { checkedVariables, weatherVariables } from './variables.js'

export const separators = [',', ';', '\t', '|'] as const
export const dateOrders = ['ymd', 'mdy', 'dmy'] as const
export const clocks = ['standard', 'wall', 'utc', 'fixed'] as const
export const stamps = ['begins', 'ends'] as const

const columnIndex = z.int().min(0).max(200)

export const mappingSchema = z.object({
  separator: z.enum(separators),
  decimal: z.enum(['.', ',']),
  /** Lines above the first reading. */
  headerLines: z.int().min(0).max(100),
  interval: z.enum(['hourly', 'daily']),
  dateColumn: columnIndex,
  /** Where the time stands apart from the date. */
  timeColumn: columnIndex.nullable(),
  /** null: the file allows both readings and somebody must say. */
  dateOrder: z.enum(dateOrders).nullable(),
  clock: z.enum(clocks),
  /** Of a fixed clock: minutes east of UTC. */
  offsetMinutes: z.int().min(-720).max(840).nullable().default(null),
  /** Whether the time of a line is the beginning of what it covers, or its end. */
  stamp: z.enum(stamps).default('begins'),
  columns: z.array(z.object({ variable: z.enum(weatherVariables), column: columnIndex, unit: z.string() })).max(9),
  /** Somebody has looked at the units and says that they are right, whatever the place is like. */
  unitsChecked: z.boolean().optional(),
})
export type WeatherMapping = z.infer<typeof mappingSchema>

/** What somebody said of how a file is written, from which everything else is guessed again. */
export const writtenSchema = z.object({
  separator: z.enum(separators).optional(),
  headerLines: z.int().min(0).max(100).optional(),
})
export type Written = z.infer<typeof writtenSchema>

export const understoodRowSchema = z.object({
  line: z.int(),
  /** Standard time of the station, as YYYY-MM-DD or YYYY-MM-DD HH:MM. */
  at: z.string().nullable(),
  values: z.partialRecord(z.enum(weatherVariables), z.number()),
  problem: z.string().nullable(),
})

export const filePreviewSchema = z.object({
  mapping: mappingSchema,
  columns: z.array(
    z.object({
      index: z.int(),
      name: z.string(),
      samples: z.array(z.string()),
      /** The likely unit of each variable, should the column hold it. */
      units: z.partialRecord(z.enum(weatherVariables), z.string()),
    }),
  ),
  rows: z.array(understoodRowSchema),
  /** What has to be settled before the file can be imported. */
  questions: z.array(z.object({ field: z.string(), message: z.string() })),
})
export type FilePreview = z.infer<typeof filePreviewSchema>

export const importResultSchema = z.object({
  id,
  stationId: id,
  fileName: z.string(),
  importedAt: instantSchema,
  personName: z.string(),
  interval: z.enum(['hourly', 'daily']),
  lines: z.int(),
  new: z.int(),
  changed: z.int(),
  unchanged: z.int(),
  rejected: z.int(),
  /** Lines of which a value could not be read and is missing. */
  unread: z.int().default(0),
  /** Lines that repeat another line word for word. */
  repeated: z.int(),
  /** Readings per hour where finer ones were averaged; 1 otherwise. */
  readingsPerHour: z.int(),
  first: civilDateSchema.nullable(),
  last: civilDateSchema.nullable(),
  /** Days of it that somebody typed, and for which that goes on to hold. */
  typedHold: z.int().default(0),
  /** Somebody took it back: nothing of it is in use any more. */
  undone: z.object({ at: instantSchema, by: z.string() }).nullable().default(null),
})
export type ImportResult = z.infer<typeof importResultSchema>

/** What an import sends while it runs, a JSON object a line; the last line is a result or a problem. */
export const importProgressSchema = z.object({ phase: z.enum(['reading', 'storing']), share: z.number().min(0).max(1) })
export type ImportProgress = z.infer<typeof importProgressSchema>

const pushedReading = z
  .strictObject({
    at: instantSchema,
    temperature: number('a temperature', -60, 58, '°C').optional(),
    humidity: number('the humidity', 0, 100).optional(),
    rain: number('the rain', 0, 200, 'mm').optional(),
    wind: number('the wind', 0, 75, 'm/s').optional(),
    /** From which it blew, degrees clockwise from north. */
    direction: number('the direction', 0, 360).optional(),
    wetness: number('the wetness', 0, 1).optional(),
    soil: number('the soil temperature', -30, 60, '°C').optional(),
  })
  .refine((r) => [r.temperature, r.humidity, r.rain, r.wind, r.direction, r.wetness, r.soil].some((v) => v !== undefined), {
    error: 'holds no value',
  })

/** What a device pushes: one reading, or several, in °C, %, mm, m/s and degrees from which it blew, share of the hour wet and °C of the soil, each of the hour in which `at` lies. */
export const pushInput = z.preprocess(
  (body) => (body !== null && typeof body === 'object' && !Array.isArray(body) && !('readings' in body) ? { readings: [body] } : body),
  z.strictObject({
    readings: z.array(pushedReading).min(1, { error: 'holds no reading' }).max(5000, { error: 'send at most 5000 readings at once' }),
  }),
)
export type PushInput = z.output<typeof pushInput>

/** One day as it is known, and what follows from it; null where it is not known. SI units. */
export const dayWeatherSchema = z.object({
  day: civilDateSchema,
  min: z.number().nullable(),
  max: z.number().nullable(),
  rain: z.number().nullable(),
  /** Share of the day's temperatures that rests on filled readings. */
  filled: z.number(),
  /** Hours that leaves were wet, and hours of which it is not known; null where the station has no hours that day. */
  wet: z.number().nullable(),
  wetUnknown: z.number(),
  /** °C at 10 cm: mean of the probe, otherwise estimated from the air. */
  soil: z.number().nullable(),
  /** Share of the water that plants can use, in the root zone and in the upper 5 cm. */
  rootZone: z.number().nullable(),
  surface: z.number().nullable(),
  /** Chill portions since 120 days before the season. */
  chill: z.number().nullable(),
})
export type DayWeather = z.infer<typeof dayWeatherSchema>

export const readingFlags = ['range', 'step', 'flat-line', 'spike', 'gap', 'drift', 'unseen'] as const
export const fillMethods = ['interpolated', 'neighbour', 'climatology', 'unknown'] as const
export const doubtDecisions = ['open', 'accepted', 'overruled'] as const

const span = z.object({ low: z.number(), high: z.number() }).nullable()

/** Consecutive hours of one variable that are doubted for one reason, and what stands in for them. */
export const doubtSchema = z.object({
  variable: z.enum(checkedVariables),
  flag: z.enum(readingFlags),
  /** First and last hour, in UTC. */
  from: instantSchema,
  to: instantSchema,
  hours: z.int(),
  read: span,
  standsIn: span,
  methods: z.array(z.enum(fillMethods)),
  decision: z.enum(doubtDecisions),
  decidedBy: z.string().nullable(),
})
export type Doubt = z.infer<typeof doubtSchema>

export const doubtDecisionInput = z.object({
  decision: z.enum(doubtDecisions),
  doubts: z
    .array(z.object({ variable: z.enum(checkedVariables), from: instantSchema, to: instantSchema }))
    .min(1, { error: 'choose at least one' })
    .max(500, { error: 'at most 500 at once' }),
})

const within = (what: string, { least, most }: ReadingLimits, unit?: RefusalUnit) => number(what, least, most, unit)
const temperature = within('a temperature', READING_LIMITS.temperature, '°C')
const hours = <S extends z.ZodType>(values: z.ZodArray<S>) =>
  values.min(24, { error: 'give at least 24 hours' }).max(384, { error: 'give at most 384 hours' })
const hourlyValues = (what: string, limits: ReadingLimits) => hours(z.array(within(what, limits)))
const hourlyDirections = hours(z.array(within('the direction', READING_LIMITS.direction).nullable()))

/** A forecast of several members, hourly from `firstHour` on, in °C, %, mm, m/s and degrees from which the wind blows. */
export const forecastIssueInput = z
  .strictObject({
    issuedAt: instantSchema,
    firstHour: instantSchema,
    members: z
      .array(
        z.strictObject({
          temperature: hourlyValues('a temperature', READING_LIMITS.temperature),
          humidity: hourlyValues('the humidity', READING_LIMITS.humidity).optional(),
          rain: hourlyValues('the rain', READING_LIMITS.rain).optional(),
          wind: hourlyValues('the wind', READING_LIMITS.wind).optional(),
          /** From which it blows; null for an hour of which the service gives none. */
          direction: hourlyDirections.optional(),
        }),
      )
      .min(1, { error: 'holds no member' })
      .max(60, { error: 'give at most 60 members' }),
  })
  .refine(({ members }) => new Set(members.flatMap((m) => Object.values(m).flatMap((values) => values?.length ?? []))).size === 1, {
    error: 'every member and variable needs the same number of hours',
    path: ['members'],
  })
export type ForecastIssueInput = z.output<typeof forecastIssueInput>

export const typedDaysInput = z.object({
  days: z
    .array(
      z
        .object({
          day: civilDateSchema,
          min: temperature,
          max: temperature,
          rain: within('the rain', DAILY_RAIN_LIMITS, 'mm').nullable().default(null),
        })
        .refine((d) => d.min <= d.max, { error: 'the minimum is above the maximum', path: ['min'] }),
    )
    .min(1, { error: 'enter at least one day' })
    .max(400, { error: 'enter at most 400 days at once' }),
})

export const heatMethods = [
  'single-sine',
  'double-sine',
  'single-triangle',
  'double-triangle',
  'average',
  'clamped-average',
  'hourly',
] as const
export const rateCurves = ['briere', 'beta'] as const
export const heatCutoffs = ['horizontal', 'intermediate', 'vertical'] as const

const fromText = (what: string, least: number, most: number) =>
  z.coerce.number({ error: `enter ${what} as a number` }).pipe(number(what, least, most))

/** How heat is summed and from when; `target` is the sum at which the methods are compared. Temperatures in °C. */
export const heatQuery = z
  .object({
    blockId: id.optional(),
    season: civilDateSchema,
    from: civilDateSchema,
    method: z.enum(heatMethods, { error: 'choose a method' }),
    lower: fromText('the lower threshold', -20, 40),
    upper: fromText('the upper threshold', -10, 60).optional(),
    cutoff: z.enum(heatCutoffs).default('horizontal'),
    /** Where curved rates end; needs an upper threshold below it. */
    limit: fromText('the temperature that stops all development', 0, 60).optional(),
    target: fromText('the sum', 1, 10_000),
  })
  .refine((q) => q.upper === undefined || q.upper > q.lower, { error: 'must be above the lower threshold', path: ['upper'] })
  .refine((q) => q.limit === undefined || (q.upper !== undefined && q.limit > q.upper), {
    error: 'must be above the upper threshold',
    path: ['limit'],
  })

const aheadSpan = z.object({ low: z.number(), middle: z.number(), high: z.number() })

/** The block as which a station's weather is looked at: with its offset, its cover, its soil and its wet events. */
const placeQuery = z.object({ blockId: id.optional() })

const known = z.number().nullable()
/** One hour: what is believed, and what follows from it. SI units; wind at 2 m. */
const hourWeatherSchema = z.object({
  hour: z.int(),
  temperature: known,
  low: known,
  high: known,
  humidity: known,
  rain: known,
  wind: known,
  /** Degrees from which it blows; of a forecast where its members agree about it. */
  direction: known,
  dewPoint: known,
  /** Vapour pressure deficit in hPa. */
  vpd: known,
  deltaT: known,
  /** null: not known. */
  wet: z.boolean().nullable(),
  soil: known,
  /** Readings of this hour that are doubted: what was read, and what stands in. */
  doubts: z.array(z.object({ variable: z.enum(checkedVariables), flag: z.enum(readingFlags), read: known, inUse: known })),
})
export type HourWeather = z.infer<typeof hourWeatherSchema>

const siteParams = z.object({ siteId: id })
const stationParams = z.object({ siteId: id, stationId: id })
const jsonText = z.string().transform((s, ctx) => {
  try {
    return JSON.parse(s) as unknown
  } catch {
    ctx.addIssue({ code: 'custom', message: 'must be JSON' })
    return z.NEVER
  }
})
const mappingQuery = jsonText.pipe(mappingSchema)

export const weather = {
  stations: endpoint({
    method: 'get',
    path: '/sites/:siteId/stations',
    restsOn: ['stations', 'weather', 'day'],
    summary: 'Stations and what they have read',
    params: siteParams,
    input: z.object({}),
    response: z.array(stationSchema),
  }),
  addStation: endpoint({
    method: 'post',
    path: '/sites/:siteId/stations',
    summary: 'Add a station',
    params: siteParams,
    input: stationInput,
    response: z.object({ id, rowVersion }),
  }),
  issueToken: endpoint({
    method: 'post',
    path: '/sites/:siteId/stations/:stationId/token',
    summary: 'Let a device push to a station; an earlier token ends. The token is shown this once.',
    params: stationParams,
    input: z.object({ simulated: z.boolean().default(false) }),
    response: z.object({ token: z.string() }),
  }),
  endToken: endpoint({
    method: 'delete',
    path: '/sites/:siteId/stations/:stationId/token',
    summary: 'Send the device of a station away: its token opens nothing any more',
    params: stationParams,
    input: z.object({}),
    response: z.object({ id }),
  }),
  updateStation: endpoint({
    method: 'patch',
    path: '/sites/:siteId/stations/:stationId',
    summary: 'Change a station; a change of its clock must be meant',
    params: stationParams,
    input: stationPatch,
    response: z.object({ id, rowVersion }),
  }),
  removeStation: endpoint({
    method: 'delete',
    path: '/sites/:siteId/stations/:stationId',
    summary: 'Remove a station; it can be restored, its readings with it',
    params: stationParams,
    input: z.object({ rowVersion }),
    response: z.object({ id, rowVersion }),
  }),
  restoreStation: endpoint({
    method: 'post',
    path: '/sites/:siteId/stations/:stationId/restore',
    summary: 'Undo the removal of a station',
    params: stationParams,
    input: z.object({ rowVersion }),
    response: z.object({ id, rowVersion }),
  }),
  corrections: endpoint({
    method: 'get',
    path: '/sites/:siteId/stations/:stationId/corrections',
    restsOn: ['weather', 'stations'],
    summary: 'Corrections that lie over the readings of a station',
    params: stationParams,
    input: z.object({}),
    response: z.array(correctionSchema),
  }),
  previewCorrection: endpoint({
    method: 'post',
    path: '/sites/:siteId/stations/:stationId/correction-preview',
    summary: 'What a correction would do; stores nothing',
    params: stationParams,
    input: correctionInput,
    response: correctionPreviewSchema,
  }),
  correct: endpoint({
    method: 'post',
    path: '/sites/:siteId/stations/:stationId/corrections',
    summary: 'Lay a correction over the readings of a station',
    params: stationParams,
    input: correctionInput,
    response: correctionSchema,
  }),
  removeCorrection: endpoint({
    method: 'delete',
    path: '/sites/:siteId/corrections/:correctionId',
    summary: 'Take a correction off again',
    params: z.object({ siteId: id, correctionId: id }),
    input: z.object({ rowVersion }),
    response: z.object({ id, rowVersion }),
  }),
  restoreCorrection: endpoint({
    method: 'post',
    path: '/sites/:siteId/corrections/:correctionId/restore',
    summary: 'Lay a correction on again that was taken off',
    params: z.object({ siteId: id, correctionId: id }),
    input: z.object({ rowVersion }),
    response: correctionSchema,
  }),
  days: endpoint({
    method: 'get',
    path: '/sites/:siteId/stations/:stationId/days',
    restsOn: ['weather', 'stations', 'site', 'day'],
    summary: 'A season day by day: what was read, what follows from it, the range of past seasons, and the days ahead',
    params: stationParams,
    input: placeQuery.extend({ season: civilDateSchema }),
    response: z.object({
      days: z.array(dayWeatherSchema),
      normal: z.array(z.object({ low: z.number(), high: z.number() }).nullable()),
      pastSeasons: z.int(),
      /** First days of the seasons that the station knows, oldest first. */
      seasons: z.array(civilDateSchema),
      /** Days ahead, today first, over the members of the newest forecast: lowest, median and highest of each extreme. */
      ahead: z.array(z.object({ day: civilDateSchema, min: aheadSpan, max: aheadSpan })),
      forecast: z.object({ issuedAt: instantSchema, members: z.int(), correctedFrom: z.int() }).nullable(),
      soil: z.object({
        /** `probe` where one read this season. */
        source: z.enum(['probe', 'estimated']),
        texture: z.enum(soilTextures),
        /** Nobody has said what soil it is. */
        assumed: z.boolean(),
        unknownRainDays: z.int(),
      }),
      frost: z.object({
        /** Whether enough of the spring is known: without it nothing is said of its frosts. */
        springKnown: z.boolean(),
        lastSpring: civilDateSchema.nullable(),
        firstAutumn: civilDateSchema.nullable(),
        /** Share of past seasons with a spring frost on or after this day of the year; null in autumn and without past seasons. */
        risk: z.number().nullable(),
        seasons: z.int(),
      }),
      /** Chill portions through today's date in the median of past seasons. */
      usualChill: z.number().nullable(),
      /** Hours of standard time. */
      sun: z.object({ sunrise: z.number().nullable(), sunset: z.number().nullable(), dayLength: z.number() }).nullable(),
    }),
  }),
  hours: endpoint({
    method: 'get',
    path: '/sites/:siteId/stations/:stationId/hours',
    restsOn: ['weather', 'stations', 'site', 'day'],
    summary: 'The hours of one day, in standard time of the station',
    params: stationParams,
    input: placeQuery.extend({ day: civilDateSchema }),
    response: z.object({
      /** Read, from the forecast (the median member with the lowest and highest), or made from the day's extremes, of a file or typed. */
      source: z.enum(['read', 'forecast', 'extremes', 'typed', 'none']),
      sun: z
        .object({ sunrise: z.number().nullable(), sunset: z.number().nullable(), dawn: z.number().nullable(), dusk: z.number().nullable() })
        .nullable(),
      hours: z.array(hourWeatherSchema),
      /** The day as somebody typed it, in place of what was read. */
      typed: z.object({ min: z.number(), max: z.number(), rain: known, by: z.string() }).nullable(),
      /** Single hours that were put right by hand; `read` is what stood there. */
      byHand: z.array(
        z.object({
          hour: z.int(),
          variable: z.enum(checkedVariables),
          value: z.number(),
          read: known,
          note: z.string(),
          by: z.string(),
          id,
          rowVersion,
        }),
      ),
    }),
  }),
  score: endpoint({
    method: 'get',
    path: '/sites/:siteId/stations/:stationId/forecast-score',
    restsOn: ['weather', 'stations'],
    summary: 'Past forecasts against what came, by lead day, and what is taken off the next one',
    params: stationParams,
    input: z.object({}),
    response: z.object({
      issues: z.int(),
      leads: z.array(
        z.object({
          lead: z.int(),
          n: z.int(),
          biasMin: z.number(),
          biasMax: z.number(),
          errorMin: z.number(),
          errorMax: z.number(),
          inside: z.number(),
          takenOffMin: z.number(),
          takenOffMax: z.number(),
        }),
      ),
    }),
  }),
  heat: endpoint({
    method: 'get',
    path: '/sites/:siteId/stations/:stationId/heat',
    restsOn: ['weather', 'stations', 'site', 'day'],
    summary: 'Heat of a season against every past one, and what the choice of method changes at a sum',
    params: stationParams,
    input: heatQuery,
    response: z.object({
      /** °C·d through each day from the start. */
      current: z.array(z.number()),
      past: z.array(z.object({ season: civilDateSchema, cumulative: z.array(z.number()) })),
      aheadDays: z.number().nullable(),
      methods: z.array(
        z.object({ method: z.enum([...heatMethods, ...rateCurves]), day: z.number().nullable(), laterBy: z.number().nullable() }),
      ),
    }),
  }),
  typeDays: endpoint({
    method: 'put',
    path: '/sites/:siteId/stations/:stationId/daily-extremes',
    summary: 'Enter daily extremes by hand',
    params: stationParams,
    input: typedDaysInput,
    response: z.object({ new: z.int(), changed: z.int(), unchanged: z.int() }),
  }),
  untypeDays: endpoint({
    method: 'post',
    path: '/sites/:siteId/stations/:stationId/daily-extremes/removals',
    summary: 'Take typed days away again, so that what the station or a file says of them stands once more',
    params: stationParams,
    input: z.object({ days: z.array(civilDateSchema).min(1, { error: 'choose a day' }).max(400, { error: 'at most 400 at once' }) }),
    response: z.object({ removed: z.int() }),
  }),
  preview: endpoint({
    method: 'post',
    path: '/sites/:siteId/stations/:stationId/weather-file-preview',
    summary: 'How the head of a weather file would be understood; stores nothing',
    params: stationParams,
    input: z.object({ mapping: mappingQuery.optional(), written: jsonText.pipe(writtenSchema).optional() }),
    response: filePreviewSchema,
    upload: 'application/octet-stream',
  }),
  import: endpoint({
    method: 'post',
    path: '/sites/:siteId/stations/:stationId/weather-imports',
    summary: 'Import a weather file: all of its good lines, or nothing',
    params: stationParams,
    input: z.object({ importId: id, fileName: text('the name of the file', 255), mapping: mappingQuery }),
    response: importResultSchema,
    upload: 'application/octet-stream',
  }),
  doubts: endpoint({
    method: 'get',
    path: '/sites/:siteId/stations/:stationId/doubts',
    restsOn: ['weather', 'stations'],
    summary: 'Readings of a season that are doubted, and what stands in for them',
    params: stationParams,
    input: z.object({ season: civilDateSchema }),
    response: z.array(doubtSchema),
  }),
  decideDoubts: endpoint({
    method: 'post',
    path: '/sites/:siteId/stations/:stationId/doubt-decisions',
    summary: 'Accept what stands in for doubted readings, believe the readings, or leave it open again',
    params: stationParams,
    input: doubtDecisionInput,
    response: z.object({ hours: z.int() }),
  }),
  undoImport: endpoint({
    method: 'post',
    path: '/sites/:siteId/weather-imports/:importId/undo',
    summary: 'Take an import back as a whole: what it brought goes, what it replaced comes back',
    params: z.object({ siteId: id, importId: id }),
    input: z.object({}),
    response: importResultSchema,
  }),
  imports: endpoint({
    method: 'get',
    path: '/sites/:siteId/weather-imports',
    restsOn: ['weather'],
    summary: 'Past imports, newest first',
    params: siteParams,
    input: z.object({}),
    response: z.array(importResultSchema),
  }),
}
