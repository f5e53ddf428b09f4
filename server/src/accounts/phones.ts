import { randomUUID } from 'node:crypto'
import type { account, Phone, ResponseOf, Role, Session } from '@bocado/contract'
import { toString as codeOf } from 'qrcode'
import { auditOther, instantOf, type Queryable, type Row, type Transaction, type Write } from '../database/index.js'
import { fieldProblem, HttpProblem } from '../http/problems.js'
import { countAttempt, forgetAttempt } from './attempts.js'
import type { SignedIn, Visitor } from './visitor.js'
import { openSignIn } from './store.js'
import { hashOf, newToken } from './tokens.js'

/** A link that pairs a phone lies open on a screen: it holds as long as it takes to pick the phone up. */
const PAIR_MINUTES = 15
/** After so many wrong codes in a row there is no code any more. */
const MOST_TRIES = 20

const phoneFrom = (row: Row): Phone => ({
  id: row['id'] as string,
  name: row['name'] as string,
  pairedBy: row['paired_by_name'] as string,
  pairedAt: row['paired_at'] ? instantOf(row['paired_at'] as string) : null,
  seenAt: row['seen_at'] ? instantOf(row['seen_at'] as string) : null,
  pairUntil: row['pair_until'] ? instantOf(row['pair_until'] as string) : null,
  rowVersion: row['row_version'] as number,
})

/** Shared phones of a site, and those whose link still opens. */
export async function listPhones(db: Queryable, siteId: string): Promise<Phone[]> {
  const [rows] = await db.query<Row[]>(
    `SELECT ph.*, p.name AS paired_by_name FROM phone ph JOIN person p ON p.id = ph.paired_by
     WHERE ph.site_id = ? AND ph.ended_at IS NULL AND (ph.paired_at IS NOT NULL OR ph.pair_until > UTC_TIMESTAMP()) ORDER BY ph.created_at`,
    [siteId],
  )
  return rows.map(phoneFrom)
}

/** Makes the link by which a phone is paired. @param address under which phones reach this server; undefined where none does */
export async function offerPhone(
  w: Write,
  name: string,
  address: string | undefined,
): Promise<{ token: string; pairUntil: string; code: string | null; link: string | null }> {
  const [id, token] = [randomUUID(), newToken()]
  await w.tx.query(
    `INSERT INTO phone (id, site_id, name, pair_hash, pair_until, paired_by, created_at)
     VALUES (?, ?, ?, ?, UTC_TIMESTAMP() + INTERVAL ${PAIR_MINUTES} MINUTE, ?, UTC_TIMESTAMP())`,
    [id, w.siteId, name, hashOf(token), w.personId],
  )
  await auditOther(w, 'phone', id, 'create', null, { name })
  w.tx.touch(w.siteId, 'site')
  const [[row]] = await w.tx.query<Row[]>('SELECT pair_until FROM phone WHERE id = ?', [id])
  const link = address === undefined ? null : `${address}/pair#${token}`
  const code = link === null ? null : await codeOf(link, { type: 'svg', margin: 1 })
  return { token, pairUntil: instantOf(row!['pair_until'] as string), code, link }
}

/** Pairs a phone by the link that was made for it: once, and with nobody in on it yet. @returns the phone's own secret */
export async function pairPhone(tx: Transaction, token: string): Promise<string> {
  const [[row]] = await tx.query<Row[]>(
    `SELECT ph.*, ph.pair_until <= UTC_TIMESTAMP() AS is_over FROM phone ph JOIN site s ON s.id = ph.site_id AND s.deleted_at IS NULL
     WHERE ph.pair_hash = ? FOR UPDATE`,
    [hashOf(token)],
  )
  if (!row || row['ended_at']) throw new HttpProblem(404, 'This link pairs nothing: it was withdrawn, or it is not whole. Make a new one.')
  if (row['paired_at']) throw new HttpProblem(410, 'This link paired a phone already. Make a new one for another.')
  if (row['is_over']) throw new HttpProblem(410, 'This link has ended. Make a new one (Site, Shared phones).')
  const secret = newToken()
  await tx.query(
    `UPDATE phone SET secret_hash = ?, pair_until = NULL, paired_at = UTC_TIMESTAMP(), seen_at = UTC_TIMESTAMP(), row_version = row_version + 1
     WHERE id = ?`,
    [hashOf(secret), row['id']],
  )
  tx.touch(row['site_id'] as string, 'site')
  return secret
}

/** Sends a phone away: its cookie opens nothing, and whoever is in on it by a code is out. */
export async function sendAway(w: Write, phoneId: string, rowVersion: number): Promise<{ id: string }> {
  const [[row]] = await w.tx.query<Row[]>('SELECT * FROM phone WHERE id = ? AND site_id = ? FOR UPDATE', [phoneId, w.siteId])
  if (!row || row['ended_at']) throw new HttpProblem(404, 'There is no such phone, or it was sent away already.')
  if (row['row_version'] !== rowVersion) throw new HttpProblem(409, 'This phone was paired or changed meanwhile. Look at it again.')
  await w.tx.query('UPDATE phone SET ended_at = UTC_TIMESTAMP(), row_version = row_version + 1 WHERE id = ?', [phoneId])
  await w.tx.query('UPDATE sign_in SET ended_at = UTC_TIMESTAMP() WHERE phone_id = ? AND ended_at IS NULL', [phoneId])
  await auditOther(w, 'phone', phoneId, 'remove', { name: row['name'] as string }, null)
  w.tx.touch(w.siteId, 'site')
  return { id: phoneId }
}

