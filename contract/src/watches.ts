import { z } from 'zod'
import { boundsSchema, civilDateSchema, id, instantSchema, rowVersion, text } from './common.js'
import { endpoint } from './endpoint.js'
import { figureSchema, organismSchema } from './organisms.js'
import { watchesInput, watchInput, watchPatch, watchSchema } from './watch.js'
import { bandSchema, derivedSchema, watchForecastSchema } from './watchForecasts.js'

export const ownFigureInput = z.object({
  path: z.string(),
  /** The block for which alone it shall hold; null for the whole site. */
  blockId: id.nullable().default(null),
  value: z.number({ error: 'enter the value for this site' }),
  reason: text('why this site differs', 500),
})

/** Numbers that were tried together: they are checked together, and all are kept or none. */
export const ownFiguresInput = z.object({
  figures: z
    .array(ownFigureInput.pick({ path: true, value: true }))
    .min(1, { error: 'change at least one number' })
    .max(60, { error: 'are more than a model has' }),
  blockId: ownFigureInput.shape.blockId,
  reason: ownFigureInput.shape.reason,
})

export const moveCauses = ['readings', 'weather', 'forecast', 'bloom', 'biofix', 'model'] as const

/** What a forecast said when it was issued. */
const issuedSchema = z.object({
  id,
  issuedAt: instantSchema,
  today: civilDateSchema,
  model: z.string(),
  biofix: civilDateSchema.nullable(),
  /** How certain it was stated; only one of dates has windows. */
  grade: watchForecastSchema.shape.grade,
  /** Months, 1 to 12, that a forecast without dates named. */
  usual: z.array(z.object({ name: z.string(), months: z.array(z.int()) })),
  windows: z.array(z.object({ generation: z.string(), generationName: z.string(), opens: boundsSchema, closes: boundsSchema })),
})

export const movesSchema = z.object({
  /** Newest first, at most one a day. */
  issued: z.array(issuedSchema),
  /** How far the opening of each window moved since, in days, cause by cause; they add up. */
  since: z
    .object({
      id,
      windows: z.array(
        z.object({
          generation: z.string(),
          generationName: z.string(),
          before: z.number().nullable(),
          now: z.number().nullable(),
          steps: z.array(z.object({ cause: z.enum(moveCauses), days: z.number() })),
        }),
      ),
    })
    .nullable(),
})
export type Moves = z.infer<typeof movesSchema>

const siteParams = z.object({ siteId: id })
const watchParams = z.object({ siteId: id, watchId: id })

