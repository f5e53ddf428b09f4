import { z } from 'zod'
import { civilDateSchema, id, number, rowVersion, text } from './common.js'
import { endpoint } from './endpoint.js'

/** What work is done with. */
export const machineKinds = ['boom', 'air-blast', 'knapsack', 'hand-sprayer', 'spreader', 'mower', 'tool', 'other'] as const
/** In what a lot is measured. */
export const stockUnits = ['L', 'kg', 'gal', 'lb', 'pieces'] as const

export const machineSchema = z.object({
  id,
  name: z.string(),
  kind: z.enum(machineKinds),
  /** L in its tank; L/ha that it is set to. */
  tankL: z.number().nullable(),
  sprayLPerHa: z.number().nullable(),
  /** Its nozzles let little drift. */
  lowDrift: z.boolean(),
  /** Last catch test, and how far it was from what was wanted, as a share. */
  testedOn: civilDateSchema.nullable(),
  testOff: z.number().nullable(),
  /** Every site of the holding has it. */
  shared: z.boolean(),
  rowVersion,
})
export type Machine = z.infer<typeof machineSchema>

export const lotSchema = z.object({
  id,
  productId: id,
  number: z.string(),
  amount: z.number(),
  unit: z.enum(stockUnits),
  cameOn: civilDateSchema,
  /** Last day on which it can be used. */
  expiresOn: civilDateSchema.nullable(),
  /** Left of it by the records, in its unit: below zero where more was recorded than came; null where an amount used is not known. */
  left: z.number().nullable(),
  rowVersion,
})
export type Lot = z.infer<typeof lotSchema>

const machineFields = z.object({
  name: text('the name of the machine', 80),
  kind: z.enum(machineKinds, { error: 'choose what it is' }),
  tankL: number('the size of its tank', 0.1, 50_000).nullable().default(null),
  sprayLPerHa: number('the spray on a hectare', 0.1, 20_000).nullable().default(null),
  lowDrift: z.boolean().default(false),
  testedOn: civilDateSchema.nullable().default(null),
  testOff: number('how far it was off', -0.99, 10).nullable().default(null),
  shared: z.boolean().default(false),
})
const lotFields = z.object({
  number: text('the number of the lot', 60),
  amount: number('the amount', 0.001, 1_000_000),
  unit: z.enum(stockUnits, { error: 'choose the unit' }),
  cameOn: civilDateSchema,
  expiresOn: civilDateSchema.nullable().default(null),
})

const siteParams = z.object({ siteId: id })
const machineParams = z.object({ siteId: id, machineId: id })
const lotParams = z.object({ siteId: id, lotId: id })
const version = z.object({ rowVersion })
const gone = z.object({ id, rowVersion })

export const equipment = {
  machines: endpoint({
    method: 'get',
    path: '/sites/:siteId/machines',
    restsOn: ['treatments'],
    summary: 'Sprayers, machines and tools',
    params: siteParams,
    input: z.object({}),
    response: z.array(machineSchema),
  }),
  addMachine: endpoint({
    method: 'post',
    path: '/sites/:siteId/machines',
    summary: 'Add a sprayer, machine or tool',
    params: siteParams,
    input: machineFields,
    response: machineSchema,
  }),
  updateMachine: endpoint({
    method: 'patch',
    path: '/sites/:siteId/machines/:machineId',
    summary: 'Change a machine, or note its catch test',
    params: machineParams,
    input: machineFields.extend({ rowVersion }),
    response: machineSchema,
  }),
  removeMachine: endpoint({
    method: 'delete',
    path: '/sites/:siteId/machines/:machineId',
    summary: 'Remove a machine; it can be restored',
    params: machineParams,
    input: version,
    response: gone,
  }),
  restoreMachine: endpoint({
    method: 'post',
    path: '/sites/:siteId/machines/:machineId/restore',
    summary: 'Undo the removal of a machine',
    params: machineParams,
    input: version,
    response: machineSchema,
  }),
  lots: endpoint({
    method: 'get',
    path: '/sites/:siteId/lots',
    restsOn: ['treatments'],
    summary: 'Lots of products, and what is left of them by the records',
    params: siteParams,
    input: z.object({}),
    response: z.array(lotSchema),
  }),
  addLot: endpoint({
    method: 'post',
    path: '/sites/:siteId/lots',
    summary: 'Add a lot of a product',
    params: siteParams,
    input: lotFields.extend({ productId: z.uuid({ error: 'choose a product' }) }),
    response: lotSchema,
  }),
  updateLot: endpoint({
    method: 'patch',
    path: '/sites/:siteId/lots/:lotId',
    summary: 'Change a lot, such as after counting what is there',
    params: lotParams,
    input: lotFields.extend({ rowVersion }),
    response: lotSchema,
  }),
  removeLot: endpoint({
    method: 'delete',
    path: '/sites/:siteId/lots/:lotId',
    summary: 'Remove a lot; it can be restored',
    params: lotParams,
    input: version,
    response: gone,
  }),
  restoreLot: endpoint({
    method: 'post',
    path: '/sites/:siteId/lots/:lotId/restore',
    summary: 'Undo the removal of a lot',
    params: lotParams,
    input: version,
    response: lotSchema,
  }),
}
