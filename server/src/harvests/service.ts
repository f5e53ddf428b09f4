import type { Harvest, HarvestWait, Label, ParsedInputOf, ResponseOf, harvests } from '@bocado/contract'
import { civilDate, dayNumber, harvestFrom, keepingWaiting } from '@bocado/core'
import { civilDayIn } from '../clock.js'
import {
  insertRow,
  instantOf,
  isStored,
  jsonOf,
  liveRow,
  madeColumns,
  restoreRow,
  updateRow,
  type Queryable,
  type Row,
  type Write,
} from '../database/index.js'
import { fieldProblem, HttpProblem, refusal } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { organismsOf } from '../library/catalogue.js'
import { isOneGround, tree } from '../places/store.js'
import { getSite, seasonOf } from '../sites/service.js'
import { listHarvests } from './store.js'

/** A treatment that was done, as harvest sees it. */
interface Done extends Pick<HarvestWait, 'treatmentId' | 'name' | 'placeName'> {
  placeId: string
  treatedOn: number
  preHarvestDays: number
}

/** A label keeps harvest waiting for a year at most. */
const LONGEST_WAIT_DAYS = 366

/**
 * Treatments that were done since a day and whose labels have days to harvest, each by the label of its day. What was done stays done: across the
 * turn of the season, and though what it was done against is watched no more.
 */
async function doneSince(db: Queryable, siteId: string, since: number): Promise<Done[]> {
  const [rows] = await db.query<Row[]>(
    `SELECT t.id, t.place_id, t.started_at, t.product_then, l.name AS place_name, s.time_zone FROM deed t
     JOIN place l ON l.id = t.place_id JOIN site s ON s.id = t.site_id
     WHERE t.site_id = ? AND t.deleted_at IS NULL AND t.started_at >= ? AND t.product_then IS NOT NULL ORDER BY t.started_at, t.id`,
    [siteId, `${civilDate(since)} 00:00:00`],
  )
  return rows.map((row) => {
    const label = jsonOf<Pick<Label, 'name' | 'preHarvestDays'>>(row['product_then'])
    return {
      treatmentId: row['id'] as string,
      name: label.name,
      placeId: row['place_id'] as string,
      placeName: row['place_name'] as string,
      treatedOn: dayNumber(civilDayIn(new Date(instantOf(row['started_at'] as string)), row['time_zone'] as string)),
      preHarvestDays: label.preHarvestDays,
    }
  })
}

const waitOf = ({ treatmentId, name, placeName, treatedOn, preHarvestDays }: Done): HarvestWait => ({
  treatmentId,
  name,
  placeName,
  from: civilDate(harvestFrom(treatedOn, preHarvestDays)),
})

/** What was picked in a season, each with the labels that spoke against the day, and which labels keep harvest waiting today. */
export async function harvestsOf(db: Queryable, deps: Deps, siteId: string, season: string): Promise<ResponseOf<typeof harvests.list>> {
  const site = await getSite(db, deps.clock, siteId)
  const places = await tree(db, siteId)
  const [today, begin] = [dayNumber(site.today), dayNumber(season)]
  const done = await doneSince(db, siteId, Math.min(today, begin) - LONGEST_WAIT_DAYS)
  const organisms = await organismsOf(db, siteId)
  const stored = await listHarvests(db, siteId, season)
  return {
    harvests: stored.map((harvest) => ({
      ...harvest,
      spoiltByName: harvest.spoiltBy === null ? null : (organisms.find(({ id }) => id === harvest.spoiltBy)?.name ?? harvest.spoiltBy),
      tooEarly: keepingWaiting(
        done.filter(({ placeId }) => isOneGround(places, placeId, harvest.placeId)),
        dayNumber(harvest.pickedOn),
      ).map(waitOf),
    })),
    waits: keepingWaiting(done, today).map((wait) => ({
      ...waitOf(wait),
      placeIds: [...places.keys()].filter((id) => isOneGround(places, id, wait.placeId)),
    })),
  }
}

async function columnsOf(w: Write, deps: Deps, input: Omit<ParsedInputOf<typeof harvests.add>, 'id' | 'made'>) {
  const site = await getSite(w.tx, deps.clock, w.siteId)
  if (input.pickedOn > site.today) throw refusal('pickedOn', 'day.future', { today: { day: site.today } })
  if (!(await tree(w.tx, w.siteId)).has(input.placeId)) throw fieldProblem('placeId', 'choose a place of this site')
  if (input.spoiltBy !== null && !(await organismsOf(w.tx, w.siteId)).some(({ id }) => id === input.spoiltBy))
    throw fieldProblem('spoiltBy', 'choose an organism of the library')
  return {
    place_id: input.placeId,
    season: seasonOf(site, input.pickedOn),
    picked_on: input.pickedOn,
    kg: input.kg,
    pieces: input.pieces,
    spoilt: input.spoilt,
    spoilt_by: input.spoiltBy,
    note: input.note,
  }
}

async function getHarvest(w: Write, deps: Deps, id: string): Promise<Harvest> {
  const [[row]] = await w.tx.query<Row[]>('SELECT season FROM harvest WHERE id = ? AND site_id = ? AND deleted_at IS NULL', [id, w.siteId])
  const found = row && (await harvestsOf(w.tx, deps, w.siteId, row['season'] as string)).harvests.find((one) => one.id === id)
  if (!found) throw new HttpProblem(404, 'There is no such harvest at this site.')
  return found
}

/** Records a harvest under the id that the page gave it; sent again, it is found. */
export async function addHarvest(w: Write, deps: Deps, { id, made, ...input }: ParsedInputOf<typeof harvests.add>): Promise<Harvest> {
  if (id !== undefined && (await isStored(w, 'harvest', id))) return getHarvest(w, deps, id)
  const columns = { ...(await columnsOf(w, deps, input)), ...madeColumns(w, made) }
  // Sent twice at once, the second waits here for the first.
  await liveRow(w.tx, w.siteId, 'place', input.placeId, true)
  if (id !== undefined && (await isStored(w, 'harvest', id))) return getHarvest(w, deps, id)
  return getHarvest(w, deps, await insertRow(w, 'harvest', columns, id))
}

export async function changeHarvest(
  w: Write,
  deps: Deps,
  id: string,
  { rowVersion, ...input }: ParsedInputOf<typeof harvests.update>,
): Promise<Harvest> {
  await updateRow(w, 'harvest', id, rowVersion, await columnsOf(w, deps, input))
  return getHarvest(w, deps, id)
}

export async function restoreHarvest(w: Write, deps: Deps, id: string, rowVersion: number): Promise<Harvest> {
  await restoreRow(w, 'harvest', id, rowVersion)
  return getHarvest(w, deps, id)
}
