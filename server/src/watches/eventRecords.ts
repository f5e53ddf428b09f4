import type { EventRecord, ParsedInputOf, Site, calibration } from '@bocado/contract'
import { datedEvents, type Organism } from '@bocado/library'
import { insertOnce, insertRows, isStored, madeColumns, restoreRow, type Queryable, type Row, type Write } from '../database/index.js'
import { HttpProblem, fieldProblem } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { getSite, seasonOf } from '../sites/service.js'
import { findWatch, organismOf, type StoredWatch } from './store.js'
import { liveBlock } from '../places/store.js'

/**
 * The look before a record: what a trap caught is since its check before, whenever that was stored, or since it was hung; a trap that hangs
 * through the winter begins each season anew. Of a query over `event_record r LEFT JOIN trap t`.
 */
export const SINCE = `IF(r.trap_id IS NULL, r.looked_before, COALESCE(
  LAG(r.seen_on) OVER (PARTITION BY r.trap_id, r.season ORDER BY r.seen_on),
  LEAST(GREATEST(t.hung_on, r.season), r.seen_on - INTERVAL 1 DAY))) AS since`

const recordOf = (row: Row): EventRecord => ({
  id: row['id'] as string,
  event: row['event_id'] as string,
  season: row['season'] as string,
  kind: row['kind'] as EventRecord['kind'],
  seenOn: row['seen_on'] as string,
  lookedBefore: row['since'] as string | null,
  caught: row['caught'] as number | null,
  trap:
    row['trap_id'] === null
      ? null
      : { id: row['trap_id'] as string, name: row['trap_name'] as string, inDisruption: Boolean(row['in_disruption']) },
  note: row['note'] as string,
  personName: row['person'] as string,
  rowVersion: row['row_version'] as number,
})

/** What was seen of an organism in a block in any season, oldest first. */
export async function listEventRecords(
  db: Queryable,
  siteId: string,
  { blockId, organismId }: Pick<StoredWatch, 'blockId' | 'organismId'>,
): Promise<EventRecord[]> {
  const [rows] = await db.query<Row[]>(
    `SELECT r.*, p.name AS person, t.name AS trap_name, t.in_disruption, ${SINCE} FROM event_record r
     JOIN person p ON p.id = r.changed_by LEFT JOIN trap t ON t.id = r.trap_id
     WHERE r.site_id = ? AND r.block_id = ? AND r.organism_id = ? AND r.deleted_at IS NULL
     ORDER BY r.season, r.event_id, r.seen_on`,
    [siteId, blockId, organismId],
  )
  return rows.map(recordOf)
}

/** The events that somebody saw at a site in any season, of every organism, without what traps caught; oldest first. */
export async function listSightings(db: Queryable, siteId: string): Promise<(EventRecord & Pick<StoredWatch, 'blockId' | 'organismId'>)[]> {
  const [rows] = await db.query<Row[]>(
    `SELECT r.*, p.name AS person, t.name AS trap_name, t.in_disruption, ${SINCE} FROM event_record r
     JOIN person p ON p.id = r.changed_by LEFT JOIN trap t ON t.id = r.trap_id
     WHERE r.site_id = ? AND r.kind <> 'catch' AND r.deleted_at IS NULL ORDER BY r.season, r.event_id, r.seen_on`,
    [siteId],
  )
  return rows.map((row) => ({ ...recordOf(row), blockId: row['block_id'] as string, organismId: row['organism_id'] as string }))
}

interface Place {
  watch: StoredWatch
  organism: Organism
  site: Site
}

async function placeOf(w: Write, deps: Deps, watchId: string): Promise<Place> {
  const watch = await findWatch(w.tx, w.siteId, watchId)
  if (!watch) throw new HttpProblem(404, 'There is no such watch at this site.')
  await liveBlock(w.tx, w.siteId, watch.blockId)
  return { watch, organism: organismOf(watch), site: await getSite(w.tx, deps.clock, w.siteId) }
}

function requireEvent({ organism }: Place, event: string): void {
  const known = datedEvents(organism)
  if (!known.some(({ id }) => id === event))
    throw fieldProblem('event', `must be an event of ${organism.name}: ${known.map(({ id }) => id).join(', ')}`)
}

const again = (day: string): string => `${day} is recorded already; remove that record first if it is wrong`

export async function addSighting(
  w: Write,
  deps: Deps,
  watchId: string,
  input: ParsedInputOf<typeof calibration.addSighting>,
): Promise<EventRecord[]> {
  const place = await placeOf(w, deps, watchId)
  if (await isStored(w, 'event_record', input.id)) return listEventRecords(w.tx, w.siteId, place.watch)
  requireEvent(place, input.event)
  if (input.seenOn > place.site.today) throw fieldProblem('seenOn', 'lies in the future; enter it when it has been seen')
  const columns = {
    block_id: place.watch.blockId,
    organism_id: place.watch.organismId,
    event_id: input.event,
    season: seasonOf(place.site, input.seenOn),
    kind: input.kind,
    seen_on: input.seenOn,
    looked_before: input.lookedBefore,
    note: input.note,
    ...madeColumns(w, input.made),
  }
  await insertOnce(w, 'event_record', columns, () => fieldProblem('seenOn', again(input.seenOn)), input.id)
  return listEventRecords(w.tx, w.siteId, place.watch)
}

export async function addCatches(
  w: Write,
  deps: Deps,
  watchId: string,
  input: ParsedInputOf<typeof calibration.addCatches>,
): Promise<EventRecord[]> {
  const place = await placeOf(w, deps, watchId)
  requireEvent(place, input.event)
  const caughtOn = (await listEventRecords(w.tx, w.siteId, place.watch))
    .filter(({ kind, event, trap }) => kind === 'catch' && event === input.event && trap === null)
    .map(({ seenOn }) => seenOn)
  let before = input.hungOn
  const rows: Record<string, unknown>[] = []
  const season = seasonOf(place.site, input.checks[0]?.day ?? input.hungOn)
  for (const [i, { day, caught }] of input.checks.entries()) {
    const path = `checks.${i}.day`
    if (day <= before)
      throw fieldProblem(
        path,
        `check ${i + 1}, ${day}, must lie after ${i === 0 ? `the day on which the trap was hung, ${before}` : before}; write the checks in the order of their days`,
      )
    if (day > place.site.today) throw fieldProblem(path, `check ${i + 1}, ${day}, lies in the future`)
    if (seasonOf(place.site, day) !== season)
      throw fieldProblem(path, `check ${i + 1}, ${day}, lies in another season than the first; enter each season by itself`)
    if (caughtOn.includes(day)) throw fieldProblem(path, again(day))
    rows.push({
      block_id: place.watch.blockId,
      organism_id: place.watch.organismId,
      event_id: input.event,
      season,
      kind: 'catch',
      seen_on: day,
      looked_before: before,
      caught,
      note: input.note,
    })
    before = day
  }
  await insertRows(w, 'event_record', rows)
  return listEventRecords(w.tx, w.siteId, place.watch)
}

export async function restoreRecord(w: Write, id: string, rowVersion: number): Promise<{ id: string; rowVersion: number }> {
  await restoreRow(w, 'event_record', id, rowVersion)
  return { id, rowVersion: rowVersion + 1 }
}
