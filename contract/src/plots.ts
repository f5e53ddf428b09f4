import { z } from 'zod'
import { civilDateSchema, id, madeElsewhere, note, number, rowVersion } from './common.js'
import { endpoint } from './endpoint.js'
import { flagPosition, workMinutes } from './flags.js'
import { photoInput } from './library.js'

/** Cover of a plant in a plot, in % of its ground, from nothing on. */
export const plotCovers = ['none', 'under-1', '1-5', '5-25', '25-50', '50-75', 'over-75'] as const
export type PlotCover = (typeof plotCovers)[number]
/** What is looked at in a plot: a weed, by its organism, or a plant that is wanted there, by its row. */
export const plantSides = ['weed', 'wanted'] as const

const coverSchema = z.object({ of: z.enum(plantSides), id: z.string().max(80), cover: z.enum(plotCovers) })

export const plotLookSchema = z.object({
  id,
  lookedOn: civilDateSchema,
  covers: z.array(coverSchema.extend({ name: z.string() })),
  minutes: z.int().nullable(),
  photoId: id.nullable(),
  note: z.string(),
  personName: z.string(),
  rowVersion,
})
export type PlotLook = z.infer<typeof plotLookSchema>

const plantSchema = z.object({ of: z.enum(plantSides), id: z.string(), name: z.string() })

/** A square that is found again and looked at year after year. */
export const plotSchema = z.object({
  id,
  placeId: id,
  placeName: z.string(),
  /** On its stake. */
  number: z.int(),
  /** m along each side. */
  sideM: z.number(),
  /** Whether its ground is worked at as all around it; false: it is left alone, to see what would have come anyway. */
  worked: z.boolean(),
  plants: z.array(plantSchema),
  position: z.object({ latitude: z.number(), longitude: z.number(), accuracyM: z.number().nullable() }).nullable(),
  /** From where one goes, such as "the gatepost", in which direction in degrees from north, and how many paces. */
  fromWhat: z.string(),
  bearingDeg: z.number().nullable(),
  paces: z.int().nullable(),
  note: z.string(),
  /** A year after the look before, unless somebody said otherwise; null where nobody looked yet. */
  dueOn: civilDateSchema.nullable(),
  /** The newest first. */
  looks: z.array(plotLookSchema),
  rowVersion,
})
export type Plot = z.infer<typeof plotSchema>

/** Cover of one plant in the plots of a place, season by season. */
export const coverLineSchema = z.object({
  placeId: id,
  placeName: z.string(),
  worked: z.boolean(),
  of: z.enum(plantSides),
  id: z.string(),
  name: z.string(),
  seasons: z.array(z.object({ season: civilDateSchema, mean: z.number(), low: z.number(), high: z.number(), plots: z.int() })),
  /** In percentage points a year, with a 90 % interval over the plots; null where they are too few. */
  trend: z.object({ perYear: z.number(), low: z.number(), high: z.number(), plots: z.int() }).nullable(),
})
export type CoverLine = z.infer<typeof coverLineSchema>

const drawn = {
  placeId: z.uuid({ error: 'choose where it lies' }),
  /** null: the next number of the site. */
  number: z
    .int({ error: 'enter the number of the stake as a whole number' })
    .min(1, { error: 'must be at least 1' })
    .max(1_000_000, { error: 'must be at most 1,000,000' })
    .nullable()
    .default(null),
  sideM: number('the side', 0.1, 100, 'm').default(1),
  worked: z.boolean().default(true),
  weeds: z.array(z.string().max(80)).max(12, { error: 'use at most 12' }).default([]),
  wanted: z.array(z.uuid()).max(12, { error: 'use at most 12' }).default([]),
  position: flagPosition,
  fromWhat: z.string().trim().max(120, { error: 'use at most 120 characters' }).default(''),
  bearingDeg: number('the bearing in degrees', 0, 360).nullable().default(null),
  paces: z
    .int({ error: 'enter the paces as a whole number' })
    .min(0, { error: 'must be at least 0' })
    .max(5000, { error: 'must be at most 5,000' })
    .nullable()
    .default(null),
  note,
}
const findable = <
  S extends z.ZodType<{ weeds: string[]; wanted: string[]; fromWhat: string; bearingDeg: number | null; paces: number | null }>,
>(
  schema: S,
) =>
  schema
    .refine(({ weeds, wanted }) => weeds.length + wanted.length > 0, { path: ['weeds'], error: 'say what is looked at there' })
    .refine(({ fromWhat, bearingDeg, paces }) => fromWhat !== '' || (bearingDeg === null && paces === null), {
      path: ['fromWhat'],
      error: 'say from where the paces are counted',
    })

const siteParams = z.object({ siteId: id })
const plotParams = z.object({ siteId: id, plotId: id })
const lookParams = z.object({ siteId: id, plotLookId: id })
const version = z.object({ rowVersion })
const ok = z.object({ id, rowVersion })

export const plots = {
  list: endpoint({
    method: 'get',
    path: '/sites/:siteId/plots',
    restsOn: ['words', 'library', 'site'],
    summary: 'Monitoring plots with what was seen in them, and how the cover of each plant goes from year to year',
    params: siteParams,
    input: z.object({}),
    response: z.object({ plots: z.array(plotSchema), covers: z.array(coverLineSchema) }),
  }),
  add: endpoint({
    method: 'post',
    path: '/sites/:siteId/plots',
    summary: 'Mark out a plot',
    params: siteParams,
    input: findable(z.object(drawn)),
    response: ok,
  }),
  update: endpoint({
    method: 'patch',
    path: '/sites/:siteId/plots/:plotId',
    summary: 'Correct a plot, or say how it is found',
    params: plotParams,
    input: findable(z.object({ ...drawn, rowVersion })),
    response: ok,
  }),
  remove: endpoint({
    method: 'delete',
    path: '/sites/:siteId/plots/:plotId',
    summary: 'Give up a plot; it can be restored with all that was seen there',
    params: plotParams,
    input: version,
    response: ok,
  }),
  restore: endpoint({
    method: 'post',
    path: '/sites/:siteId/plots/:plotId/restore',
    summary: 'Undo the giving up of a plot',
    params: plotParams,
    input: version,
    response: ok,
  }),
  look: endpoint({
    method: 'post',
    path: '/sites/:siteId/plot-looks',
    summary: 'Record what is seen in a plot; sent twice it is kept once',
    params: siteParams,
    input: z
      .object({
        plotId: z.uuid({ error: 'choose the plot' }),
        lookedOn: civilDateSchema,
        covers: z.array(coverSchema).min(1, { error: 'say how much there is' }).max(24),
        minutes: workMinutes,
        /** null: a year from now. */
        dueOn: civilDateSchema.nullable().default(null),
        photo: photoInput.nullable().default(null),
        note,
        ...madeElsewhere,
      })
      .refine(({ lookedOn, dueOn }) => dueOn === null || dueOn > lookedOn, {
        path: ['dueOn'],
        error: 'must lie after the day of the look',
      }),
    response: ok,
  }),
  removeLook: endpoint({
    method: 'delete',
    path: '/sites/:siteId/plot-looks/:plotLookId',
    summary: 'Remove what was seen in a plot; it can be restored',
    params: lookParams,
    input: version,
    response: ok,
  }),
  restoreLook: endpoint({
    method: 'post',
    path: '/sites/:siteId/plot-looks/:plotLookId/restore',
    summary: 'Undo the removal of a look at a plot',
    params: lookParams,
    input: version,
    response: ok,
  }),
}
