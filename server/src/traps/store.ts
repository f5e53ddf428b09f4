import type { Trap, TrapCheck } from '@bocado/contract'
import type { Queryable, Row, Write } from '../database/index.js'
import { SINCE } from '../watches/eventRecords.js'

/** A trap without what is known of it from its checks, its organism and its watch. */
export type StoredTrap = Omit<Trap, 'organismName' | 'eventName' | 'lureUntil' | 'checks' | 'biofix' | 'watch' | 'lures'> & {
  siteId: string
}
export type StoredCheck = Omit<TrapCheck, 'perDay'> & { trapId: string; season: string }

const trapOf = (row: Row): StoredTrap => ({
  id: row['id'] as string,
  siteId: row['site_id'] as string,
  name: row['name'] as string,
  blockId: row['block_id'] as string,
  blockName: (row['block_name'] as string | undefined) ?? '',
  organismId: row['organism_id'] as string,
  event: row['event_id'] as string,
  lure: row['lure'] as string,
  lureLoad: row['lure_load'] as string,
  lureOn: row['lure_on'] as string | null,
  lureWeeks: row['lure_weeks'] as number | null,
  inDisruption: Boolean(row['in_disruption']),
  hungOn: row['hung_on'] as string,
  takenDownOn: row['taken_down_on'] as string | null,
  position: row['latitude'] === null ? null : { latitude: row['latitude'] as number, longitude: row['longitude'] as number },
  note: row['note'] as string,
  hasCounter: row['token_hash'] !== null,
  rowVersion: row['row_version'] as number,
})

/** The traps of a site by place and name. */
export async function listTraps(db: Queryable, siteId: string): Promise<StoredTrap[]> {
  const [rows] = await db.query<Row[]>(
    `SELECT t.*, l.name AS block_name FROM trap t JOIN place l ON l.id = t.block_id
     WHERE t.site_id = ? AND t.deleted_at IS NULL ORDER BY l.name, t.name, t.id`,
    [siteId],
  )
  return rows.map(trapOf)
}

/** Lures that hung in the traps of a site, by trap, the newest first. */
export async function listLures(db: Queryable, siteId: string): Promise<Map<string, Trap['lures']>> {
  const [rows] = await db.query<Row[]>(
    'SELECT trap_id, lure, lure_load, hung_on FROM trap_lure WHERE site_id = ? AND deleted_at IS NULL ORDER BY hung_on DESC',
    [siteId],
  )
  const byTrap = new Map<string, Trap['lures']>()
  for (const row of rows) {
    const trapId = row['trap_id'] as string
    const one = { lure: row['lure'] as string, load: row['lure_load'] as string, on: row['hung_on'] as string }
    byTrap.set(trapId, [...(byTrap.get(trapId) ?? []), one])
  }
  return byTrap
}

const checkOf = (row: Row): StoredCheck => ({
  id: row['id'] as string,
  trapId: row['trap_id'] as string,
  season: row['season'] as string,
  day: row['seen_on'] as string,
  since: row['since'] as string,
  caught: row['caught'] as number,
  countedBy: row['counted_by'] as StoredCheck['countedBy'],
  note: row['note'] as string,
  personName: row['person_name'] as string,
  rowVersion: row['row_version'] as number,
})

const CHECKS = `SELECT r.*, p.name AS person_name, ${SINCE} FROM event_record r
  JOIN person p ON p.id = r.changed_by JOIN trap t ON t.id = r.trap_id
  WHERE r.kind = 'catch' AND r.deleted_at IS NULL AND`

/** Checks of all traps of a site in a season, in the order of their days. */
export async function listChecks(db: Queryable, siteId: string, season: string): Promise<StoredCheck[]> {
  const [rows] = await db.query<Row[]>(`${CHECKS} r.site_id = ? AND r.season = ? AND r.trap_id IS NOT NULL ORDER BY r.seen_on, r.id`, [
    siteId,
    season,
  ])
  return rows.map(checkOf)
}

/** All checks of one trap, in the order of their days. */
export async function checksOfTrap(db: Queryable, trapId: string): Promise<StoredCheck[]> {
  const [rows] = await db.query<Row[]>(`${CHECKS} r.trap_id = ? ORDER BY r.seen_on`, [trapId])
  return rows.map(checkOf)
}

/** The trap that the token of its counter opens, and who let it in. */
export async function trapOfToken(
  db: Queryable,
  trapId: string,
  tokenHash: string,
): Promise<{ trap: StoredTrap; tokenBy: string } | undefined> {
  const [[row]] = await db.query<Row[]>('SELECT * FROM trap WHERE id = ? AND token_hash = ? AND deleted_at IS NULL', [trapId, tokenHash])
  return row && { trap: trapOf(row), tokenBy: row['token_by'] as string }
}

export async function setCounter(w: Write, trapId: string, tokenHash: string | null): Promise<void> {
  w.tx.touch(w.siteId, 'watches')
  await w.tx.query('UPDATE trap SET token_hash = ?, token_by = ? WHERE id = ? AND site_id = ?', [tokenHash, w.personId, trapId, w.siteId])
}
