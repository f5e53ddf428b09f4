import type { Alert, AlertSettings } from '@bocado/contract'
import { randomUUID } from 'node:crypto'
import { instantOf, jsonOf, type Queryable, type Row, type Transaction } from '../database/index.js'

/** What is told of is shown for so many days. */
const SHOWN_DAYS = 14

/** What is kept of how somebody is told; without anything they are told in the application alone. */
export type KeptSettings = Omit<AlertSettings, 'canMail' | 'devices'>

const NOTHING_SAID: KeptSettings = {
  mail: 'none',
  address: '',
  quietFrom: null,
  quietUntil: null,
  urgentAnyway: false,
  digestHour: 6,
  push: 'none',
  muted: [],
  calendarSince: null,
}

const settingsOf = (row: Row): KeptSettings => ({
  mail: row['mail'] as KeptSettings['mail'],
  address: row['address'] as string,
  quietFrom: row['quiet_from'] as number | null,
  quietUntil: row['quiet_until'] as number | null,
  urgentAnyway: Boolean(row['urgent_anyway']),
  digestHour: row['digest_hour'] as number,
  push: row['push'] as KeptSettings['push'],
  muted: jsonOf<KeptSettings['muted']>(row['muted']),
  calendarSince: row['calendar_since'] === null ? null : instantOf(row['calendar_since'] as string),
})

export async function findSettings(db: Queryable, siteId: string, personId: string): Promise<KeptSettings> {
  const [[row]] = await db.query<Row[]>('SELECT * FROM alert_setting WHERE site_id = ? AND person_id = ?', [siteId, personId])
  return row ? settingsOf(row) : NOTHING_SAID
}

/** Whoever works at a site and wants to be told of it elsewhere than here. */
export async function toldElsewhere(db: Queryable, siteId: string): Promise<{ personId: string; settings: KeptSettings }[]> {
  const [rows] = await db.query<Row[]>(
    `SELECT s.* FROM alert_setting s JOIN site_person sp ON sp.site_id = s.site_id AND sp.person_id = s.person_id AND sp.left_at IS NULL
     WHERE s.site_id = ? AND ((s.mail <> 'none' AND s.address <> '') OR s.push <> 'none') AND sp.role <> 'volunteer'`,
    [siteId],
  )
  return rows.map((row) => ({ personId: row['person_id'] as string, settings: settingsOf(row) }))
}

export async function keepSettings(
  tx: Transaction,
  siteId: string,
  personId: string,
  s: Omit<KeptSettings, 'calendarSince'>,
): Promise<void> {
  await tx.query(
    `INSERT INTO alert_setting (site_id, person_id, mail, address, quiet_from, quiet_until, urgent_anyway, digest_hour, push, muted)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)
     ON DUPLICATE KEY UPDATE mail = VALUES(mail), address = VALUES(address), quiet_from = VALUES(quiet_from), quiet_until = VALUES(quiet_until),
       urgent_anyway = VALUES(urgent_anyway), digest_hour = VALUES(digest_hour), push = VALUES(push), muted = VALUES(muted)`,
    [siteId, personId, s.mail, s.address, s.quietFrom, s.quietUntil, s.urgentAnyway, s.digestHour, s.push, JSON.stringify(s.muted)],
  )
}

/** Sets something of how somebody is told that stands apart from what they chose. */
export async function noteOfSettings(
  tx: Transaction,
  siteId: string,
  personId: string,
  columns: Readonly<Record<'seen_at' | 'calendar_hash' | 'calendar_since', unknown>> | { seen_at: string },
): Promise<void> {
  const names = Object.keys(columns)
  await tx.query(
    `INSERT INTO alert_setting (site_id, person_id, muted, ${names.join(', ')}) VALUES (?, ?, '[]', ${names.map(() => '?').join(', ')})
     ON DUPLICATE KEY UPDATE ${names.map((name) => `${name} = VALUES(${name})`).join(', ')}`,
    [siteId, personId, ...Object.values(columns)],
  )
}

/** What was told of a site up to a moment, the newest first, as somebody sees it. */
export async function listAlerts(db: Queryable, siteId: string, personId: string, now: string): Promise<Alert[]> {
  const [rows] = await db.query<Row[]>(
    `SELECT a.*, s.seen_at FROM alert a LEFT JOIN alert_setting s ON s.site_id = a.site_id AND s.person_id = ?
     WHERE a.site_id = ? AND a.made_at > ? - INTERVAL ${SHOWN_DAYS} DAY AND a.made_at <= ? ORDER BY a.made_at DESC, a.about, a.id LIMIT 200`,
    [personId, siteId, now, now],
  )
  return rows.map((row) => alertOf(row))
}

const alertOf = (row: Row): Alert => ({
  id: row['id'] as string,
  kind: row['kind'] as Alert['kind'],
  about: row['about'] as string,
  urgent: Boolean(row['urgent']),
  says: jsonOf<Alert['says']>(row['says']),
  watchId: row['watch_id'] as string | null,
  madeAt: instantOf(row['made_at'] as string),
  seen: row['seen_at'] != null && (row['seen_at'] as string) >= (row['made_at'] as string),
})

export async function alertsById(db: Queryable, ids: readonly string[]): Promise<Alert[]> {
  if (ids.length === 0) return []
  const [rows] = await db.query<Row[]>('SELECT a.*, NULL AS seen_at FROM alert a WHERE a.id IN (?)', [ids])
  const found = rows.map(alertOf)
  return ids.flatMap((id) => found.find((one) => one.id === id) ?? [])
}

/** Keeps an alert; undefined where the same matter was told before. */
export async function insertAlert(
  tx: Transaction,
  siteId: string,
  alert: { key: string; kind: string; about: string; urgent: boolean; says: object; watchId: string | null },
  now: string,
): Promise<string | undefined> {
  const id = randomUUID()
  const [result] = await tx.query(
    'INSERT IGNORE INTO alert (id, site_id, alert_key, kind, about, urgent, says, watch_id, made_at) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)',
    [id, siteId, alert.key, alert.kind, alert.about, alert.urgent, JSON.stringify(alert.says), alert.watchId, now],
  )
  return (result as { affectedRows: number }).affectedRows > 0 ? id : undefined
}
