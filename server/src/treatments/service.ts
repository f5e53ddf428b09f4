import type { Label, Made, ParsedInputOf, Product, Treatment, treatments } from '@bocado/contract'
import { civilDate, dayNumber, rateFor, seasonLater, type GateVerdict, type RuledMeans } from '@bocado/core'
import { hectaresFromSquareMetres, squareMetresFromHectares } from '@bocado/core/units'
import { civilDayIn } from '../clock.js'
import { getBlock } from '../blocks/service.js'
import {
  insertRow,
  isStored,
  liveRow,
  madeColumns,
  ownerColumns,
  sqlInstant,
  updateRow,
  type Queryable,
  type Row,
  type Write,
} from '../database/index.js'
import { HttpProblem, fieldProblem, refusal } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { clearOf } from '../ground/service.js'
import { blockOf, SAME_M2, tree, type StoredPlace } from '../places/store.js'
import { methodsByIds } from '../library/catalogue.js'
import { requireByRules } from '../rules/service.js'
import { getSite } from '../sites/service.js'
import { inFlowerOn } from '../bloom/blooming.js'
import { requireToldApart } from '../library/toldApart.js'
import { peopleOf } from '../sites/store.js'
import { weatherAt } from '../weather/dayHours.js'
import { findWatch, organismOf, type StoredWatch } from '../watches/store.js'
import { gateFor, REFUSALS, requireKnownLabel } from './gate.js'
import { actionOf, doesByKind, handGate, requireHandMethod } from './means.js'
import { findProduct, findTreatment, labelOf, listProducts, listTreatments, type MethodThen } from './store.js'

type ProductInput = ParsedInputOf<typeof treatments.addProduct>

const productColumns = async (w: Write, input: ProductInput) => ({
  ...(await ownerColumns(w, input.shared)),
  name: input.name,
  methods: JSON.stringify(input.methods),
  strain: input.strain,
  active: input.active,
  formulation: input.formulation,
  ways: JSON.stringify(input.ways),
  targets: JSON.stringify(input.targets),
  crops: JSON.stringify(input.crops),
  places: JSON.stringify(input.places),
  stages: JSON.stringify(input.stages),
  ...(await actionColumns(w, input)),
  label_rate: input.labelRate,
  rate_unit: input.rateUnit,
  re_entry_hours: input.reEntryHours,
  pre_harvest_days: input.preHarvestDays,
  bees: input.bees,
  protection: input.protection,
  licensed_only: input.licensedOnly,
  registration: input.registration,
  least_interval_days: input.leastIntervalDays,
  most_per_season: input.mostPerSeason,
  rain_fast_hours: input.rainFastHours,
  max_wind_ms: input.maxWindMs,
  min_temp_c: input.minTempC,
  max_temp_c: input.maxTempC,
  rates: JSON.stringify(input.rates),
  most_amount: input.mostAmount,
  least_volume: input.leastVolume,
  plant_back_days: input.plantBackDays,
  grazing_days: input.grazingDays,
  carries_over: input.carriesOver,
  buffer_m: input.bufferM,
  buffer_low_drift_m: input.bufferLowDriftM,
  action_group: input.actionGroup,
  not_within: JSON.stringify(input.notWithin),
  burns: JSON.stringify(input.burns),
  crop_stages: input.cropStages,
  soil_min_c: input.soilMinC,
  organic: input.organic,
  order_days: input.orderDays,
  keeps_days: input.keepsDays,
})

async function actionColumns(w: Write, input: ProductInput) {
  const { effect, residualDays, assumed } = await actionOf(w.tx, w.siteId, input)
  return { effect, residual_days: residualDays, assumed: JSON.stringify(assumed) }
}

async function getProduct(db: Queryable, siteId: string, productId: string): Promise<Product> {
  const product = await findProduct(db, siteId, productId)
  if (!product) throw fieldProblem('productId', 'choose a product of this site’s shelf')
  return product
}

export async function addProduct(w: Write, input: ProductInput): Promise<Product> {
  await requireKnownLabel(w.tx, w.siteId, input)
  return getProduct(w.tx, w.siteId, await insertRow(w, 'product', await productColumns(w, input)))
}

export async function changeProduct(w: Write, productId: string, input: ParsedInputOf<typeof treatments.updateProduct>): Promise<Product> {
  await requireKnownLabel(w.tx, w.siteId, input)
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
  if (day < season || day > end) throw refusal(path, 'day.within-season', { from: { day: season }, to: { day: end } })
}

