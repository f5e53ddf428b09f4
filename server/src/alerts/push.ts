import { createHash } from 'node:crypto'
import webpush from 'web-push'
import type { ParsedInputOf, alerts } from '@bocado/contract'
import { fieldProblem } from '../http/problems.js'
import { jsonOf, type Queryable, type Row, type Transaction } from '../database/index.js'
import { alertsById } from './store.js'
import { alertWords } from './words.js'

/**
 * Where the makers of browsers take pushes. What somebody sends as their device is an address that this server calls: it calls no other.
 * BOCADO_PUSH_HOSTS names others, apart by commas; a host of this machine may then be called without TLS.
 */
const PUSH_HOSTS = ['fcm.googleapis.com', 'updates.push.services.mozilla.com', 'web.push.apple.com', 'notify.windows.com'] as const
const hosts = (): readonly string[] => process.env['BOCADO_PUSH_HOSTS']?.split(',') ?? PUSH_HOSTS
const ON_THIS_MACHINE: ReadonlySet<string> = new Set(['127.0.0.1', 'localhost'])

/** Seconds for which a push waits at the maker of the browser for a device that is off: after a day it is no news. */
const KEPT_S = 24 * 3600
const PATIENCE_MS = 10_000

function isAllowed(endpoint: string): boolean {
  const url = URL.canParse(endpoint) ? new URL(endpoint) : undefined
  const isKnown = url !== undefined && hosts().some((host) => url.hostname === host || url.hostname.endsWith(`.${host}`))
  return isKnown && (url.protocol === 'https:' || ON_THIS_MACHINE.has(url.hostname))
}

const hashOf = (endpoint: string): Buffer => createHash('sha256').update(endpoint).digest()

/** The keys by which browsers know this server; made once, whoever asks first. */
async function keysOf(db: Queryable): Promise<{ publicKey: string; privateKey: string } | undefined> {
  const [[row]] = await db.query<Row[]>('SELECT public_key, private_key FROM push_key WHERE id = 1')
  return row && { publicKey: row['public_key'] as string, privateKey: row['private_key'] as string }
}

/** The public key of this server, by which a browser asks for pushes. */
export async function makeKey(tx: Transaction): Promise<{ key: string }> {
  const known = await keysOf(tx)
  if (known) return { key: known.publicKey }
  const { publicKey, privateKey } = webpush.generateVAPIDKeys()
  await tx.query('INSERT IGNORE INTO push_key (id, public_key, private_key) VALUES (1, ?, ?)', [publicKey, privateKey])
  // Somebody else may have been faster: theirs holds.
  return { key: (await keysOf(tx))?.publicKey ?? publicKey }
}

export async function addDevice(
  tx: Transaction,
  personId: string,
  { endpoint, p256dh, auth }: ParsedInputOf<typeof alerts.addDevice>,
): Promise<{ devices: number }> {
  if (!isAllowed(endpoint)) throw fieldProblem('endpoint', 'is no address of a service that this server sends pushes to')
  // A device is of whoever asked last: a phone that goes from hand to hand tells the one who holds it.
  await tx.query(
    `INSERT INTO push_device (endpoint_hash, person_id, endpoint, p256dh, auth) VALUES (?, ?, ?, ?, ?)
     ON DUPLICATE KEY UPDATE person_id = VALUES(person_id), p256dh = VALUES(p256dh), auth = VALUES(auth)`,
    [hashOf(endpoint), personId, endpoint, p256dh, auth],
  )
  return { devices: await devicesOf(tx, personId) }
}

export async function removeDevice(tx: Transaction, personId: string, endpoint: string): Promise<{ devices: number }> {
  await tx.query('DELETE FROM push_device WHERE endpoint_hash = ? AND person_id = ?', [hashOf(endpoint), personId])
  return { devices: await devicesOf(tx, personId) }
}

export async function devicesOf(db: Queryable, personId: string): Promise<number> {
  const [[row]] = await db.query<Row[]>('SELECT COUNT(*) AS n FROM push_device WHERE person_id = ?', [personId])
  return Number(row?.['n'] ?? 0)
}

/** A push that is ready to go out: to which devices, and what it says. */
export interface PushLetter {
  payload: string
  keys: { publicKey: string; privateKey: string }
  devices: { endpoint: string; p256dh: string; auth: string }[]
}

/** What an entry of the outbox sends to the devices of its person; undefined where there is nobody, nothing, or no device. */
export async function pushOf(db: Queryable, row: Row): Promise<PushLetter | undefined> {
  const keys = await keysOf(db)
  const [[to]] = await db.query<Row[]>(
    `SELECT s.name FROM site s JOIN site_person p ON p.site_id = s.id AND p.person_id = ? AND p.left_at IS NULL
     WHERE s.id = ? AND s.deleted_at IS NULL`,
    [row['person_id'], row['site_id']],
  )
  const told = await alertsById(db, jsonOf<string[]>(row['alerts']))
  const [devices] = await db.query<Row[]>('SELECT endpoint, p256dh, auth FROM push_device WHERE person_id = ?', [row['person_id']])
  const [first] = told
  if (!keys || !to || !first || devices.length === 0) return undefined
  const more = told.length > 1 ? ` (${told.length - 1} more)` : ''
  const payload = {
    title: to['name'] as string,
    body: alertWords(first) + more,
    path: `/sites/${row['site_id'] as string}/alerts`,
    tag: row['id'] as string,
  }
  return {
    payload: JSON.stringify(payload),
    keys,
    devices: devices.map((device) => ({
      endpoint: device['endpoint'] as string,
      p256dh: device['p256dh'] as string,
      auth: device['auth'] as string,
    })),
  }
}

/**
 * Gives a push to the makers of the browsers. Throws where none of them took it, so that it is tried again.
 *
 * @returns devices that are gone: they are told no more
 */
export async function givePush({ payload, keys, devices }: PushLetter): Promise<string[]> {
  const gone: string[] = []
  const failures: string[] = []
  let taken = 0
  for (const { endpoint, p256dh, auth } of devices) {
    const details = webpush.generateRequestDetails({ endpoint, keys: { p256dh, auth } }, payload, {
      vapidDetails: { subject: process.env['BOCADO_PUSH_SUBJECT'] ?? 'mailto:bocado@localhost', ...keys },
      TTL: KEPT_S,
      urgency: 'high',
    })
    try {
      const answer = await fetch(endpoint, {
        method: 'POST',
        headers: details.headers as Record<string, string>,
        body: new Uint8Array(details.body ?? Buffer.alloc(0)),
        signal: AbortSignal.timeout(PATIENCE_MS),
        redirect: 'error',
      })
      if (answer.status === 404 || answer.status === 410) gone.push(endpoint)
      else if (answer.ok) taken++
      else failures.push(`${new URL(endpoint).hostname} answered ${answer.status}`)
    } catch (error) {
      failures.push(`${new URL(endpoint).hostname}: ${error instanceof Error ? error.message : String(error)}`)
    }
  }
  // Who has been told by one device is told; the others are not worth telling twice.
  if (taken === 0 && failures.length > 0) throw new Error(failures.join('; '))
  return gone
}

export async function forget(tx: Transaction, endpoints: readonly string[]): Promise<void> {
  if (endpoints.length > 0) await tx.query('DELETE FROM push_device WHERE endpoint_hash IN (?)', [endpoints.map(hashOf)])
}