export const watches = {
  organisms: endpoint({
    method: 'get',
    path: '/sites/:siteId/organisms',
    restsOn: ['library', 'counts'],
    summary: 'Organisms that can be watched, the site’s own among them',
    params: siteParams,
    input: z.object({}),
    response: z.array(organismSchema),
  }),
  list: endpoint({
    method: 'get',
    path: '/sites/:siteId/watches',
    restsOn: ['watches', 'library'],
    summary: 'Watches of a season',
    params: siteParams,
    input: z.object({ season: civilDateSchema }),
    response: z.array(watchSchema),
  }),
  create: endpoint({
    method: 'post',
    path: '/sites/:siteId/watches',
    summary: 'Watch an organism in a block',
    params: siteParams,
    input: watchInput,
    response: watchSchema,
  }),
  createSeveral: endpoint({
    method: 'post',
    path: '/sites/:siteId/watches/several',
    summary: 'Watch several organisms in a block: all of them, or none where one cannot be',
    params: siteParams,
    input: watchesInput,
    response: z.array(watchSchema),
  }),
  carryOn: endpoint({
    method: 'post',
    path: '/sites/:siteId/watches/carry-on',
    summary:
      'Watch again in a season what was watched in an earlier one: with its threshold and what is known of its source, without its biofix',
    params: siteParams,
    input: z
      .object({ from: civilDateSchema, season: civilDateSchema })
      .refine(({ from, season }) => from < season, { path: ['from'], error: 'must be an earlier season' }),
    /** Those that are watched now and were not before. */
    response: z.array(watchSchema),
  }),
  update: endpoint({
    method: 'patch',
    path: '/sites/:siteId/watches/:watchId',
    summary: 'Change biofix or threshold',
    params: watchParams,
    input: watchPatch,
    response: watchSchema,
  }),
  remove: endpoint({
    method: 'delete',
    path: '/sites/:siteId/watches/:watchId',
    summary: 'Stop watching; can be restored',
    params: watchParams,
    input: z.object({ rowVersion }),
    response: z.object({ id, rowVersion }),
  }),
  restore: endpoint({
    method: 'post',
    path: '/sites/:siteId/watches/:watchId/restore',
    summary: 'Undo the removal of a watch',
    params: watchParams,
    input: z.object({ rowVersion }),
    response: watchSchema,
  }),
  takeModel: endpoint({
    method: 'post',
    path: '/sites/:siteId/watches/:watchId/model',
    summary: 'Pin a watch to the model as the library and the site have it now',
    params: watchParams,
    input: z.object({ rowVersion }),
    response: watchSchema,
  }),
  figures: endpoint({
    method: 'get',
    path: '/sites/:siteId/watches/:watchId/figures',
    restsOn: ['watches', 'library'],
    summary: "The numbers of a watch's model, as pinned",
    params: watchParams,
    input: z.object({}),
    response: z.array(figureSchema),
  }),
  pastSeasons: endpoint({
    method: 'get',
    path: '/sites/:siteId/watches/:watchId/past',
    restsOn: ['watches', 'weather', 'stations', 'site', 'day'],
    summary: 'Heat of past seasons from the same biofix on',
    params: watchParams,
    input: z.object({}),
    response: z.array(z.object({ season: civilDateSchema, cumulative: z.array(z.number()) })),
  }),
  moves: endpoint({
    method: 'get',
    path: '/sites/:siteId/watches/:watchId/moves',
    restsOn: ['watches', 'blooms', 'weather', 'stations', 'site', 'day', 'forecasts', 'library'],
    summary: 'Forecasts as they were issued, and why the newest differs from one of them',
    params: watchParams,
    input: z.object({ since: z.uuid().optional() }),
    response: movesSchema,
  }),
  ownFigure: endpoint({
    method: 'post',
    path: '/sites/:siteId/organisms/:organismId/figures',
    summary: "The site's own value for a number of the library, with its reason",
    params: z.object({ siteId: id, organismId: z.string() }),
    input: ownFigureInput,
    response: z.array(figureSchema),
  }),
  ownFigures: endpoint({
    method: 'post',
    path: '/sites/:siteId/organisms/:organismId/figures/together',
    summary: "The site's own values for several numbers of the library, with their reason; all are kept or none",
    params: z.object({ siteId: id, organismId: z.string() }),
    input: ownFiguresInput,
    response: z.array(figureSchema),
  }),
  dropOwnFigure: endpoint({
    method: 'delete',
    path: '/sites/:siteId/organisms/:organismId/figures',
    summary: "Go back to the library's value",
    params: z.object({ siteId: id, organismId: z.string() }),
    input: z.object({ path: z.string(), blockId: id.nullable().default(null) }),
    response: z.array(figureSchema),
  }),
  derived: endpoint({
    method: 'get',
    path: '/sites/:siteId/derived',
    restsOn: ['forecasts', 'site', 'stations', 'weather', 'watches', 'blooms', 'library', 'day'],
    summary: 'Whether the forecasts of this season follow from everything that is known',
    params: siteParams,
    input: z.object({}),
    response: derivedSchema,
  }),
  band: endpoint({
    method: 'get',
    path: '/sites/:siteId/band',
    restsOn: ['forecasts', 'watches', 'blooms', 'counts', 'treatments', 'library', 'site', 'day'],
    summary: 'Forecast of every watch over a season',
    params: siteParams,
    input: z.object({ season: civilDateSchema }),
    response: bandSchema,
  }),
}
