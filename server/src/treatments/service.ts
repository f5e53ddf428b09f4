import type { ParsedInputOf, Product, Treatment, treatments } from '@bocado/contract'
import { civilDate, dayNumber, seasonLater } from '@bocado/core'
import { civilDayIn } from '../clock.js'
import { getBlock } from '../blocks/service.js'
import { insertRow, sqlInstant, updateRow, type Queryable, type Write } from '../database/index.js'
import { HttpProblem, fieldProblem } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { getSite } from '../sites/service.js'
import { weatherAt } from '../weather/dayHours.js'
import { findWatch, type StoredWatch } from '../watches/store.js'
import { findProduct, findTreatment } from './store.js'

type ProductInput = ParsedInputOf<typeof treatments.addProduct>

const productColumns = (input: ProductInput) => ({
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
  return getProduct(w.tx, w.siteId, await insertRow(w, 'product', productColumns(input)))
}

export async function changeProduct(w: Write, productId: string, input: ParsedInputOf<typeof treatments.updateProduct>): Promise<Product> {
  await updateRow(w, 'product', productId, input.rowVersion, productColumns(input))
  return getProduct(w.tx, w.siteId, productId)
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

export async function planTreatment(w: Write, input: ParsedInputOf<typeof treatments.plan>): Promise<Treatment> {
  const watch = await watchFor(w, input.watchId)
  const product = await getProduct(w.tx, w.siteId, input.productId)
  requireInSeason('plannedOn', input.plannedOn, watch.season)
  const id = await insertRow(w, 'treatment', {
    watch_id: watch.id,
    product_id: product.id,
    status: 'planned',
    planned_on: input.plannedOn,
    note: input.note,
  })
  return getTreatment(w.tx, w.siteId, id)
}

export async function moveTreatment(w: Write, treatmentId: string, input: ParsedInputOf<typeof treatments.move>): Promise<Treatment> {
  const before = await getTreatment(w.tx, w.siteId, treatmentId)
  if (before.status === 'done')
    throw new HttpProblem(409, 'This treatment is recorded as done and can no longer be moved. Correct the record instead.')
  const product = await getProduct(w.tx, w.siteId, input.productId)
  requireInSeason('plannedOn', input.plannedOn, (await watchFor(w, before.watchId)).season)
  await updateRow(w, 'treatment', treatmentId, input.rowVersion, { product_id: product.id, planned_on: input.plannedOn, note: input.note })
  return getTreatment(w.tx, w.siteId, treatmentId)
}

/** Records what was done. The label's highest rate and the block's area are limits, not hints. */
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
  const block = await getBlock(w.tx, w.siteId, watch.blockId)
  const now = await deps.clock.now(w.tx)
  if (Date.parse(input.startedAt) > now.getTime())
    throw fieldProblem('startedAt', 'lies in the future; record a treatment when it has been done')
  const { timeZone } = await getSite(w.tx, deps.clock, w.siteId)
  requireInSeason('startedAt', civilDayIn(new Date(input.startedAt), timeZone), watch.season)
  if (input.rate > product.labelRate)
    throw fieldProblem('rate', `is above the label of ${product.name}: at most ${product.labelRate} ${product.rateUnit}`)
  if (block.areaHa !== null && input.areaHa > block.areaHa)
    throw fieldProblem('areaHa', `is more than ${block.name} has: ${block.areaHa} ha`)
  await updateRow(w, 'treatment', treatmentId, input.rowVersion, {
    status: 'done',
    started_at: sqlInstant(input.startedAt),
    rate: input.rate,
    area_ha: input.areaHa,
    temperature: input.weather.tempC,
    humidity: input.weather.humidityPct,
    wind: input.weather.windMs,
    product_then: JSON.stringify(product),
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
