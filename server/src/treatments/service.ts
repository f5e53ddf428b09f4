import type { ParsedInputOf, Product, Treatment, treatments } from '@bocado/contract'
import { civilDate, dayNumber, seasonLater } from '@bocado/core'
import { hectaresFromSquareMetres, squareMetresFromHectares } from '@bocado/core/units'
import { civilDayIn } from '../clock.js'
import { getBlock } from '../blocks/service.js'
import { insertRow, ownerColumns, sqlInstant, updateRow, type Queryable, type Row, type Write } from '../database/index.js'
import { HttpProblem, fieldProblem } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { blockOf, SAME_M2, tree } from '../places/store.js'
import { getSite } from '../sites/service.js'
import { peopleOf } from '../sites/store.js'
import { weatherAt } from '../weather/dayHours.js'
import { findWatch, type StoredWatch } from '../watches/store.js'
import { findProduct, findTreatment, labelOf } from './store.js'

type ProductInput = ParsedInputOf<typeof treatments.addProduct>

const productColumns = async (w: Write, input: ProductInput) => ({
  ...(await ownerColumns(w, input.shared)),
  name: input.name,
  kind: input.kind,
  stages: JSON.stringify(input.stages),
  effect: input.effect,
  residual_days: input.residualDays,
  label_rate: input.labelRate,
  rate_unit: input.rateUnit,
  re_entry_hours: input.reEntryHours,
  pre_harvest_days: input.preHarvestDays,
  bees: input.bees,
  protection: input.protection,
})

async function getProduct(db: Queryable, siteId: string, productId: string): Promise<Product> {
  const product = await findProduct(db, siteId, productId)
  if (!product) throw fieldProblem('productId', 'choose a product of this site’s shelf')
  return product
}

export async function addProduct(w: Write, input: ProductInput): Promise<Product> {
  return getProduct(w.tx, w.siteId, await insertRow(w, 'product', await productColumns(w, input)))
}

export async function changeProduct(w: Write, productId: string, input: ParsedInputOf<typeof treatments.updateProduct>): Promise<Product> {
  if (!input.shared) await requireUnusedElsewhere(w, productId)
  await updateRow(w, 'product', productId, input.rowVersion, await productColumns(w, input))
  return getProduct(w.tx, w.siteId, productId)
}

/** A product that other sites of the holding have planned or used cannot leave their shelf. */
async function requireUnusedElsewhere(w: Write, productId: string): Promise<void> {
  const [[row]] = await w.tx.query<Row[]>(
    'SELECT s.name FROM deed d JOIN site s ON s.id = d.site_id WHERE d.product_id = ? AND d.site_id <> ? AND d.deleted_at IS NULL LIMIT 1',
    [productId, w.siteId],
  )
  if (row) throw fieldProblem('shared', `${row['name'] as string} uses it, too: it stays on the shelf of every site of the holding`)
}

export async function getTreatment(db: Queryable, siteId: string, treatmentId: string): Promise<Treatment> {
  const treatment = await findTreatment(db, siteId, treatmentId)
  if (!treatment) throw new HttpProblem(404, 'There is no such treatment at this site.')
  return treatment
}

async function watchFor(w: Write, watchId: string): Promise<StoredWatch> {
  const watch = await findWatch(w.tx, w.siteId, watchId)
  if (!watch) throw fieldProblem('watchId', 'choose a watch of this site')
  return watch
}

function requireInSeason(path: string, day: string, season: string): void {
  const end = civilDate(seasonLater(dayNumber(season), 1) - 1)
  if (day < season || day > end) throw fieldProblem(path, `must lie in the season, ${season} to ${end}`)
}

/** The place that is named, or the watch's whole block; it has to lie in that block. */
async function placeFor(w: Write, watch: Pick<StoredWatch, 'blockId'>, placeId: string | null): Promise<string> {
  if (placeId === null || placeId === watch.blockId) return watch.blockId
  if (blockOf(await tree(w.tx, w.siteId), placeId)?.id !== watch.blockId)
    throw fieldProblem('placeId', 'choose the block of the watch, or a part of it')
  return placeId
}

/** What a device sent before, and sends again because it never heard the answer, is there already. */
async function storedBefore(w: Write, id: string | undefined): Promise<Treatment | undefined> {
  return id === undefined ? undefined : findTreatment(w.tx, w.siteId, id)
}

