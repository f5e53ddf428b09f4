import { MOST_ATTEMPTS, type Queryable, type Row, type Transaction } from '../database/index.js'

/** Something to be done beside requests, as somebody has claimed it. */
export interface Work {
  id: number
  kind: WorkKind
  /** The site that it is done for; empty where it is for all. */
  subject: string
  /** How often it had been asked for when it was claimed. */
  version: number
  attempts: number
}

/** `derive`: checks of readings and forecasts of a site. `retain`: what is older than it has to be kept goes. */
export type WorkKind = 'derive' | 'retain'

/** Whoever claimed work and does not say so again by then has died; others may claim it. What is done twice is the same twice. */
const LEASE_S = 15
export const RENEW_EVERY_MS = 5000
const BACK_OFF_S = [2, 10, 30, 120] as const

/** Claims the work that has been due longest, if there is any; nobody else gets it meanwhile. */
export async function claim(tx: Transaction, worker: string): Promise<Work | undefined> {
  const [[row]] = await tx.query<Row[]>(
    `SELECT id, kind, subject, version, attempts FROM work
     WHERE not_before <= NOW(3) AND (lease_until IS NULL OR lease_until < NOW(3)) AND attempts < ?
     ORDER BY not_before LIMIT 1 FOR UPDATE SKIP LOCKED`,
    [MOST_ATTEMPTS],
  )
  if (!row) return undefined
  await tx.query('UPDATE work SET claimed_by = ?, lease_until = NOW(3) + INTERVAL ? SECOND WHERE id = ?', [worker, LEASE_S, row['id']])
  return {
    id: Number(row['id']),
    kind: row['kind'] as WorkKind,
    subject: row['subject'] as string,
    version: Number(row['version']),
    attempts: Number(row['attempts']),
  }
}

/** Whoever claimed it still works on it. */
export async function renew(tx: Transaction, { id }: Work, worker: string): Promise<void> {
  await tx.query('UPDATE work SET lease_until = NOW(3) + INTERVAL ? SECOND WHERE id = ? AND claimed_by = ?', [LEASE_S, id, worker])
}

/** Where many write one after the other, what follows is made a few times a second at the most. */
const LEAST_PAUSE_MS = 250

/** Ends work that was done. What was asked for again meanwhile stays, and waits at least as long as it took. */
export async function finish(tx: Transaction, { id, version }: Work, tookMs: number): Promise<void> {
  const [result] = await tx.query('DELETE FROM work WHERE id = ? AND version = ?', [id, version])
  if ((result as { affectedRows: number }).affectedRows > 0) return
  await tx.query(
    `UPDATE work SET claimed_by = NULL, lease_until = NULL, attempts = 0, not_before = GREATEST(not_before, NOW(3) + INTERVAL ? MICROSECOND)
     WHERE id = ?`,
    [Math.round(Math.max(tookMs, LEAST_PAUSE_MS) * 1000), id],
  )
}

/** Notes that work failed; it is tried again later, and not at all after five times. */
export async function fail(tx: Transaction, { id, attempts }: Work, because: string): Promise<void> {
  const wait = BACK_OFF_S[Math.min(attempts, BACK_OFF_S.length - 1)] as number
  await tx.query(
    `UPDATE work SET claimed_by = NULL, lease_until = NULL, attempts = attempts + 1, failure = ?, not_before = NOW(3) + INTERVAL ? SECOND
     WHERE id = ?`,
    [because.slice(0, 500), wait, id],
  )
}

/** Milliseconds until the next work is due, by the clock of the database; undefined where none waits. */
export async function nextDueMs(db: Queryable): Promise<number | undefined> {
  const [[row]] = await db.query<Row[]>(
    `SELECT TIMESTAMPDIFF(MICROSECOND, NOW(3), MIN(GREATEST(not_before, COALESCE(lease_until, not_before)))) / 1000 AS ms FROM work WHERE attempts < ?`,
    [MOST_ATTEMPTS],
  )
  const ms = row?.['ms'] as number | string | null | undefined
  return ms === null || ms === undefined ? undefined : Number(ms)
}

/** Whether what is derived of a site is waited for, or could not be made. */
export async function stateOfWork(db: Queryable, kind: WorkKind, subject: string): Promise<'none' | 'waiting' | 'dead'> {
  const [[row]] = await db.query<Row[]>('SELECT attempts FROM work WHERE kind = ? AND subject = ?', [kind, subject])
  if (!row) return 'none'
  return Number(row['attempts']) >= MOST_ATTEMPTS ? 'dead' : 'waiting'
}
