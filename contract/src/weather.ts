import { z } from 'zod'
import { civilDateSchema, id, instantSchema, number, rowVersion, text } from './common.js'
import { endpoint } from './endpoint.js'

/** What a weather file may hold, in the order in which it is shown. */
export const weatherVariables = ['temperature', 'min', 'max', 'humidity', 'rain', 'wind'] as const
export type WeatherVariable = (typeof weatherVariables)[number]

export const unitsOf = {
  temperature: ['C', 'F'],
  min: ['C', 'F'],
  max: ['C', 'F'],
  humidity: ['%'],
  rain: ['mm', 'in'],
  wind: ['m/s', 'km/h', 'mph'],
} as const satisfies Record<WeatherVariable, readonly string[]>

export const separators = [',', ';', '\t', '|'] as const
export const dateOrders = ['ymd', 'mdy', 'dmy'] as const
export const clocks = ['standard', 'wall', 'utc'] as const

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
  columns: z.array(z.object({ variable: z.enum(weatherVariables), column: columnIndex, unit: z.string() })).max(6),
})
export type WeatherMapping = z.infer<typeof mappingSchema>

export const understoodRowSchema = z.object({
  line: z.int(),
  /** Standard time of the station, as YYYY-MM-DD or YYYY-MM-DD HH:MM. */
  at: z.string().nullable(),
  values: z.partialRecord(z.enum(weatherVariables), z.number()),
  problem: z.string().nullable(),
})

export const filePreviewSchema = z.object({
  mapping: mappingSchema,
  columns: z.array(z.object({ index: z.int(), name: z.string(), samples: z.array(z.string()) })),
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
  /** Lines that repeat another line word for word. */
  repeated: z.int(),
  /** Readings per hour where finer ones were averaged; 1 otherwise. */
  readingsPerHour: z.int(),
  first: civilDateSchema.nullable(),
  last: civilDateSchema.nullable(),
})
export type ImportResult = z.infer<typeof importResultSchema>

/** What an import sends while it runs, a JSON object a line; the last line is a result or a problem. */
export const importProgressSchema = z.object({ phase: z.enum(['reading', 'storing']), share: z.number().min(0).max(1) })
export type ImportProgress = z.infer<typeof importProgressSchema>

export const stationSchema = z.object({
  id,
  name: z.string(),
  /** Standard time of the station, minutes east of UTC. */
  utcOffsetMinutes: z.int(),
  rowVersion,
  hours: z.int(),
  typedDays: z.int(),
  /** Whether a device may push to it, and whether that device is simulated. */
  device: z.enum(['none', 'pushed', 'simulated']),
  sensorHeightM: z.number().nullable(),
  /** The newest hour that a device pushed, and whether one is overdue. */
  lastHour: instantSchema.nullable(),
  silent: z.boolean(),
  firstDay: civilDateSchema.nullable(),
  lastDay: civilDateSchema.nullable(),
})
export type Station = z.infer<typeof stationSchema>

export const stationInput = z.object({
  name: text('the name of the station', 120),
  sensorHeightM: number('the height of the wind sensor', 0.5, 100).nullable().default(null),
})

const pushedReading = z
  .strictObject({
    at: instantSchema,
    temperature: number('a temperature', -60, 58).optional(),
    humidity: number('the humidity', 0, 100).optional(),
    rain: number('the rain', 0, 200).optional(),
    wind: number('the wind', 0, 75).optional(),
  })
  .refine((r) => [r.temperature, r.humidity, r.rain, r.wind].some((v) => v !== undefined), { error: 'holds no value' })

/** What a device pushes: one reading, or several, in °C, %, mm and m/s, each of the hour in which `at` lies. */
export const pushInput = z.preprocess(
  (body) => (body !== null && typeof body === 'object' && !Array.isArray(body) && !('readings' in body) ? { readings: [body] } : body),
  z.strictObject({
    readings: z.array(pushedReading).min(1, { error: 'holds no reading' }).max(5000, { error: 'send at most 5000 readings at once' }),
  }),
)
export type PushInput = z.output<typeof pushInput>

export const dayWeatherSchema = z.object({
  day: civilDateSchema,
  min: z.number().nullable(),
  max: z.number().nullable(),
  rain: z.number().nullable(),
  filled: z.number(),
})
export type DayWeather = z.infer<typeof dayWeatherSchema>

export const checkedVariables = ['temperature', 'humidity', 'rain', 'wind'] as const
export const readingFlags = ['range', 'step', 'flat-line', 'spike', 'gap'] as const
export const fillMethods = ['interpolated', 'neighbour', 'climatology', 'unknown'] as const
export const faultDecisions = ['open', 'accepted', 'overruled'] as const

const span = z.object({ low: z.number(), high: z.number() }).nullable()

/** Consecutive hours of one variable that are doubted for one reason, and what stands in for them. */
export const faultSchema = z.object({
  variable: z.enum(checkedVariables),
  flag: z.enum(readingFlags),
  /** First and last hour, in UTC. */
  from: instantSchema,
  to: instantSchema,
  hours: z.int(),
  read: span,
  standsIn: span,
  methods: z.array(z.enum(fillMethods)),
  decision: z.enum(faultDecisions),
  decidedBy: z.string().nullable(),
})
export type Fault = z.infer<typeof faultSchema>

