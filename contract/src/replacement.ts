import { z } from 'zod'
import { civilDateSchema, id, note, number, rowVersion, text } from './common.js'
import { endpoint } from './endpoint.js'

/** How something begins that shall grow in place of a weed. */
export const wantedBeginnings = ['planted', 'sown'] as const

/** A plant that a site wants on its ground: by its user’s own list, since what belongs somewhere is known there. */
export const wantedPlantSchema = z.object({
  id,
  name: z.string(),
  begins: z.enum(wantedBeginnings),
  /** cm from plant to plant; null of what is sown. */
  spacingCm: z.number().nullable(),
  /** g of seed for a square metre; null of what is planted. */
  gramsPerM2: z.number().nullable(),
  /** Months in which it is planted or sown, 1 to 12; none where nobody said. */
  months: z.array(z.int()),
  note: z.string(),
  rowVersion,
})
export type WantedPlant = z.infer<typeof wantedPlantSchema>

const lineSchema = z.object({
  wantedPlantId: id,
  name: z.string(),
  /** Of the ground, 0 to 1. */
  share: z.number(),
  /** Whole plants, or grams of seed; null where its spacing or amount was never said. */
  plants: z.int().nullable(),
  grams: z.number().nullable(),
})

/** What is planted or sown somewhere in place of a weed. */
export const replacementSchema = z.object({
  id,
  placeId: id,
  placeName: z.string(),
  /** In whose place; null where nobody said. */
  organismId: z.string().nullable(),
  organismName: z.string().nullable(),
  areaM2: z.number(),
  lines: z.array(lineSchema),
  /** The work of the schedule that it is; moved or done there, it is moved or done here. */
  jobId: id,
  plannedOn: civilDateSchema,
  doneOn: civilDateSchema.nullable(),
  /** Plants of it that are not planted or sown in the month for which it is planned. */
  outOfSeason: z.array(z.string()),
  note: z.string(),
  rowVersion,
})
export type Replacement = z.infer<typeof replacementSchema>

const plantFields = z.object({
  name: text('the plant', 80),
  begins: z.enum(wantedBeginnings, { error: 'choose whether it is planted or sown' }),
  spacingCm: number('the spacing in cm', 1, 2000).nullable().default(null),
  gramsPerM2: number('the seed in g', 0.01, 1000).nullable().default(null),
  months: z.array(z.int().min(1).max(12)).max(12).default([]),
  note,
})
const oneWay = <S extends z.ZodType<z.infer<typeof plantFields>>>(schema: S) =>
  schema
    .refine(({ begins, gramsPerM2 }) => begins === 'sown' || gramsPerM2 === null, {
      path: ['gramsPerM2'],
      error: 'what is planted is not sown',
    })
    .refine(({ begins, spacingCm }) => begins === 'planted' || spacingCm === null, {
      path: ['spacingCm'],
      error: 'what is sown has no spacing',
    })

const planned = z.object({
  placeId: z.uuid({ error: 'choose where' }),
  organismId: z.string().max(80).nullable().default(null),
  areaM2: number('the area', 0.1, 10_000_000, 'm²'),
  lines: z
    .array(z.object({ wantedPlantId: z.uuid({ error: 'choose a plant of your list' }), share: number('the share', 0.01, 1) }))
    .min(1, { error: 'choose at least one plant' })
    .max(20, { error: 'use at most 20' }),
  plannedOn: civilDateSchema,
  note,
})
/** Shares add up to the ground, and not to more of it. */
const SLACK = 0.005
const within = <S extends z.ZodType<z.infer<typeof planned>>>(schema: S) =>
  schema
    .refine(({ lines }) => lines.reduce((sum, { share }) => sum + share, 0) <= 1 + SLACK, {
      path: ['lines'],
      error: 'takes more than all of the ground: let the shares add up to 100 % at most',
    })
    .refine(({ lines }) => new Set(lines.map(({ wantedPlantId }) => wantedPlantId)).size === lines.length, {
      path: ['lines'],
      error: 'name each plant once',
    })

const siteParams = z.object({ siteId: id })
const plantParams = z.object({ siteId: id, wantedPlantId: id })
const replacementParams = z.object({ siteId: id, replacementId: id })
const version = z.object({ rowVersion })
const ok = z.object({ id, rowVersion })

export const replacement = {
  list: endpoint({
    method: 'get',
    path: '/sites/:siteId/replacements',
    restsOn: ['treatments', 'words', 'library', 'site'],
    summary: 'Plants that the site wants, and what is planted or sown in place of weeds, with its amounts',
    params: siteParams,
    input: z.object({}),
    response: z.object({ wanted: z.array(wantedPlantSchema), plans: z.array(replacementSchema) }),
  }),
  addWanted: endpoint({
    method: 'post',
    path: '/sites/:siteId/wanted-plants',
    summary: 'Add a plant that is wanted',
    params: siteParams,
    input: oneWay(plantFields),
    response: wantedPlantSchema,
  }),
  updateWanted: endpoint({
    method: 'patch',
    path: '/sites/:siteId/wanted-plants/:wantedPlantId',
    summary: 'Change a plant that is wanted',
    params: plantParams,
    input: oneWay(plantFields.extend({ rowVersion })),
    response: wantedPlantSchema,
  }),
  removeWanted: endpoint({
    method: 'delete',
    path: '/sites/:siteId/wanted-plants/:wantedPlantId',
    summary: 'Remove a plant from the list; what was planted and seen of it stays',
    params: plantParams,
    input: version,
    response: ok,
  }),
  restoreWanted: endpoint({
    method: 'post',
    path: '/sites/:siteId/wanted-plants/:wantedPlantId/restore',
    summary: 'Undo the removal of a plant from the list',
    params: plantParams,
    input: version,
    response: wantedPlantSchema,
  }),
  add: endpoint({
    method: 'post',
    path: '/sites/:siteId/replacements',
    summary: 'Plan what is planted or sown in place of a weed; it stands on the schedule as well',
    params: siteParams,
    input: within(planned),
    response: replacementSchema,
  }),
  update: endpoint({
    method: 'patch',
    path: '/sites/:siteId/replacements/:replacementId',
    summary: 'Change what is planted or sown, or say that it is done',
    params: replacementParams,
    input: within(planned.extend({ doneOn: civilDateSchema.nullable().default(null), rowVersion })),
    response: replacementSchema,
  }),
  remove: endpoint({
    method: 'delete',
    path: '/sites/:siteId/replacements/:replacementId',
    summary: 'Remove what was planned in place of a weed, from the schedule as well; it can be restored',
    params: replacementParams,
    input: version,
    response: ok,
  }),
  restore: endpoint({
    method: 'post',
    path: '/sites/:siteId/replacements/:replacementId/restore',
    summary: 'Undo the removal of what was planned in place of a weed',
    params: replacementParams,
    input: version,
    response: replacementSchema,
  }),
}