/** What a deed is done with: a product by its label, or a method by hand. */
type Means = { product: Label; method: null } | { product: null; method: { id: string; then: MethodThen } }

/** The product or the method that is named: one of both, never both. */
async function meansOf(w: Write, { productId, methodId }: { productId: string | null; methodId: string | null }): Promise<Means> {
  if (productId !== null && methodId !== null)
    throw fieldProblem('methodId', 'name the product or the method by hand, not both: each is a deed of its own')
  if (methodId !== null) {
    const method = await requireHandMethod(w.tx, w.siteId, methodId)
    return { product: null, method: { id: method.id, then: { name: method.name, ...doesByKind([method]) } } }
  }
  if (productId === null) throw fieldProblem('productId', 'choose a product, or a method that needs none')
  return { product: await getProduct(w.tx, w.siteId, productId), method: null }
}

/** What was done, by what it was done with on that day: a correction leaves that as it was. */
async function meansThen(w: Write, { done, methodId, productId, name }: Treatment): Promise<Means> {
  if (done?.label) return { product: done.label, method: null }
  if (done && methodId !== null) return { product: null, method: { id: methodId, then: { name, ...done.does } } }
  return meansOf(w, { productId, methodId })
}

const nameOf = ({ product, method }: Means): string => product?.name ?? method?.then.name ?? ''

const meansColumns = ({ product, method }: Means) => ({ product_id: product?.id ?? null, method_id: method?.id ?? null })

/** Whether it is for the organism of a watch, in its block. */
async function verdictOf(w: Write, { product, method }: Means, watch: StoredWatch): Promise<GateVerdict> {
  const organism = organismOf(watch)
  return product ? gateFor(product, organism, await getBlock(w.tx, w.siteId, watch.blockId)) : handGate(method.id, organism)
}

/** Refuses what is not for the organism of a watch, in its block: it is never planned, whoever asks. */
async function requireFit(w: Write, means: Means, watch: StoredWatch): Promise<void> {
  const verdict = await verdictOf(w, means, watch)
  if (verdict.verdict !== 'refused') return
  throw fieldProblem(means.product ? 'productId' : 'methodId', `${nameOf(means)} ${REFUSALS[verdict.because]}`)
}

/** Refuses a day on which something may flower in or beside the place, where the label forbids that. */
async function requireOutOfBloom(deps: Deps, siteId: string, { product }: Means, blockId: string, day: string): Promise<void> {
  if (product?.bees !== 'forbidden-in-bloom') return
  const there = await inFlowerOn(deps, siteId, blockId, day)
  if (there.length > 0)
    throw fieldProblem(
      'plannedOn',
      `the label of ${product.name} forbids it in bloom, and ${there.join(', ')} may flower in or beside the place then: take a later day, mow what flowers the evening before, or choose what spares bees`,
    )
}

/** What is planned, as rules of the place tell it apart. */
async function ruledMeans(w: Write, { product, method }: Means): Promise<RuledMeans> {
  const methods = product ? product.methods : [method.id]
  const known = await methodsByIds(w.tx, w.siteId, methods)
  return { ways: product ? product.ways : null, methods, chemical: known.some(({ kind }) => kind === 'chemical') }
}

/** Refuses a day that a rule of the place closes, and chemicals where the site uses none. */
async function requireAllowedHere(w: Write, deps: Deps, means: Means, day: string): Promise<void> {
  const site = await getSite(w.tx, deps.clock, w.siteId)
  await requireByRules(w.tx, site, { means: await ruledMeans(w, means), name: nameOf(means) }, day)
}

