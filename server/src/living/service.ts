import type { Living, living, ParsedInputOf, Product, ResponseOf, SoilReading, Supply, Treatment } from '@bocado/contract'
import { civilDate, dayNumber, harmsHelpers, orderBy, READING_DAYS, supplyState, usableUntil, type PutOnBefore } from '@bocado/core'
import type { Method } from '@bocado/library'
import { listBlocks } from '../blocks/store.js'
import { insertOnce, insertRow, restoreRow, updateRow, type Write } from '../database/index.js'
import { fieldProblem, HttpProblem, refusal } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { methodsOf } from '../library/catalogue.js'
import { isOneGround, blockOf, tree } from '../places/store.js'
import { getSite } from '../sites/service.js'
import { listProducts, listTreatments } from '../treatments/store.js'
import { weatherOfBlocks } from '../weather/groundWeather.js'
import { conditionsOn, isLiving, needsOf } from './conditions.js'
import { findReading, findSupply, listReadings, listSupplies } from './store.js'

/** Everything living that is planned to be put out: its order, what it would live in, and what would harm it. */
export async function livingAt(deps: Deps, siteId: string): Promise<ResponseOf<typeof living.read>> {
  const { db, clock } = deps
  const site = await getSite(db, clock, siteId)
  const today = dayNumber(site.today)
  const readings = await listReadings(db, siteId, civilDate(today - 2 * READING_DAYS))
  const [treatments, products, methods] = [
    await listTreatments(db, siteId, site.season.start),
    await listProducts(db, siteId),
    await methodsOf(db, siteId),
  ]
  const of = ({ methods: ids }: Pick<Product, 'methods'>): Method[] => methods.filter(({ id }) => ids.includes(id))
  const due = treatments.flatMap((treatment) => {
    const product = products.find(({ id }) => id === treatment.productId)
    return treatment.status === 'planned' && product && isLiving(product, of(product)) ? [{ treatment, product }] : []
  })
  if (due.length === 0) return { planned: [], readings }
  const [supplies, places, blocks, weatherAt] = [
    await listSupplies(db, siteId),
    await tree(db, siteId),
    await listBlocks(db, siteId),
    await weatherOfBlocks(deps, site, site.season.start),
  ]
  const planned: Living[] = []
  for (const { treatment, product } of due) {
    const supply = supplies.find(({ treatmentId }) => treatmentId === treatment.id) ?? null
    const block = blocks.find(({ id }) => id === blockOf(places, treatment.placeId)?.id)
    const plannedOn = dayNumber(treatment.plannedOn)
    const needs = needsOf(product, of(product))
    const there = readings.filter(({ placeId }) => placeId === treatment.placeId || placeId === block?.id)
    // A thermometer in the pot or bed itself tells more than one elsewhere in the block.
    const own = there.filter(({ placeId }) => placeId === treatment.placeId)
    const at = block && needs ? await weatherAt(block) : undefined
    const near = treatments.filter(({ placeId }) => isOneGround(places, placeId, treatment.placeId))
    planned.push({
      treatmentId: treatment.id,
      name: treatment.name,
      plannedOn: treatment.plannedOn,
      placeId: treatment.placeId,
      ...ordered(treatment, product, supply, today),
      supply,
      conditions: at && block && needs ? conditionsOn(Math.max(plannedOn, today), needs, at, block, own.length > 1 ? own : there) : null,
      residues: harmsHelpers(putOn(near, products, methods), plannedOn).map(({ name, until }) => ({ name, until: civilDate(until) })),
    })
  }
  return { planned, readings }
}

