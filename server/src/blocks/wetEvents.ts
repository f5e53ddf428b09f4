import type { ParsedInputOf, WetEvent, blocks } from '@bocado/contract'
import { onHourAxis, type Wetting } from '@bocado/core'
import { insertRow, instantOf, restoreRow, sqlInstant, type Queryable, type Row, type Write } from '../database/index.js'
import { HttpProblem, fieldProblem } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { liveBlock } from '../places/store.js'

const wetEventOf = (row: Row): WetEvent => ({
  id: row['id'] as string,
  blockId: row['block_id'] as string,
  kind: row['kind'] as WetEvent['kind'],
  startedAt: instantOf(row['started_at'] as string),
  endedAt: instantOf(row['ended_at'] as string),
  waterMm: row['water_mm'] as number | null,
  note: row['note'] as string,
  by: row['person'] as string,
  rowVersion: row['row_version'] as number,
})

const SELECT = 'SELECT e.*, p.name AS person FROM wet_event e JOIN person p ON p.id = e.changed_by'

/** Wet events of a site that end after a day, newest first. */
export async function listWetEvents(db: Queryable, siteId: string, since: string): Promise<WetEvent[]> {
  const [rows] = await db.query<Row[]>(
    `${SELECT} WHERE e.site_id = ? AND e.deleted_at IS NULL AND e.ended_at >= ? ORDER BY e.started_at DESC`,
    [siteId, `${since} 00:00:00`],
  )
  return rows.map(wetEventOf)
}

async function getWetEvent(db: Queryable, siteId: string, id: string): Promise<WetEvent> {
  const [[row]] = await db.query<Row[]>(`${SELECT} WHERE e.id = ? AND e.site_id = ? AND e.deleted_at IS NULL`, [id, siteId])
  if (!row) throw new HttpProblem(404, 'There is no such wet event at this site.')
  return wetEventOf(row)
}

export async function addWetEvent(
  w: Write,
  deps: Deps,
  blockId: string,
  input: ParsedInputOf<typeof blocks.addWetEvent>,
): Promise<WetEvent> {
  await liveBlock(w.tx, w.siteId, blockId)
  if (Date.parse(input.startedAt) > (await deps.clock.now(w.tx)).getTime())
    throw fieldProblem('startedAt', 'lies in the future; enter it when it has happened')
  const id = await insertRow(w, 'wet_event', {
    block_id: blockId,
    kind: input.kind,
    started_at: sqlInstant(input.startedAt),
    ended_at: sqlInstant(input.endedAt),
    water_mm: input.kind === 'overhead-watering' ? input.waterMm : null,
    note: input.note,
  })
  return getWetEvent(w.tx, w.siteId, id)
}

export async function restoreWetEvent(w: Write, id: string, rowVersion: number): Promise<WetEvent> {
  await restoreRow(w, 'wet_event', id, rowVersion)
  return getWetEvent(w.tx, w.siteId, id)
}

/** Wet events on the hour axis of a station's standard time. */
export const wettingsOf = (events: readonly WetEvent[], utcOffsetMinutes: number): Wetting[] =>
  events.map(({ startedAt, endedAt, waterMm }) => ({
    from: onHourAxis(Date.parse(startedAt), utcOffsetMinutes),
    until: onHourAxis(Date.parse(endedAt), utcOffsetMinutes),
    waterMm,
  }))
