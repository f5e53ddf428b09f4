import type { Made, ParsedInputOf, Treatment, treatments } from '@bocado/contract'
import { civilDate, dayNumber, seasonLater } from '@bocado/core'
import { hectaresFromSquareMetres, squareMetresFromHectares } from '@bocado/core/units'
import { civilDayIn } from '../clock.js'
import { getBlock } from '../blocks/service.js'
import {
  insertRow,
  isStored,
  liveRow,
  madeColumns,
  sqlInstant,
  updateRow,
  type Queryable,
  type Row,
  type Write,
} from '../database/index.js'
import { listLots, listMachines } from '../equipment/store.js'
import { HttpProblem, fieldProblem, fieldsProblem, refusal } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { clearOf } from '../ground/service.js'
import { blockOf, SAME_M2, tree, type StoredPlace } from '../places/store.js'
import { getSite } from '../sites/service.js'
import { peopleOf } from '../sites/store.js'
import { weatherAt } from '../weather/dayHours.js'
import { findWatch, type StoredWatch } from '../watches/store.js'
import { againstDay, againstFit, againstIdentity, lockGround, verdictOf, type Against, type Doing } from './allowed.js'
import { meansOf } from './chosen.js'
import { departuresOf } from './departures.js'
import { REFUSALS } from './gate.js'
import { nameOf, type Means } from './means.js'
import { findTreatment, labelOf } from './store.js'
import { whyOf } from './why.js'

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

/** What was done, by what it was done with on that day: a correction leaves that as it was. */
async function meansThen(w: Write, { done, methodId, productId, name }: Treatment): Promise<Means> {
  if (done?.label) return { product: done.label, method: null }
  if (done && methodId !== null) return { product: null, method: { id: methodId, then: { name, ...done.does } } }
  return meansOf(w.tx, w.siteId, { productId, methodId })
}

const meansColumns = ({ product, method }: Means) => ({ product_id: product?.id ?? null, method_id: method?.id ?? null })

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

/** Refuses a plan with everything that stands against it. */
function refuse(all: readonly Against[]): void {
  if (all.length > 0) throw fieldsProblem(all.map(({ field }) => field))
}

/** Refuses a day that label, law or rules of the place do not allow. */
async function requireDay(w: Write, deps: Deps, doing: Doing): Promise<void> {
  requireInSeason('plannedOn', doing.day, doing.watch.season)
  await lockGround(w.tx, doing.watch)
  refuse(await againstDay(w.tx, deps, w.siteId, doing))
}

