import type { Arrival, arrivals, Carried, ParsedInputOf } from '@bocado/contract'
import { civilDate, dayNumber } from '@bocado/core'
import { insertRow, jsonOf, restoreRow, updateRow, type Queryable, type Row, type Write } from '../database/index.js'
import { fieldProblem, refusal } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { organismsOf } from '../library/catalogue.js'
import { blockOf, tree } from '../places/store.js'
import { getSite } from '../sites/service.js'
import { isCrossedOf } from './crossed.js'

/** What came in at a site, the newest first. */
export async function listArrivals(db: Queryable, siteId: string): Promise<Arrival[]> {
  const [rows] = await db.query<Row[]>(
    `SELECT a.*, l.name AS place_name, p.name AS person_name FROM arrival a JOIN place l ON l.id = a.place_id
     JOIN person p ON p.id = a.changed_by WHERE a.site_id = ? AND a.deleted_at IS NULL ORDER BY a.arrived_on DESC, a.created_at DESC, a.id`,
    [siteId],
  )
  return rows.map((row) => ({
    id: row['id'] as string,
    what: row['what'] as Arrival['what'],
    name: row['name'] as string,
    source: row['source'] as string,
    fromSiteId: row['from_site_id'] as string | null,
    carries: jsonOf<Carried[]>(row['carries']),
    arrivedOn: row['arrived_on'] as string,
    placeId: row['place_id'] as string,
    placeName: row['place_name'] as string,
    rootLook: row['root_look'] as Arrival['rootLook'],
    stemLook: row['stem_look'] as Arrival['stemLook'],
    isolatedUntil: row['isolated_until'] as string | null,
    releasedOn: row['released_on'] as string | null,
    note: row['note'] as string,
    personName: row['person_name'] as string,
    rowVersion: row['row_version'] as number,
  }))
}

/** What was seen longer ago is no longer carried along. */
const CARRIED_DAYS = 2 * 366

/** What is known of the place from which something came: what stands flagged there, what was over its threshold, what is watched for. */
async function carriedFrom(db: Queryable, fromSiteId: string, blockId: string | null, today: string): Promise<Carried[]> {
  const since = civilDate(dayNumber(today) - CARRIED_DAYS)
  const places = await tree(db, fromSiteId)
  if (blockId !== null && !places.has(blockId)) throw fieldProblem('fromBlockId', 'choose a block of the site it came from')
  const isThere = (placeId: string): boolean => blockId === null || blockOf(places, placeId)?.id === blockId
  const [organisms, [flags], [watches], crossed] = await Promise.all([
    organismsOf(db, fromSiteId),
    db.query<Row[]>(
      `SELECT f.organism_id, f.place_id, MAX(v.seen_on) AS day FROM flag f JOIN flag_visit v ON v.flag_id = f.id AND v.deleted_at IS NULL
       WHERE f.site_id = ? AND f.deleted_at IS NULL AND f.organism_id IS NOT NULL AND v.sight IN ('standing', 'regrowing') AND v.seen_on >= ?
       GROUP BY f.id, f.organism_id, f.place_id`,
      [fromSiteId, since],
    ),
    db.query<Row[]>('SELECT DISTINCT organism_id, block_id FROM watch WHERE site_id = ? AND deleted_at IS NULL AND season >= ?', [
      fromSiteId,
      since,
    ]),
    isCrossedOf(db, fromSiteId, since),
  ])
  const found = new Map<string, Carried>()
  const note = (organismId: string, what: Carried['what'], day: string | null): void => {
    const known = found.get(organismId)
    const organismName = organisms.find(({ id }) => id === organismId)?.name ?? organismId
    if (!known || known.what === 'watched' || (day !== null && day > (known.day ?? '')))
      found.set(organismId, { organismId, organismName, what, day })
  }
  for (const row of watches) if (isThere(row['block_id'] as string)) note(row['organism_id'] as string, 'watched', null)
  for (const { organismId, blockId: at, day } of crossed) if (isThere(at)) note(organismId, 'over', day)
  for (const row of flags) if (isThere(row['place_id'] as string)) note(row['organism_id'] as string, 'flag', row['day'] as string)
  return [...found.values()].sort(
    (a, b) => Number(a.what === 'watched') - Number(b.what === 'watched') || a.organismName.localeCompare(b.organismName),
  )
}

type Fields = Omit<ParsedInputOf<typeof arrivals.add>, 'fromSiteId' | 'fromBlockId'>

async function columnsOf(w: Write, deps: Deps, input: Fields) {
  const { today } = await getSite(w.tx, deps.clock, w.siteId)
  for (const field of ['arrivedOn', 'releasedOn'] as const)
    if ((input[field] ?? '') > today) throw refusal(field, 'day.future', { today: { day: today } })
  if (!(await tree(w.tx, w.siteId)).has(input.placeId)) throw fieldProblem('placeId', 'choose a place of this site')
  if (input.releasedOn !== null && (input.rootLook === 'signs' || input.stemLook === 'signs') && input.note === '')
    throw fieldProblem('note', 'signs were seen: say what was done about them before it goes to the others')
  return {
    what: input.what,
    name: input.name,
    source: input.source,
    arrived_on: input.arrivedOn,
    place_id: input.placeId,
    root_look: input.rootLook,
    stem_look: input.stemLook,
    isolated_until: input.isolatedUntil,
    released_on: input.releasedOn,
    note: input.note,
  }
}

/** Records what came in. From a site where one is oneself, what was known there comes along. */
export async function addArrival(w: Write, deps: Deps, { fromSiteId, fromBlockId, ...input }: ParsedInputOf<typeof arrivals.add>) {
  const columns = await columnsOf(w, deps, input)
  let carries: Carried[] = []
  if (fromSiteId !== null) {
    const [[mine]] = await w.tx.query<Row[]>('SELECT 1 FROM site_person WHERE site_id = ? AND person_id = ? AND left_at IS NULL', [
      fromSiteId,
      w.personId,
    ])
    // Of other people's sites nothing is told, not even that they are there.
    if (!mine || fromSiteId === w.siteId) throw fieldProblem('fromSiteId', 'choose another site of yours')
    carries = await carriedFrom(w.tx, fromSiteId, fromBlockId, input.arrivedOn)
  }
  const id = await insertRow(w, 'arrival', { ...columns, from_site_id: fromSiteId, carries: JSON.stringify(carries) })
  return { id, rowVersion: 1 }
}

export async function changeArrival(w: Write, deps: Deps, id: string, { rowVersion, ...input }: ParsedInputOf<typeof arrivals.update>) {
  await updateRow(w, 'arrival', id, rowVersion, await columnsOf(w, deps, input))
  return { id, rowVersion: rowVersion + 1 }
}

export async function restoreArrival(w: Write, id: string, rowVersion: number) {
  await restoreRow(w, 'arrival', id, rowVersion)
  return { id, rowVersion: rowVersion + 1 }
}
