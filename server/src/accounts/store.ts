import { randomUUID } from 'node:crypto'
import type { OpenSignIn, Role, Session } from '@bocado/contract'
import { instantOf, type Queryable, type Row, type Transaction } from '../database/index.js'
import { hashOf, newToken } from './tokens.js'

/** A sign-in holds so long, whether it is used or not. */
const HOLDS_DAYS = 30

export interface Account {
  personId: string
  signInName: string
  passwordHash: string
}

const accountOf = (row: Row): Account => ({
  personId: row['person_id'] as string,
  signInName: row['sign_in_name'] as string,
  passwordHash: row['password_hash'] as string,
})

export async function findAccount(db: Queryable, by: { signInName: string } | { personId: string }): Promise<Account | undefined> {
  const [[row]] =
    'personId' in by
      ? await db.query<Row[]>('SELECT * FROM account WHERE person_id = ?', [by.personId])
      : await db.query<Row[]>('SELECT * FROM account WHERE sign_in_name = ?', [by.signInName])
  return row && accountOf(row)
}

export async function hasAccounts(db: Queryable): Promise<boolean> {
  const [[row]] = await db.query<Row[]>('SELECT 1 AS found FROM account LIMIT 1')
  return row !== undefined
}

/** Stores an account; false where somebody else has the name, or is the first. */
export async function insertAccount(tx: Transaction, { personId, signInName, passwordHash }: Account, isFirst: boolean): Promise<boolean> {
  const [result] = await tx.query(
    `INSERT IGNORE INTO account (person_id, sign_in_name, password_hash, created_at, changed_at, is_first)
     VALUES (?, ?, ?, UTC_TIMESTAMP(), UTC_TIMESTAMP(), ?)`,
    [personId, signInName, passwordHash, isFirst ? 1 : null],
  )
  return (result as { affectedRows: number }).affectedRows > 0
}

export async function setPassword(tx: Transaction, personId: string, passwordHash: string): Promise<void> {
  await tx.query('UPDATE account SET password_hash = ?, changed_at = UTC_TIMESTAMP() WHERE person_id = ?', [passwordHash, personId])
  // Whoever holds another link for it from before does not set it once more.
  await tx.query(
    "UPDATE link SET withdrawn_at = UTC_TIMESTAMP() WHERE person_id = ? AND kind = 'reset' AND used_at IS NULL AND withdrawn_at IS NULL",
    [personId],
  )
}

/** Opens a sign-in and returns the secret that stands for it. */
export async function openSignIn(
  tx: Transaction,
  personId: string,
  how: OpenSignIn['how'],
  agent: string,
  phoneId: string | null = null,
): Promise<string> {
  const token = newToken()
  await tx.query(
    `INSERT INTO sign_in (token_hash, id, person_id, how, agent, phone_id, created_at, seen_at, expires_at)
     VALUES (?, ?, ?, ?, ?, ?, UTC_TIMESTAMP(), UTC_TIMESTAMP(), UTC_TIMESTAMP() + INTERVAL ${HOLDS_DAYS} DAY)`,
    [hashOf(token), randomUUID(), personId, how, agent.slice(0, 200), phoneId],
  )
  return token
}

/** Ends sign-ins of a person: all, or all but one. */
export async function endSignIns(tx: Transaction, personId: string, but?: string): Promise<void> {
  await tx.query('UPDATE sign_in SET ended_at = UTC_TIMESTAMP() WHERE person_id = ? AND ended_at IS NULL AND token_hash <> ?', [
    personId,
    but === undefined ? Buffer.alloc(32) : hashOf(but),
  ])
}

export async function endSignIn(tx: Transaction, personId: string, which: { token: string } | { id: string }): Promise<boolean> {
  const [column, value] = 'token' in which ? ['token_hash', hashOf(which.token)] : ['id', which.id]
  const [result] = await tx.query(
    `UPDATE sign_in SET ended_at = UTC_TIMESTAMP() WHERE person_id = ? AND ${column} = ? AND ended_at IS NULL`,
    [personId, value],
  )
  return (result as { affectedRows: number }).affectedRows > 0
}

export async function listSignIns(db: Queryable, personId: string, token: string): Promise<OpenSignIn[]> {
  const [rows] = await db.query<Row[]>(
    `SELECT id, how, agent, created_at, seen_at, token_hash = ? AS is_this FROM sign_in
     WHERE person_id = ? AND ended_at IS NULL AND expires_at > UTC_TIMESTAMP() ORDER BY seen_at DESC`,
    [hashOf(token), personId],
  )
  return rows.map((row) => ({
    id: row['id'] as string,
    how: row['how'] as OpenSignIn['how'],
    agent: row['agent'] as string,
    since: instantOf(row['created_at'] as string),
    seenAt: instantOf(row['seen_at'] as string),
    isThis: Boolean(row['is_this']),
  }))
}

/** People of the sites that are there, with what they are at the first of them. */
export async function peopleHere(db: Queryable, roles: readonly Role[]): Promise<NonNullable<Session['demo']>> {
  const [rows] = await db.query<Row[]>(
    `SELECT p.id, p.name, sp.role, s.name AS site FROM site_person sp
     JOIN person p ON p.id = sp.person_id JOIN site s ON s.id = sp.site_id AND s.deleted_at IS NULL
     WHERE sp.left_at IS NULL AND sp.role IN (?) ORDER BY s.created_at, sp.role, p.name LIMIT 50`,
    [roles],
  )
  const seen = new Set<string>()
  return rows.flatMap((row) => {
    const id = row['id'] as string
    if (seen.has(id)) return []
    seen.add(id)
    return [{ id, name: row['name'] as string, role: row['role'] as Role, site: row['site'] as string }]
  })
}
