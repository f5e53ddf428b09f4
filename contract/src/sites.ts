import { z } from 'zod'
import { civilDateSchema, id, note, number, rowVersion, text } from './common.js'
import { endpoint } from './endpoint.js'

export const roles = ['lead', 'scout', 'applicator', 'viewer'] as const
export const blockKinds = ['orchard', 'vineyard', 'field', 'bed', 'tunnel', 'pots', 'natural-area'] as const
export const unitSystems = ['metric', 'us'] as const

export const personSchema = z.object({ id, name: z.string(), role: z.enum(roles), licensed: z.boolean() })
export type Person = z.infer<typeof personSchema>

export const siteSchema = z.object({
  id,
  name: z.string(),
  place: z.string(),
  latitude: z.number().nullable(),
  longitude: z.number().nullable(),
  elevationM: z.number().nullable(),
  timeZone: z.string(),
  units: z.enum(unitSystems),
  rowVersion,
  /** The site's day now; in the demonstration the demo clock's. */
  today: civilDateSchema,
  season: z.object({ start: civilDateSchema, end: civilDateSchema }),
  /** Rises whenever a reading of one of its stations changes or a forecast comes; the page watches it. */
  weatherVersion: z.int(),
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

const siteFields = {
  name: text('the name of the site', 120),
  place: text('where it is', 200),
  timeZone: z
    .string({ error: 'choose a time zone' })
    .refine(isTimeZone, { error: 'choose a time zone from the list, such as America/Los_Angeles' }),
  units: z.enum(unitSystems, { error: 'choose the units' }),
  latitude: number('the latitude', -90, 90).nullable().default(null),
  longitude: number('the longitude', -180, 180).nullable().default(null),
  elevationM: number('the elevation', -450, 6000).nullable().default(null),
}
export const personInput = z.object({
  name: text('a name', 120),
  role: z.enum(roles, { error: 'choose a role' }),
  licensed: z.boolean().default(false),
})
export const siteInput = z.object({ ...siteFields, person: personInput })
export const sitePatch = z.object({ ...siteFields, rowVersion })

export const checkAreaSchema = z.object({ id, blockId: id, name: z.string(), note: z.string(), rowVersion })
export type CheckArea = z.infer<typeof checkAreaSchema>

export const blockSchema = z.object({
  id,
  name: z.string(),
  kind: z.enum(blockKinds),
  areaHa: z.number().nullable(),
  grows: z.string(),
  stationId: id.nullable(),
  rowVersion,
  checkAreas: z.array(checkAreaSchema),
})
export type Block = z.infer<typeof blockSchema>

export const blockInput = z.object({
  name: text('the name of the block', 120),
  kind: z.enum(blockKinds, { error: 'choose what kind of place it is' }),
  areaHa: number('the area', 0.0001, 100_000).nullable().default(null),
  grows: z.string().trim().max(200, { error: 'use at most 200 characters' }).default(''),
  stationId: id.nullable().default(null),
})

export const checkAreaInput = z.object({ name: text('the name of the check area', 120), note })

const siteParams = z.object({ siteId: id })
const ok = z.object({ id, rowVersion })

export const sites = {
  list: endpoint({
    method: 'get',
    path: '/sites',
    summary: 'Sites, with the people who work there',
    params: z.object({}),
    input: z.object({}),
    response: z.array(siteSchema),
  }),
  create: endpoint({
    method: 'post',
    path: '/sites',
    summary: 'Start a site with its first person',
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
  addPerson: endpoint({
    method: 'post',
    path: '/sites/:siteId/people',
    summary: 'Add a person',
    params: siteParams,
    input: personInput,
    response: personSchema,
  }),
}

const blockParams = z.object({ siteId: id, blockId: id })
export const blocks = {
  list: endpoint({
    method: 'get',
    path: '/sites/:siteId/blocks',
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
