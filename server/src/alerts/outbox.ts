import { isoInstant, MS_PER_MINUTE } from '@bocado/core'
import { instantOf, jsonOf, sqlInstant, type Queryable, type Row, type Transaction, type Write } from '../database/index.js'
import type { Letter } from './mail.js'
import { alertsById } from './store.js'
import { alertWords } from './words.js'

/** After so many tries a letter is given up. */
const MOST_TRIES = 8
/** Minutes until it is tried again, by how often it failed. */
const BACK_OFF_MIN = [1, 5, 15, 60, 180] as const

/**
 * Takes the letter that has been due longest; nobody else gets it meanwhile. Whoever dies on the way leaves it to be tried again a little later:
 * later than a server of mail may take to answer.
 *
 * @param withMail whether a server of mail is set up; pushes go out without one
 */
export async function claimDue(tx: Transaction, now: Date, withMail: boolean): Promise<Row | undefined> {
  const [[row]] = await tx.query<Row[]>(
    `SELECT * FROM outbox WHERE sent_at IS NULL AND not_before <= ? AND attempts < ?${withMail ? '' : " AND channel = 'push'"} ORDER BY not_before LIMIT 1 FOR UPDATE SKIP LOCKED`,
    [sqlInstant(isoInstant(now.getTime())), MOST_TRIES],
  )
  if (row)
    await tx.query('UPDATE outbox SET attempts = attempts + 1, not_before = ? WHERE id = ?', [
      later(now, row['attempts'] as number),
      row['id'],
    ])
  return row
}

const later = (now: Date, attempts: number): string =>
  sqlInstant(isoInstant(now.getTime() + (BACK_OFF_MIN[Math.min(attempts, BACK_OFF_MIN.length - 1)] ?? 1) * MS_PER_MINUTE))

/** A letter as it is read; undefined where nothing of it is left, or nobody to read it. */
export async function letterOf(db: Queryable, row: Row): Promise<Letter | undefined> {
  if (row['recipient'] !== null)
    return row['body'] === null
      ? undefined
      : { id: row['id'] as string, to: row['recipient'] as string, subject: row['subject'] as string, text: row['body'] as string }
  const [[to]] = await db.query<Row[]>(
    `SELECT t.address, s.name FROM alert_setting t JOIN site s ON s.id = t.site_id AND s.deleted_at IS NULL
     JOIN site_person p ON p.site_id = t.site_id AND p.person_id = t.person_id AND p.left_at IS NULL
     WHERE t.site_id = ? AND t.person_id = ? AND t.address <> ''`,
    [row['site_id'], row['person_id']],
  )
  const alerts = await alertsById(db, jsonOf<string[]>(row['alerts']))
  const [first] = alerts
  if (!to || !first) return undefined
  const site = to['name'] as string
  const subject = alerts.length === 1 ? `${site}: ${alertWords(first)}` : `${site}: ${alerts.length} things to know`
  const lines = alerts.map((alert) => `- ${alertWords(alert)}`)
  const end = 'What each rests on stands in Bocado under Today and Windows. How you are told is set there under Alerts.'
  return {
    id: row['id'] as string,
    to: to['address'] as string,
    subject: subject.slice(0, 200),
    text: [site, '', ...lines, '', end].join('\n'),
  }
}

export async function noteSent(tx: Transaction, { id }: Row, now: Date): Promise<void> {
  await tx.query("UPDATE outbox SET sent_at = ?, failure = NULL, body = NULL, recipient = IF(recipient IS NULL, NULL, '') WHERE id = ?", [
    sqlInstant(isoInstant(now.getTime())),
    id,
  ])
}

export async function noteFailed(tx: Transaction, { id }: Row, because: string): Promise<void> {
  await tx.query('UPDATE outbox SET failure = ?, body = IF(attempts >= ?, NULL, body) WHERE id = ?', [
    because.slice(0, 300),
    MOST_TRIES,
    id,
  ])
}

/** Puts a letter into the outbox that tells no alerts; its text goes once it is sent or given up. */
export async function putLetter({ tx, siteId, personId, now }: Write, { id, to, subject, text }: Letter): Promise<void> {
  await tx.query(
    `INSERT INTO outbox (id, site_id, person_id, digest, alerts, not_before, recipient, subject, body) VALUES (?, ?, ?, FALSE, '[]', ?, ?, ?, ?)`,
    [id, siteId, personId, sqlInstant(isoInstant(now.getTime())), to, subject.slice(0, 200), text],
  )
}

/** Puts a letter into the inbox of the demonstration. */
export async function putInInbox(tx: Transaction, { id, to, subject, text }: Letter, now: Date): Promise<void> {
  await tx.query('INSERT IGNORE INTO demo_mail (id, recipient, subject, body, sent_at) VALUES (?, ?, ?, ?, ?)', [
    id,
    to,
    subject,
    text,
    sqlInstant(isoInstant(now.getTime())),
  ])
}

/** Mail that the demonstration would have sent, the newest first. */
export async function inboxOf(db: Queryable) {
  const [rows] = await db.query<Row[]>('SELECT * FROM demo_mail ORDER BY sent_at DESC, created_at DESC LIMIT 50')
  return rows.map((row) => ({
    id: row['id'] as string,
    to: row['recipient'] as string,
    subject: row['subject'] as string,
    text: row['body'] as string,
    sentAt: instantOf(row['sent_at'] as string),
  }))
}
