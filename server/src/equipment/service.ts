import type { equipment, Lot, Machine, ParsedInputOf } from '@bocado/contract'
import { inStock, ratePartsOf } from '@bocado/core'
import { insertOnce, insertRow, ownerColumns, restoreRow, updateOnce, updateRow, type Write } from '../database/index.js'
import { fieldProblem, HttpProblem, refusal } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { getSite } from '../sites/service.js'
import { findProduct } from '../treatments/store.js'
import { listLots, listMachines } from './store.js'

type MachineInput = ParsedInputOf<typeof equipment.addMachine>
type LotInput = Omit<ParsedInputOf<typeof equipment.addLot>, 'productId'>

/** Refuses days that have not come. */
async function requirePast(w: Write, deps: Deps, days: Readonly<Record<string, string | null>>): Promise<void> {
  const { today } = await getSite(w.tx, deps.clock, w.siteId)
  for (const [path, day] of Object.entries(days))
    if (day !== null && day > today) throw refusal(path, 'day.future', { today: { day: today } })
}

async function machineColumns(w: Write, deps: Deps, input: MachineInput) {
  await requirePast(w, deps, { testedOn: input.testedOn })
  if (input.testOff !== null && input.testedOn === null) throw fieldProblem('testedOn', 'say on which day it was tested')
  return {
    ...(await ownerColumns(w, input.shared)),
    name: input.name,
    kind: input.kind,
    tank_l: input.tankL,
    spray_l_per_ha: input.sprayLPerHa,
    low_drift: input.lowDrift,
    tested_on: input.testedOn,
    test_off: input.testOff,
  }
}

async function getMachine(w: Write, id: string): Promise<Machine> {
  const machine = (await listMachines(w.tx, w.siteId)).find((one) => one.id === id)
  if (!machine) throw new HttpProblem(404, 'There is no such machine at this site.')
  return machine
}

export const addMachine = async (w: Write, deps: Deps, input: MachineInput): Promise<Machine> =>
  getMachine(w, await insertRow(w, 'machine', await machineColumns(w, deps, input)))

export async function changeMachine(
  w: Write,
  deps: Deps,
  id: string,
  input: ParsedInputOf<typeof equipment.updateMachine>,
): Promise<Machine> {
  await updateRow(w, 'machine', id, input.rowVersion, await machineColumns(w, deps, input))
  return getMachine(w, id)
}

export async function restoreMachine(w: Write, id: string, rowVersion: number): Promise<Machine> {
  await restoreRow(w, 'machine', id, rowVersion)
  return getMachine(w, id)
}

async function getLot(w: Write, id: string): Promise<Lot> {
  const lot = (await listLots(w.tx, w.siteId)).find((one) => one.id === id)
  if (!lot) throw new HttpProblem(404, 'There is no such lot at this site.')
  return lot
}

async function lotColumns(w: Write, deps: Deps, productId: string, input: LotInput) {
  const product = await findProduct(w.tx, w.siteId, productId)
  if (!product) throw fieldProblem('productId', 'choose a product of this site’s shelf')
  const measured = inStock(1, ratePartsOf(product.rateUnit).of).unit
  if (inStock(1, input.unit).unit !== measured)
    throw fieldProblem('unit', `the label of ${product.name} measures it in ${measured}: choose a unit of the same kind`)
  await requirePast(w, deps, { cameOn: input.cameOn })
  return { number: input.number, amount: input.amount, unit: input.unit, came_on: input.cameOn, expires_on: input.expiresOn }
}

const knownLot = (): HttpProblem =>
  new HttpProblem(422, 'number: this lot of the product is on the shelf already', {
    fields: [{ path: 'number', message: 'this lot of the product is on the shelf already; change that one' }],
  })

export async function addLot(w: Write, deps: Deps, { productId, ...input }: ParsedInputOf<typeof equipment.addLot>): Promise<Lot> {
  const columns = await lotColumns(w, deps, productId, input)
  return getLot(w, await insertOnce(w, 'lot', { product_id: productId, ...columns }, knownLot))
}

export async function changeLot(w: Write, deps: Deps, id: string, input: ParsedInputOf<typeof equipment.updateLot>): Promise<Lot> {
  const { productId } = await getLot(w, id)
  await updateOnce(w, 'lot', id, input.rowVersion, await lotColumns(w, deps, productId, input), knownLot)
  return getLot(w, id)
}

export async function restoreLot(w: Write, id: string, rowVersion: number): Promise<Lot> {
  await restoreRow(w, 'lot', id, rowVersion)
  return getLot(w, id)
}