/** Refuses a day that the label does not allow after or before others of the same product on the same block, or one more than it allows. */
async function requireSpaced(w: Write, { product }: Means, watch: StoredWatch, day: string, except?: string): Promise<void> {
  if (!product) return
  const { leastIntervalDays: least, mostPerSeason: most, mostAmount } = product
  // Who plans it at the same moment waits here, and then sees this one.
  await w.tx.query('SELECT id FROM place WHERE id = ? FOR UPDATE', [watch.blockId])
  const [rows] = await w.tx.query<Row[]>('SELECT id FROM watch WHERE site_id = ? AND block_id = ? AND season = ? AND deleted_at IS NULL', [
    w.siteId,
    watch.blockId,
    watch.season,
  ])
  const here = new Set(rows.map((row) => row['id'] as string))
  const others = (await listTreatments(w.tx, w.siteId, watch.season)).filter(({ id, watchId }) => id !== except && here.has(watchId))
  const all = others.filter(({ productId }) => productId === product.id)
  // One day’s spray against two watches of the block is one treatment of the ground.
  const days = [...new Set(all.map(({ done, plannedOn }) => done?.day ?? plannedOn))].filter((other) => other !== day)
  const near = days.find((other) => least !== null && Math.abs(dayNumber(other) - dayNumber(day)) < least)
  if (near !== undefined && least !== null)
    throw refusal('plannedOn', 'label.spaced', { name: product.name, days: least, other: { day: near } })
  if (most !== null && days.length >= most) throw refusal('plannedOn', 'label.most-per-season', { name: product.name, most })
  // The same ground on the same day against two watches is one treatment.
  const rates = new Map(all.flatMap(({ done }) => (done?.rate == null ? [] : [[done.day, done.rate]])))
  const used = [...rates.values()].reduce((sum, rate) => sum + rate, 0)
  if (mostAmount !== null && used >= mostAmount)
    throw refusal('productId', 'label.most-amount', { name: product.name, most: `${mostAmount} ${product.rateUnit}` })
  await requireApart(w, product, others, day)
}

/** Refuses a day too near to what the label does not bear, planned or done on the same ground. */
async function requireApart(w: Write, product: Label, others: readonly Treatment[], day: string): Promise<void> {
  const shelf = new Map((await listProducts(w.tx, w.siteId)).map((one) => [one.id, one]))
  for (const other of others) {
    const on = other.done?.day ?? other.plannedOn
    const gap = Math.abs(dayNumber(on) - dayNumber(day))
    const label = other.done?.label ?? shelf.get(other.productId ?? '')
    if (!label || label.id === product.id) continue
    // Either label may ask for it.
    const asks = [
      ...product.notWithin.filter(({ method }) => label.methods.includes(method)).map(({ days }) => ({ name: product.name, days })),
      ...label.notWithin.filter(({ method }) => product.methods.includes(method)).map(({ days }) => ({ name: label.name, days })),
    ].find(({ days }) => gap < days)
    if (asks) {
      const named = asks.name === product.name ? label.name : product.name
      throw refusal('plannedOn', 'label.not-within', { name: asks.name, days: asks.days, other: named, there: label.name, on: { day: on } })
    }
  }
}

/** The place that is named, or the watch's whole block; it has to lie in that block. */
async function placeFor(w: Write, watch: Pick<StoredWatch, 'blockId'>, placeId: string | null): Promise<string> {
  if (placeId === null || placeId === watch.blockId) return watch.blockId
  if (blockOf(await tree(w.tx, w.siteId), placeId)?.id !== watch.blockId)
    throw fieldProblem('placeId', 'choose the block of the watch, or a part of it')
  return placeId
}

/** What a device sent before, and sends again because it never heard the answer, is there already. */
async function storedBefore(w: Write, { id, watchId }: { id?: string | undefined; watchId: string }): Promise<Treatment | undefined> {
  if (id === undefined) return undefined
  // What is there already may be of a watch that was removed since.
  if (await isStored(w, 'deed', id)) return findTreatment(w.tx, w.siteId, id)
  // Sent twice at once, the second waits here for the first, and finds it.
  await liveRow(w.tx, w.siteId, 'watch', watchId, true)
  return findTreatment(w.tx, w.siteId, id)
}

export async function planTreatment(w: Write, deps: Deps, input: ParsedInputOf<typeof treatments.plan>): Promise<Treatment> {
  const before = await storedBefore(w, input)
  if (before) return before
  const watch = await watchFor(w, input.watchId)
  const means = await meansOf(w, input)
  await requireFit(w, means, watch)
  await requireToldApart(w, watch)
  requireInSeason('plannedOn', input.plannedOn, watch.season)
  await requireAllowedHere(w, deps, means, input.plannedOn)
  await requireOutOfBloom(deps, w.siteId, means, watch.blockId, input.plannedOn)
  await requireSpaced(w, means, watch, input.plannedOn)
  const columns = {
    watch_id: watch.id,
    organism_id: watch.organismId,
    place_id: await placeFor(w, watch, input.placeId),
    ...meansColumns(means),
    status: 'planned',
    planned_on: input.plannedOn,
    note: input.note,
    ...madeColumns(w, input.made),
  }
  const id = await insertRow(w, 'deed', columns, input.id)
  return getTreatment(w.tx, w.siteId, id)
}

