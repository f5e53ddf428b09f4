import type { Harvest, HarvestWait, ParsedInputOf, ResponseOf, harvests } from '@bocado/contract'
import { civilDate, dayNumber, harvestFrom, keepingWaiting } from '@bocado/core'
import { insertRow, liveRow, restoreRow, updateRow, type Queryable, type Row, type Write } from '../database/index.js'
import { fieldProblem, HttpProblem, refusal } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { organismsOf } from '../library/catalogue.js'
import { tree, type StoredPlace } from '../places/store.js'
import { getSite, seasonOf } from '../sites/service.js'
import { listTreatments } from '../treatments/store.js'
import { listHarvests } from './store.js'

/** A treatment that was done, as harvest sees it. */
interface Done extends Pick<HarvestWait, 'treatmentId' | 'name' | 'placeName'> {
  placeId: string
  treatedOn: number
  preHarvestDays: number
}

async function doneIn(db: Queryable, siteId: string, season: string): Promise<Done[]> {
  return (await listTreatments(db, siteId, season)).flatMap(({ id, name, placeId, placeName, done }) =>
    done?.label
      ? [{ treatmentId: id, name, placeId, placeName, treatedOn: dayNumber(done.day), preHarvestDays: done.label.preHarvestDays }]
      : [],
  )
}

/** Whether one of two places lies in the other, or they are one. */
function isOneGround(places: ReadonlyMap<string, StoredPlace>, a: string, b: string): boolean {
  const above = (id: string | null | undefined): string[] => (id ? [id, ...above(places.get(id)?.parentId)] : [])
  return above(a).includes(b) || above(b).includes(a)
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
  const done = await doneIn(db, siteId, season)
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
    waits: keepingWaiting(done, dayNumber(site.today)).map((wait) => ({
      ...waitOf(wait),
      placeIds: [...places.keys()].filter((id) => isOneGround(places, id, wait.placeId)),
    })),
  }
}

async function columnsOf(w: Write, deps: Deps, input: Omit<ParsedInputOf<typeof harvests.add>, 'id'>) {
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
export async function addHarvest(w: Write, deps: Deps, { id, ...input }: ParsedInputOf<typeof harvests.add>): Promise<Harvest> {
  const columns = await columnsOf(w, deps, input)
  // Sent twice at once, the second waits here for the first.
  await liveRow(w.tx, w.siteId, 'place', input.placeId, true)
  if (id !== undefined) {
    const [[known]] = await w.tx.query<Row[]>('SELECT id FROM harvest WHERE id = ? AND site_id = ?', [id, w.siteId])
    if (known) return getHarvest(w, deps, id)
  }
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