interface PairedPhone {
  id: string
  siteId: string
  name: string
  site: string
}

async function pairedPhone(db: Queryable, secret: string | undefined): Promise<PairedPhone | undefined> {
  if (secret === undefined) return undefined
  const [[row]] = await db.query<Row[]>(
    `SELECT ph.id, ph.site_id, ph.name, s.name AS site FROM phone ph JOIN site s ON s.id = ph.site_id AND s.deleted_at IS NULL
     WHERE ph.secret_hash = ? AND ph.ended_at IS NULL`,
    [hashOf(secret)],
  )
  return row && { id: row['id'] as string, siteId: row['site_id'] as string, name: row['name'] as string, site: row['site'] as string }
}

/** The shared phone that shows a secret, with who of its site comes in by a code; null where it is none. */
export async function phoneHere(db: Queryable, secret: string | undefined): Promise<Session['phone']> {
  const phone = await pairedPhone(db, secret)
  if (!phone) return null
  const [rows] = await db.query<Row[]>(
    `SELECT p.id, p.name, sp.role FROM site_person sp JOIN person p ON p.id = sp.person_id JOIN hand_code c ON c.person_id = p.id
     WHERE sp.site_id = ? AND sp.left_at IS NULL ORDER BY p.name LIMIT 100`,
    [phone.siteId],
  )
  const people = rows.map((row) => ({ id: row['id'] as string, name: row['name'] as string, role: row['role'] as Role, site: phone.site }))
  return { name: phone.name, site: phone.site, people }
}

/** Somebody's code, as it is checked outside of any transaction. */
export interface MeantCode {
  personId: string
  phoneId: string
  codeHash: string
}

const attemptOf = (phoneId: string, personId: string): string => `code ${phoneId} ${personId}`

/** Counts a try to come in by a code, and finds whose it is; undefined where they have none, or may not come in here. */
export async function meantCode(
  tx: Transaction,
  visitor: Visitor,
  secret: string | undefined,
  personId: string,
): Promise<MeantCode | undefined> {
  const phone = await pairedPhone(tx, secret)
  if (!phone) throw new HttpProblem(403, 'This is no shared phone, or it was sent away. Sign in by your password or passkey.')
  await countAttempt(tx, attemptOf(phone.id, personId), visitor.address)
  const [[row]] = await tx.query<Row[]>(
    `SELECT c.code_hash, c.tries FROM hand_code c JOIN site_person sp ON sp.person_id = c.person_id AND sp.site_id = ? AND sp.left_at IS NULL
     WHERE c.person_id = ? FOR UPDATE`,
    [phone.siteId, personId],
  )
  if (!row) return undefined
  if (Number(row['tries']) >= MOST_TRIES)
    throw new HttpProblem(403, 'Too many wrong codes: this one opens nothing any more. Sign in by your password and set a new one.')
  await tx.query('UPDATE hand_code SET tries = tries + 1 WHERE person_id = ?', [personId])
  return { personId, phoneId: phone.id, codeHash: row['code_hash'] as string }
}

export async function openByCode(tx: Transaction, visitor: Visitor, known: MeantCode | undefined, isRight: boolean): Promise<SignedIn> {
  if (!known || !isRight) throw fieldProblem('code', 'is not right')
  // A code that was changed meanwhile, or a phone that was sent away, opens nothing.
  const [[row]] = await tx.query<Row[]>(
    `SELECT 1 AS found FROM hand_code c JOIN phone ph ON ph.id = ? AND ph.ended_at IS NULL WHERE c.person_id = ? AND c.code_hash = ?`,
    [known.phoneId, known.personId, known.codeHash],
  )
  if (!row) throw fieldProblem('code', 'is not right')
  await forgetAttempt(tx, attemptOf(known.phoneId, known.personId), visitor.address)
  await tx.query('UPDATE hand_code SET tries = 0 WHERE person_id = ?', [known.personId])
  return { personId: known.personId, token: await openSignIn(tx, known.personId, 'code', visitor.agent, known.phoneId) }
}

export async function codeOfSelf(db: Queryable, personId: string): Promise<ResponseOf<typeof account.code>> {
  const [[row]] = await db.query<Row[]>('SELECT changed_at FROM hand_code WHERE person_id = ?', [personId])
  return { since: row ? instantOf(row['changed_at'] as string) : null }
}

/** Sets one's code. Whoever is in by the one before is out. */
export async function setCode(tx: Transaction, personId: string, codeHash: string): Promise<ResponseOf<typeof account.code>> {
  await tx.query(
    `INSERT INTO hand_code (person_id, code_hash, tries, changed_at) VALUES (?, ?, 0, UTC_TIMESTAMP())
     ON DUPLICATE KEY UPDATE code_hash = VALUES(code_hash), tries = 0, changed_at = VALUES(changed_at)`,
    [personId, codeHash],
  )
  await endByCode(tx, personId)
  return codeOfSelf(tx, personId)
}

export async function removeCode(tx: Transaction, personId: string): Promise<ResponseOf<typeof account.code>> {
  await tx.query('DELETE FROM hand_code WHERE person_id = ?', [personId])
  await endByCode(tx, personId)
  return { since: null }
}

const endByCode = (tx: Transaction, personId: string) =>
  tx.query("UPDATE sign_in SET ended_at = UTC_TIMESTAMP() WHERE person_id = ? AND how = 'code' AND ended_at IS NULL", [personId])