export const faultDecisionInput = z.object({
  decision: z.enum(faultDecisions),
  faults: z
    .array(z.object({ variable: z.enum(checkedVariables), from: instantSchema, to: instantSchema }))
    .min(1, { error: 'choose at least one' })
    .max(500, { error: 'at most 500 at once' }),
})

const temperature = number('a temperature', -60, 60)
const hourlyValues = (what: string, least: number, most: number) =>
  z
    .array(number(what, least, most))
    .min(24, { error: 'give at least 24 hours' })
    .max(384, { error: 'give at most 384 hours' })

/** A forecast of several members, hourly from `firstHour` on, in °C, %, mm and m/s. */
export const forecastIssueInput = z
  .strictObject({
    issuedAt: instantSchema,
    firstHour: instantSchema,
    members: z
      .array(
        z.strictObject({
          temperature: hourlyValues('a temperature', -60, 58),
          humidity: hourlyValues('the humidity', 0, 100).optional(),
          rain: hourlyValues('the rain', 0, 200).optional(),
          wind: hourlyValues('the wind', 0, 75).optional(),
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
        .object({ day: civilDateSchema, min: temperature, max: temperature, rain: number('the rain', 0, 1000).nullable().default(null) })
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
export const heatCutoffs = ['horizontal', 'intermediate', 'vertical'] as const

const fromText = (what: string, least: number, most: number) =>
  z.coerce.number({ error: `enter ${what} as a number` }).pipe(number(what, least, most))

/** How heat is summed and from when; `target` is the sum at which the methods are compared. Temperatures in °C. */
export const heatQuery = z
  .object({
    season: civilDateSchema,
    from: civilDateSchema,
    method: z.enum(heatMethods, { error: 'choose a method' }),
    lower: fromText('the lower threshold', -20, 40),
    upper: fromText('the upper threshold', -10, 60).optional(),
    cutoff: z.enum(heatCutoffs).default('horizontal'),
    target: fromText('the sum', 1, 10_000),
  })
  .refine((q) => q.upper === undefined || q.upper > q.lower, { error: 'must be above the lower threshold', path: ['upper'] })

const aheadSpan = z.object({ low: z.number(), middle: z.number(), high: z.number() })

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
    response: stationSchema,
  }),
  issueToken: endpoint({
    method: 'post',
    path: '/sites/:siteId/stations/:stationId/token',
    summary: 'Let a device push to a station; an earlier token ends. The token is shown this once.',
    params: stationParams,
    input: z.object({ simulated: z.boolean().default(false) }),
    response: z.object({ token: z.string() }),
  }),
  days: endpoint({
    method: 'get',
    path: '/sites/:siteId/stations/:stationId/days',
    summary: 'Daily extremes of a season, and the range of past seasons on the same days',
    params: stationParams,
    input: z.object({ season: civilDateSchema }),
    response: z.object({
      days: z.array(dayWeatherSchema),
      normal: z.array(z.object({ low: z.number(), high: z.number() }).nullable()),
      pastSeasons: z.int(),
      /** Days ahead, today first, over the members of the newest forecast: lowest, median and highest of each extreme. */
      ahead: z.array(z.object({ day: civilDateSchema, min: aheadSpan, max: aheadSpan })),
      forecast: z.object({ issuedAt: instantSchema, members: z.int() }).nullable(),
    }),
  }),
  heat: endpoint({
    method: 'get',
    path: '/sites/:siteId/stations/:stationId/heat',
    summary: 'Heat of a season against every past one, and what the choice of method changes at a sum',
    params: stationParams,
    input: heatQuery,
    response: z.object({
      /** °C·d through each day from the start. */
      current: z.array(z.number()),
      past: z.array(z.object({ season: civilDateSchema, cumulative: z.array(z.number()) })),
      aheadDays: z.number().nullable(),
      methods: z.array(z.object({ method: z.enum(heatMethods), day: z.number().nullable(), laterBy: z.number().nullable() })),
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
  preview: endpoint({
    method: 'post',
    path: '/sites/:siteId/stations/:stationId/weather-file-preview',
    summary: 'How the head of a weather file would be understood; stores nothing',
    params: stationParams,
    input: z.object({ mapping: mappingQuery.optional() }),
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
  faults: endpoint({
    method: 'get',
    path: '/sites/:siteId/stations/:stationId/faults',
    summary: 'Readings of a season that are doubted, and what stands in for them',
    params: stationParams,
    input: z.object({ season: civilDateSchema }),
    response: z.array(faultSchema),
  }),
  decideFaults: endpoint({
    method: 'post',
    path: '/sites/:siteId/stations/:stationId/fault-decisions',
    summary: 'Accept what stands in for doubted readings, believe the readings, or leave it open again',
    params: stationParams,
    input: faultDecisionInput,
    response: z.object({ hours: z.int() }),
  }),
  imports: endpoint({
    method: 'get',
    path: '/sites/:siteId/weather-imports',
    summary: 'Past imports, newest first',
    params: siteParams,
    input: z.object({}),
    response: z.array(importResultSchema),
  }),
}