export async function planTreatment(w: Write, input: ParsedInputOf<typeof treatments.plan>): Promise<Treatment> {
  const before = await storedBefore(w, input.id)
  if (before) return before
  const watch = await watchFor(w, input.watchId)
  const product = await getProduct(w.tx, w.siteId, input.productId)
  requireInSeason('plannedOn', input.plannedOn, watch.season)
  const columns = {
    watch_id: watch.id,
    organism_id: watch.organismId,
    place_id: await placeFor(w, watch, input.placeId),
    product_id: product.id,
    status: 'planned',
    planned_on: input.plannedOn,
    note: input.note,
  }
  const id = await insertRow(w, 'deed', columns, input.id)
  return getTreatment(w.tx, w.siteId, id)
}

export async function moveTreatment(w: Write, treatmentId: string, input: ParsedInputOf<typeof treatments.move>): Promise<Treatment> {
  const before = await getTreatment(w.tx, w.siteId, treatmentId)
  if (before.status === 'done')
    throw new HttpProblem(409, 'This treatment is recorded as done and can no longer be moved. Correct the record instead.')
  const product = await getProduct(w.tx, w.siteId, input.productId)
  const watch = await watchFor(w, before.watchId)
  requireInSeason('plannedOn', input.plannedOn, watch.season)
  await updateRow(w, 'deed', treatmentId, input.rowVersion, {
    product_id: product.id,
    place_id: await placeFor(w, watch, input.placeId),
    planned_on: input.plannedOn,
    note: input.note,
  })
  return getTreatment(w.tx, w.siteId, treatmentId)
}

/** Who did it: somebody of this site. */
async function doerOf(w: Write, personId: string | null): Promise<string> {
  if (personId === null) return w.personId
  const people = (await peopleOf(w.tx, [w.siteId])).get(w.siteId) ?? []
  if (!people.some(({ id }) => id === personId)) throw fieldProblem('doneById', 'choose somebody of this site')
  return personId
}

/** Records what was done. The label's highest rate and the area of the place are limits, not hints. */
export async function recordTreatment(
  w: Write,
  deps: Deps,
  treatmentId: string,
  input: ParsedInputOf<typeof treatments.record>,
): Promise<Treatment> {
  const before = await getTreatment(w.tx, w.siteId, treatmentId)
  const watch = await watchFor(w, before.watchId)
  // A correction is held against the label of its day, and leaves that label as it was.
  const product = before.done?.label ?? (await getProduct(w.tx, w.siteId, before.productId))
  const place = (await tree(w.tx, w.siteId)).get(before.placeId)
  const now = await deps.clock.now(w.tx)
  if (Date.parse(input.startedAt) > now.getTime())
    throw fieldProblem('startedAt', 'lies in the future; record a treatment when it has been done')
  const { timeZone } = await getSite(w.tx, deps.clock, w.siteId)
  requireInSeason('startedAt', civilDayIn(new Date(input.startedAt), timeZone), watch.season)
  if (input.rate > product.labelRate)
    throw fieldProblem('rate', `is above the label of ${product.name}: at most ${product.labelRate} ${product.rateUnit}`)
  if (place?.areaM2 && squareMetresFromHectares(input.areaHa) > place.areaM2 + SAME_M2)
    throw fieldProblem('areaHa', `is more than ${place.name} has: ${Number(hectaresFromSquareMetres(place.areaM2).toFixed(6))} ha`)
  await updateRow(w, 'deed', treatmentId, input.rowVersion, {
    status: 'done',
    started_at: sqlInstant(input.startedAt),
    rate: input.rate,
    area_ha: input.areaHa,
    minutes: input.minutes,
    done_by: await doerOf(w, input.doneById),
    ...(input.made ? { recorded_at: sqlInstant(input.made.at), queue_order: input.made.order } : {}),
    temperature: input.weather.tempC,
    humidity: input.weather.humidityPct,
    wind: input.weather.windMs,
    product_then: JSON.stringify(labelOf(product)),
    note: input.note,
  })
  return getTreatment(w.tx, w.siteId, treatmentId)
}

/** The reading of the watch's station in the hour of a moment. */
export async function weatherForWatch(deps: Deps, siteId: string, watchId: string, at: string) {
  const watch = await findWatch(deps.db, siteId, watchId)
  if (!watch) throw new HttpProblem(404, 'There is no such watch at this site.')
  const block = await getBlock(deps.db, siteId, watch.blockId)
  return weatherAt(deps, siteId, block.id, at, block.follows?.stationId)
}
