import type { BloomRecord, BloomTrigger, ParsedInputOf, Site, bloom } from '@bocado/contract'
import { civilDate, dayNumber } from '@bocado/core'
import { insertRow, restoreRow, type Queryable, type Row, type Write } from '../database/index.js'
import { fieldProblem } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { floweringAfter } from './blooming.js'
import { requirePlant } from './plants.js'
import { listRounds } from '../scouting/service.js'
import { gateFor, REFUSALS } from '../treatments/gate.js'
import { findProduct, listTreatments } from '../treatments/store.js'
import { getBlock } from '../blocks/service.js'
import { findWatch, organismOf, type StoredWatch } from '../watches/store.js'
import { organismsOf } from '../library/catalogue.js'
import { datedEvents } from '@bocado/library'
import { listSightings } from '../watches/eventRecords.js'

/**
 * Adds a trigger. One that would bring a treatment that is hazardous to bees into what flowers in or beside the treated place is refused,
 * with the reason.
 */
export async function addTrigger(
  w: Write,
  deps: Deps,
  input: ParsedInputOf<typeof bloom.addTrigger>,
): Promise<{ id: string; rowVersion: number }> {
  const plant = input.plantId === null ? undefined : await requirePlant(w.tx, w.siteId, input.plantId)
  const watch = await findWatch(w.tx, w.siteId, input.watchId)
  if (!watch) throw fieldProblem('watchId', 'choose a watch of this site')
  if (!plant) {
    const known = datedEvents(organismOf(watch))
    if (!known.some(({ id }) => id === input.event))
      throw fieldProblem('event', `must be an event of ${organismOf(watch).name}: ${known.map(({ id }) => id).join(', ')}`)
  }
  const productId = input.action === 'treat' ? input.productId : null
  if (productId) {
    const product = await findProduct(w.tx, w.siteId, productId)
    if (!product) throw fieldProblem('productId', 'choose a product of this site’s shelf')
    const fit = gateFor(product, organismOf(watch), await getBlock(w.tx, w.siteId, watch.blockId))
    if (fit.verdict === 'refused') throw fieldProblem('productId', `${product.name} ${REFUSALS[fit.because]}`)
    if (plant && product.bees !== 'none-stated')
      await requireNoBloomThere(deps, w.siteId, { watch, plantId: plant.id, input, name: product.name })
  }
  const { plantId, event, daysAfter, watchId, action } = input
  const id = await insertRow(w, 'bloom_trigger', {
    plant_id: plantId,
    event,
    days_after: daysAfter,
    watch_id: watchId,
    action,
    product_id: productId,
  })
  return { id, rowVersion: 1 }
}

/** Bees are judged by what flowers in or beside the treated place, on the days on which the trigger is expected; not by its sign alone. */
async function requireNoBloomThere(
  deps: Deps,
  siteId: string,
  p: { watch: StoredWatch; plantId: string; input: Pick<ParsedInputOf<typeof bloom.addTrigger>, 'event' | 'daysAfter'>; name: string },
): Promise<void> {
  const there = await floweringAfter(deps, siteId, p.watch.blockId, p)
  if (there.length === 0) return
  throw fieldProblem(
    'productId',
    `${p.name} is hazardous to bees, and ${there.join(', ')} may flower in or beside the place then. Wait longer, take another sign, or choose what spares bees`,
  )
}

export async function restoreTrigger(w: Write, id: string, rowVersion: number): Promise<{ id: string; rowVersion: number }> {
  await restoreRow(w, 'bloom_trigger', id, rowVersion)
  return { id, rowVersion: rowVersion + 1 }
}

/** The triggers of a site with where each stands this season. */
export async function listTriggers(db: Queryable, site: Site, records: readonly BloomRecord[]): Promise<BloomTrigger[]> {
  const [rows] = await db.query<Row[]>(
    `SELECT t.*, w.organism_id, w.block_id, b.name AS block_name, p.name AS product_name FROM bloom_trigger t
     JOIN watch w ON w.id = t.watch_id JOIN place b ON b.id = w.block_id LEFT JOIN product p ON p.id = t.product_id
     WHERE t.site_id = ? AND t.deleted_at IS NULL AND w.deleted_at IS NULL ORDER BY t.created_at, t.id`,
    [site.id],
  )
  if (rows.length === 0) return []
  const [rounds, treatments, organisms, sightings] = await Promise.all([
    listRounds(db, site.id, site.season.start),
    listTreatments(db, site.id, site.season.start),
    organismsOf(db, site.id),
    listSightings(db, site.id),
  ])
  return rows.map((row): BloomTrigger => {
    const watchId = row['watch_id'] as string
    const organism = organisms.find(({ id }) => id === row['organism_id'])
    const plantId = row['plant_id'] as string | null
    const event = row['event'] as string
    const inSeason = <R extends { season: string; event: string }>(all: readonly R[]): R[] =>
      all.filter((r) => r.season === site.season.start && r.event === event)
    const days =
      plantId === null
        ? inSeason(sightings)
            .filter((s) => s.kind === 'first' && s.blockId === row['block_id'] && s.organismId === row['organism_id'])
            .map(({ seenOn }) => seenOn)
        : inSeason(records)
            .filter((r) => !r.notYet && r.plantId === plantId)
            .map(({ seenFrom }) => seenFrom)
    const seen = days.sort()[0]
    const dueOn = seen ? civilDate(dayNumber(seen) + (row['days_after'] as number)) : null
    const action = row['action'] as BloomTrigger['action']
    const done =
      dueOn !== null &&
      (action === 'scout'
        ? rounds.some((r) => r.watchId === watchId && r.countedOn >= dueOn)
        : treatments.some((t) => t.watchId === watchId && t.done !== null && t.done.day >= dueOn))
    return {
      id: row['id'] as string,
      plantId,
      event,
      eventName: plantId === null ? ((organism && datedEvents(organism).find(({ id }) => id === event)?.name) ?? event) : null,
      daysAfter: row['days_after'] as number,
      watchId,
      watchName: `${organism?.name ?? ''}, ${row['block_name'] as string}`,
      action,
      productName: row['product_name'] as string | null,
      state: dueOn === null ? 'waiting' : done ? 'done' : dueOn > site.today ? 'coming' : 'due',
      dueOn,
      rowVersion: row['row_version'] as number,
    }
  })
}
