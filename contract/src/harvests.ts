import { z } from 'zod'
import { civilDateSchema, id, madeElsewhere, note, number, rowVersion } from './common.js'
import { endpoint } from './endpoint.js'

/** A treatment whose label keeps a harvest waiting. */
const waitSchema = z.object({
  treatmentId: id,
  /** What was used, as it is called on its label. */
  name: z.string(),
  /** First day on which its label lets harvest be. */
  from: civilDateSchema,
  /** Where it was used. */
  placeName: z.string(),
})

export const harvestSchema = z.object({
  id,
  placeId: id,
  placeName: z.string(),
  pickedOn: civilDateSchema,
  kg: z.number().nullable(),
  /** Fruit, heads or bunches. */
  pieces: z.int().nullable(),
  /** How many of the pieces were spoilt, and by which organism. */
  spoilt: z.int().nullable(),
  spoiltBy: z.string().nullable(),
  spoiltByName: z.string().nullable(),
  note: z.string(),
  personName: z.string(),
  /** Treatments that were done there before, and whose days to harvest were not over. */
  tooEarly: z.array(waitSchema),
  rowVersion,
})
export type Harvest = z.infer<typeof harvestSchema>
export type HarvestWait = z.infer<typeof waitSchema>

const count = (what: string, least: number) =>
  z
    .int({ error: `enter ${what} as a whole number` })
    .min(least, { error: `must be at least ${least}` })
    .max(10_000_000, { error: 'must be at most 10,000,000' })
    .nullable()
    .default(null)

const picked = z.object({
  placeId: z.uuid({ error: 'choose where it was picked' }),
  pickedOn: civilDateSchema,
  kg: number('the weight in kg', 0.001, 10_000_000).nullable().default(null),
  pieces: count('how many', 1),
  spoilt: count('how many were spoilt', 0),
  spoiltBy: z.string().max(80).nullable().default(null),
  note,
})
const whole = <S extends z.ZodType<{ kg: number | null; pieces: number | null; spoilt: number | null }>>(schema: S) =>
  schema
    .refine(({ kg, pieces }) => kg !== null || pieces !== null, { path: ['kg'], error: 'enter how much, or how many' })
    .refine(({ pieces, spoilt }) => pieces === null || spoilt === null || spoilt <= pieces, {
      path: ['spoilt'],
      error: 'cannot be more than there were',
    })

const siteParams = z.object({ siteId: id })
const harvestParams = z.object({ siteId: id, harvestId: id })

export const harvests = {
  list: endpoint({
    method: 'get',
    path: '/sites/:siteId/harvests',
    restsOn: ['treatments', 'site', 'day'],
    summary: 'What was picked in a season, and where a label still keeps harvest waiting',
    params: siteParams,
    input: z.object({ season: civilDateSchema }),
    response: z.object({
      harvests: z.array(harvestSchema),
      /** By place: the treatments there whose days to harvest are not over today. */
      waits: z.array(waitSchema.extend({ placeIds: z.array(id) })),
    }),
  }),
  add: endpoint({
    method: 'post',
    path: '/sites/:siteId/harvests',
    summary: 'Record what was picked; what was picked too early is stored as well, and says so',
    params: siteParams,
    input: whole(picked.extend(madeElsewhere)),
    response: harvestSchema,
  }),
  update: endpoint({
    method: 'patch',
    path: '/sites/:siteId/harvests/:harvestId',
    summary: 'Correct what was picked',
    params: harvestParams,
    input: whole(picked.extend({ rowVersion })),
    response: harvestSchema,
  }),
  remove: endpoint({
    method: 'delete',
    path: '/sites/:siteId/harvests/:harvestId',
    summary: 'Remove a harvest; it can be restored',
    params: harvestParams,
    input: z.object({ rowVersion }),
    response: z.object({ id, rowVersion }),
  }),
  restore: endpoint({
    method: 'post',
    path: '/sites/:siteId/harvests/:harvestId/restore',
    summary: 'Undo the removal of a harvest',
    params: harvestParams,
    input: z.object({ rowVersion }),
    response: harvestSchema,
  }),
}
