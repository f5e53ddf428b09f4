import { z } from 'zod'
import { civilDateSchema, id, note, rowVersion } from './common.js'
import { endpoint } from './endpoint.js'

const tally = z.record(
  z.string(),
  z.int({ error: 'enter a whole number' }).min(0, { error: 'must be at least 0' }).max(100_000, { error: 'must be at most 100000' }),
)

/** A count in one area on one day: what was found on each sample unit, by class. */
export const roundSchema = z.object({
  id,
  watchId: id,
  /** null: in the block itself; otherwise in its untreated check area. */
  checkAreaId: id.nullable(),
  checkAreaName: z.string().nullable(),
  countedOn: civilDateSchema,
  units: z.array(tally),
  note: z.string(),
  personName: z.string(),
  rowVersion,
  /** Effective count of each unit: Σ weight·n. */
  effective: z.array(z.number()),
  per100: z.number(),
  threshold: z.number(),
})
export type Round = z.infer<typeof roundSchema>

export const roundInput = z.object({
  watchId: z.uuid({ error: 'choose what was counted' }),
  checkAreaId: id.nullable().default(null),
  countedOn: civilDateSchema,
  units: z.array(tally).min(1, { error: 'count at least one sample unit' }).max(1000, { error: 'at most 1000 sample units in a round' }),
  note,
})

const siteParams = z.object({ siteId: id })
const roundParams = z.object({ siteId: id, roundId: id })

export const scouting = {
  list: endpoint({
    method: 'get',
    path: '/sites/:siteId/rounds',
    restsOn: ['counts', 'watches', 'site', 'library'],
    summary: 'Counting rounds of a season',
    params: siteParams,
    input: z.object({ season: civilDateSchema }),
    response: z.array(roundSchema),
  }),
  create: endpoint({
    method: 'post',
    path: '/sites/:siteId/rounds',
    summary: 'Record a counting round',
    params: siteParams,
    input: roundInput,
    response: roundSchema,
  }),
  update: endpoint({
    method: 'patch',
    path: '/sites/:siteId/rounds/:roundId',
    summary: 'Correct a counting round',
    params: roundParams,
    input: roundInput.omit({ watchId: true }).extend({ rowVersion }),
    response: roundSchema,
  }),
  remove: endpoint({
    method: 'delete',
    path: '/sites/:siteId/rounds/:roundId',
    summary: 'Remove a counting round; can be restored',
    params: roundParams,
    input: z.object({ rowVersion }),
    response: z.object({ id, rowVersion }),
  }),
  restore: endpoint({
    method: 'post',
    path: '/sites/:siteId/rounds/:roundId/restore',
    summary: 'Undo the removal of a counting round',
    params: roundParams,
    input: z.object({ rowVersion }),
    response: roundSchema,
  }),
}