export async function moveTreatment(
  w: Write,
  deps: Deps,
  treatmentId: string,
  input: ParsedInputOf<typeof treatments.move>,
): Promise<Treatment> {
  const before = await getTreatment(w.tx, w.siteId, treatmentId)
  if (before.status === 'done')
    throw new HttpProblem(409, 'This treatment is recorded as done and can no longer be moved. Correct the record instead.')
  const means = await meansOf(w, input)
  const watch = await watchFor(w, before.watchId)
  await requireFit(w, means, watch)
  requireInSeason('plannedOn', input.plannedOn, watch.season)
  await requireAllowedHere(w, deps, means, input.plannedOn)
  await requireOutOfBloom(deps, w.siteId, means, watch.blockId, input.plannedOn)
  await requireSpaced(w, means, watch, input.plannedOn, treatmentId)
  await updateRow(w, 'deed', treatmentId, input.rowVersion, {
    ...meansColumns(means),
    place_id: await placeFor(w, watch, input.placeId),
    planned_on: input.plannedOn,
    note: input.note,
  })
  return getTreatment(w.tx, w.siteId, treatmentId)
}

/** Who did it: somebody of this site. */
async function doerOf(w: Write, personId: string | null, before: string | undefined): Promise<string> {
  // Whoever corrects a record has not done it.
  if (personId === null || personId === before) return before ?? w.personId
  const people = (await peopleOf(w.tx, [w.siteId])).get(w.siteId) ?? []
  if (!people.some(({ id }) => id === personId)) throw fieldProblem('doneById', 'choose somebody of this site')
  return personId
}

type DoneInput = Omit<ParsedInputOf<typeof treatments.record>, 'rowVersion'>

/** Where it was done, and with what. */
interface DoneAt {
  watch: StoredWatch
  placeId: string
  means: Means
  /** Who is said to have done it, where that is recorded already. */
  doneBy?: string | undefined
}

/** A product is used at a rate on an area; its label's highest rate is a limit, not a hint. */
function requireByLabel(label: Label, most: number, { rate, areaHa }: DoneInput): void {
  if (rate === null) throw fieldProblem('rate', 'enter the rate used')
  if (areaHa === null) throw fieldProblem('areaHa', 'enter the area treated')
  if (rate > most) throw fieldProblem('rate', `is above the label of ${label.name}: at most ${most} ${label.rateUnit}`)
}

/** Refuses an area that reaches into the distance which is said to have been kept; a place that is not drawn tells nothing of that. */
async function requireClear(w: Write, place: StoredPlace, { areaHa, keptClearM }: DoneInput): Promise<void> {
  if (areaHa === null || keptClearM === null) return
  const clear = await clearOf(w.tx, w.siteId, place.id, keptClearM)
  if (!clear || clear.from.length === 0) return
  // What was typed of a place, and what was drawn of it, are seldom quite the same.
  const leftM2 = (clear.leftM2 / clear.wholeM2) * (place.areaM2 ?? clear.wholeM2)
  if (squareMetresFromHectares(areaHa) <= leftM2 * (1 + SAME_SHARE) + SAME_M2) return
  throw refusal('areaHa', 'area.more-than-kept-clear', {
    place: place.name,
    away: { si: keptClearM, unit: 'm' },
    left: { si: hectaresFromSquareMetres(leftM2), unit: 'ha' },
  })
}

/** Areas that differ by less are the same, rounded. */
const SAME_SHARE = 0.01

/** The columns of what was done. The area of the place is a limit, not a hint. */
async function doneColumns(w: Write, deps: Deps, { watch, placeId, means, doneBy }: DoneAt, input: DoneInput) {
  const place = (await tree(w.tx, w.siteId)).get(placeId)
  const now = await deps.clock.now(w.tx)
  if (Date.parse(input.startedAt) > now.getTime())
    throw fieldProblem('startedAt', 'lies in the future; record a treatment when it has been done')
  const { timeZone } = await getSite(w.tx, deps.clock, w.siteId)
  const day = civilDayIn(new Date(input.startedAt), timeZone)
  requireInSeason('startedAt', day, watch.season)
  if (means.product) {
    const { grows } = await getBlock(w.tx, w.siteId, watch.blockId)
    requireByLabel(means.product, rateFor(means.product, watch.organismId, grows), input)
  }
  if (place?.areaM2 && input.areaHa !== null && squareMetresFromHectares(input.areaHa) > place.areaM2 + SAME_M2)
    throw refusal('areaHa', 'area.more-than-place', { place: place.name, area: { si: hectaresFromSquareMetres(place.areaM2), unit: 'ha' } })
  if (place) await requireClear(w, place, input)
  return {
    day,
    columns: {
      status: 'done',
      started_at: sqlInstant(input.startedAt),
      rate: means.product ? input.rate : null,
      area_ha: input.areaHa,
      kept_clear: input.keptClearM,
      minutes: input.minutes,
      taken: input.taken?.amount ?? null,
      taken_unit: input.taken?.unit ?? null,
      done_by: await doerOf(w, input.doneById, doneBy),
      ...madeColumns(w, input.made),
      temperature: input.weather.tempC,
      humidity: input.weather.humidityPct,
      wind: input.weather.windMs,
      product_then: means.product ? JSON.stringify(labelOf(means.product)) : null,
      // Whoever signed it signed what stood there.
      signed_by: null,
      signed_at: null,
      licence_then: null,
      method_then: means.method ? JSON.stringify(means.method.then) : null,
      note: input.note,
    },
  }
}