export async function planTreatment(w: Write, deps: Deps, input: ParsedInputOf<typeof treatments.plan>): Promise<Treatment> {
  const before = await storedBefore(w, input)
  if (before) return before
  const watch = await watchFor(w, input.watchId)
  const means = await meansOf(w.tx, w.siteId, input)
  const doing = { means, watch, placeId: await placeFor(w, watch, input.placeId), day: input.plannedOn }
  refuse(await againstFit(w.tx, w.siteId, doing))
  refuse(await againstIdentity(w.tx, w.siteId, doing))
  await requireDay(w, deps, doing)
  const columns = {
    watch_id: watch.id,
    organism_id: watch.organismId,
    place_id: doing.placeId,
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
  const means = await meansOf(w.tx, w.siteId, input)
  const watch = await watchFor(w, before.watchId)
  const doing = { means, watch, placeId: await placeFor(w, watch, input.placeId), day: input.plannedOn, except: treatmentId }
  refuse(await againstFit(w.tx, w.siteId, doing))
  await requireDay(w, deps, doing)
  await updateRow(w, 'deed', treatmentId, input.rowVersion, {
    ...meansColumns(means),
    place_id: doing.placeId,
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
  /** Of a record that is there already. */
  treatmentId?: string | undefined
}

/** A product is used at a rate on an area. */
function requireAmounts({ rate, areaHa }: DoneInput): void {
  if (rate === null) throw fieldProblem('rate', 'enter the rate used')
  if (areaHa === null) throw fieldProblem('areaHa', 'enter the area treated')
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

/** Refuses machines and lots that are not there; a lot is one of what was used. */
async function requireTools(w: Write, { product }: Means, { machineId, lotId }: DoneInput): Promise<void> {
  if (machineId !== null && !(await listMachines(w.tx, w.siteId)).some(({ id }) => id === machineId))
    throw fieldProblem('machineId', 'choose a machine of this site')
  if (lotId === null) return
  const lot = (await listLots(w.tx, w.siteId)).find(({ id }) => id === lotId)
  if (!product || lot?.productId !== product.id) throw fieldProblem('lotId', 'choose a lot of what was used')
}

/** The columns of what was done. The area of the place is a limit, not a hint. */
async function doneColumns(w: Write, deps: Deps, { watch, placeId, means, doneBy, treatmentId }: DoneAt, input: DoneInput) {
  const place = (await tree(w.tx, w.siteId)).get(placeId)
  const now = await deps.clock.now(w.tx)
  if (Date.parse(input.startedAt) > now.getTime())
    throw fieldProblem('startedAt', 'lies in the future; record a treatment when it has been done')
  const { timeZone } = await getSite(w.tx, deps.clock, w.siteId)
  const day = civilDayIn(new Date(input.startedAt), timeZone)
  requireInSeason('startedAt', day, watch.season)
  if (means.product) requireAmounts(input)
  if (input.endedAt !== null && Date.parse(input.endedAt) > now.getTime())
    throw fieldProblem('endedAt', 'lies in the future; record a treatment when it has been done')
  if (input.endedAt !== null && input.endedAt < input.startedAt) throw fieldProblem('endedAt', 'must not lie before it was begun')
  await requireTools(w, means, input)
  if (place?.areaM2 && input.areaHa !== null && squareMetresFromHectares(input.areaHa) > place.areaM2 + SAME_M2)
    throw refusal('areaHa', 'area.more-than-place', { place: place.name, area: { si: hectaresFromSquareMetres(place.areaM2), unit: 'ha' } })
  if (place) await requireClear(w, place, input)
  const doing = { means, watch, placeId, day, except: treatmentId }
  const departures = await departuresOf(w, deps, doing, input)
  if (departures.some(({ because }) => because === 'rate') && input.departureReason.length < 3)
    throw fieldProblem('departureReason', 'say why: the rate is above the label')
  return {
    day,
    columns: {
      status: 'done',
      started_at: sqlInstant(input.startedAt),
      rate: means.product ? input.rate : null,
      area_ha: input.areaHa,
      kept_clear: input.keptClearM,
      ended_at: input.endedAt === null ? null : sqlInstant(input.endedAt),
      way: means.product ? input.way : null,
      machine_id: input.machineId,
      lot_id: input.lotId,
      amount_used: means.product ? input.amountUsed : null,
      water_l: input.waterL,
      crop_stage: input.cropStage,
      target_stage: input.targetStage,
      bags: input.bags,
      waste: input.waste,
      departures: JSON.stringify(departures),
      departure_reason: departures.length === 0 ? '' : input.departureReason,
      minutes: input.minutes,
      taken: input.taken?.amount ?? null,
      taken_unit: input.taken?.unit ?? null,
      done_by: await doerOf(w, input.doneById, doneBy),
      ...madeColumns(w, input.made),
      temperature: input.weather.tempC,
      humidity: input.weather.humidityPct,
      wind: input.weather.windMs,
      wind_from: input.weather.windFrom,
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
  const verdict = await verdictOf(w.tx, w.siteId, means, watch)
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
  const { day, columns } = await doneColumns(
    w,
    deps,
    { watch, placeId: before.placeId, means, doneBy: before.done?.doneById, treatmentId },
    input,
  )
  const first = before.done
    ? {}
    : { ...(await deviationOf(w, means, watch, input.note)), why: JSON.stringify(await whyOf(w.tx, w.siteId, watch, day)) }
  await updateRow(w, 'deed', treatmentId, input.rowVersion, { ...columns, ...first })
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
  const means = await meansOf(w.tx, w.siteId, input)
  const verdict = await verdictOf(w.tx, w.siteId, means, watch)
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
    why: JSON.stringify(await whyOf(w.tx, w.siteId, watch, day)),
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