/** Where the order stands, and its days. */
export function ordered(
  { plannedOn }: Pick<Treatment, 'plannedOn'>,
  { orderDays, keepsDays }: Pick<Product, 'orderDays' | 'keepsDays'>,
  supply: Pick<Supply, 'orderedOn' | 'arrivedOn' | 'alive'> | null,
  today: number,
): Pick<Living, 'orderBy' | 'usableUntil' | 'state'> {
  const of = { plannedOn: dayNumber(plannedOn), orderDays, keepsDays }
  const day = (date: string | null | undefined): number | null => (date == null ? null : dayNumber(date))
  const known = { orderedOn: day(supply?.orderedOn), arrivedOn: day(supply?.arrivedOn), alive: supply?.alive ?? null }
  const [last, until] = [orderBy(of), usableUntil(known, keepsDays)]
  return {
    orderBy: last === null ? null : civilDate(last),
    usableUntil: until === null ? null : civilDate(until),
    state: supplyState(of, known, today),
  }
}

/** What was done or is planned with products on some ground, by what each is. */
function putOn(treatments: readonly Treatment[], products: readonly Product[], methods: readonly Method[]): PutOnBefore[] {
  return treatments.flatMap(({ done, plannedOn, productId, name }) => {
    if (productId === null) return []
    const ids = done?.does.methods ?? products.find(({ id }) => id === productId)?.methods ?? []
    const known = methods.filter(({ id }) => ids.includes(id))
    return [
      {
        name,
        day: dayNumber(done?.day ?? plannedOn),
        methods: ids,
        chemical: known.length === 0 || known.some(({ kind }) => kind === 'chemical'),
      },
    ]
  })
}

/** Keeps what was said of an order. Who says it at the same moment as another is told of theirs. */
export async function noteSupply(w: Write, deps: Deps, input: ParsedInputOf<typeof living.note>): Promise<Supply> {
  const { today, season } = await getSite(w.tx, deps.clock, w.siteId)
  const treatment = (await listTreatments(w.tx, w.siteId, season.start)).find(({ id }) => id === input.treatmentId)
  if (!treatment) throw fieldProblem('treatmentId', 'name a treatment of this season')
  for (const path of ['orderedOn', 'arrivedOn'] as const) {
    const day = input[path]
    if (day !== null && day > today) throw refusal(path, 'day.future', { today: { day: today } })
  }
  if (input.orderedOn !== null && input.arrivedOn !== null && input.arrivedOn < input.orderedOn)
    throw fieldProblem('arrivedOn', 'must not lie before the day on which it was ordered')
  if (input.alive !== null && input.arrivedOn === null) throw fieldProblem('alive', 'is looked at once it is there: say when it came')
  const columns = { ordered_on: input.orderedOn, arrived_on: input.arrivedOn, alive: input.alive, note: input.note }
  const before = await findSupply(w.tx, w.siteId, input.treatmentId)
  if (before) await updateRow(w, 'supply', before.id, input.rowVersion ?? 0, columns)
  else
    await insertOnce(
      w,
      'supply',
      { treatment_id: input.treatmentId, ...columns },
      () => new HttpProblem(409, 'Somebody else has just said something of this order. Look at what they said, and say it again.'),
    )
  return (await findSupply(w.tx, w.siteId, input.treatmentId)) as Supply
}

export async function addReading(w: Write, deps: Deps, input: ParsedInputOf<typeof living.readSoil>): Promise<SoilReading> {
  const { today } = await getSite(w.tx, deps.clock, w.siteId)
  if (input.readOn > today) throw refusal('readOn', 'day.future', { today: { day: today } })
  if (!(await tree(w.tx, w.siteId)).has(input.placeId)) throw fieldProblem('placeId', 'choose a place of this site')
  const id = await insertRow(w, 'soil_reading', { place_id: input.placeId, read_on: input.readOn, celsius: input.celsius })
  return getReading(w, id)
}

async function getReading(w: Write, id: string): Promise<SoilReading> {
  const found = await findReading(w.tx, w.siteId, id)
  if (!found) throw new HttpProblem(404, 'There is no such reading at this site.')
  return found
}

export async function restoreReading(w: Write, id: string, rowVersion: number): Promise<SoilReading> {
  await restoreRow(w, 'soil_reading', id, rowVersion)
  return getReading(w, id)
}