/**
 * The mark of what was planned before its label, or the library, said that it is not for this: it was done, and a record accepts that. What
 * whoever did it noted stands as the reason.
 */
async function deviationOf(w: Write, means: Means, watch: StoredWatch, note: string) {
  const verdict = await verdictOf(w, means, watch)
  return verdict.verdict === 'refused' ? { deviation: verdict.because, deviation_reason: note.slice(0, 500) } : {}
}

/** Whether this is the very record that stands there: a device that heard no answer sends it again, however late. */
async function wasMade(w: Write, treatmentId: string, made: NonNullable<Made>): Promise<boolean> {
  const [[row]] = await w.tx.query<Row[]>('SELECT id FROM deed WHERE id = ? AND recorded_at = ? AND queue_order = ?', [
    treatmentId,
    sqlInstant(made.at),
    made.order,
  ])
  return row !== undefined
}

/** Records a planned treatment as done, or corrects its record. */
export async function recordTreatment(
  w: Write,
  deps: Deps,
  treatmentId: string,
  input: ParsedInputOf<typeof treatments.record>,
): Promise<Treatment> {
  const before = await getTreatment(w.tx, w.siteId, treatmentId)
  if (before.done && input.made && (await wasMade(w, treatmentId, input.made))) return before
  const watch = await watchFor(w, before.watchId)
  const means = await meansThen(w, before)
  const { columns } = await doneColumns(w, deps, { watch, placeId: before.placeId, means, doneBy: before.done?.doneById }, input)
  const deviation = before.done ? {} : await deviationOf(w, means, watch, input.note)
  await updateRow(w, 'deed', treatmentId, input.rowVersion, { ...columns, ...deviation })
  return getTreatment(w.tx, w.siteId, treatmentId)
}

/**
 * Records what was done without a plan. A record accepts what was done: where neither the library nor the label names the use it is marked
 * as a deviation, with what whoever did it says to that, and no coverage is computed of it.
 */
export async function recordUnplanned(w: Write, deps: Deps, input: ParsedInputOf<typeof treatments.recordUnplanned>): Promise<Treatment> {
  const before = await storedBefore(w, input)
  if (before) return before
  const watch = await watchFor(w, input.watchId)
  const means = await meansOf(w, input)
  const verdict = await verdictOf(w, means, watch)
  const because = verdict.verdict === 'refused' ? verdict.because : null
  if (because !== null && input.deviationReason.length < 3)
    throw fieldProblem('deviationReason', `say why: ${nameOf(means)} ${REFUSALS[because]}`)
  const placeId = await placeFor(w, watch, input.placeId)
  const { day, columns } = await doneColumns(w, deps, { watch, placeId, means }, input)
  const row = {
    watch_id: watch.id,
    organism_id: watch.organismId,
    place_id: placeId,
    ...meansColumns(means),
    planned_on: day,
    deviation: because,
    deviation_reason: because === null ? null : input.deviationReason,
    ...columns,
  }
  return getTreatment(w.tx, w.siteId, await insertRow(w, 'deed', row, input.id))
}

/** The reading of the watch's station in the hour of a moment. */
export async function weatherForWatch(deps: Deps, siteId: string, watchId: string, at: string) {
  const watch = await findWatch(deps.db, siteId, watchId)
  if (!watch) throw new HttpProblem(404, 'There is no such watch at this site.')
  const block = await getBlock(deps.db, siteId, watch.blockId)
  return weatherAt(deps, siteId, block.id, at, block.follows?.stationId)
}
