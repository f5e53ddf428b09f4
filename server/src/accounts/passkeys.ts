import { randomUUID } from 'node:crypto'
import type { Passkey } from '@bocado/contract'
import {
  generateAuthenticationOptions,
  generateRegistrationOptions,
  verifyAuthenticationResponse,
  verifyRegistrationResponse,
  type AuthenticationResponseJSON,
  type RegistrationResponseJSON,
} from '@simplewebauthn/server'
import { instantOf, type Queryable, type Row, type Transaction } from '../database/index.js'
import { HttpProblem } from '../http/problems.js'
import { findAccount, openSignIn } from './store.js'
import type { SignedIn, Visitor } from './visitor.js'
import { hashOf } from './tokens.js'

/** A challenge is answered within this, once. */
const HOLDS_MINUTES = 5
const MOST = 20

/** The server as a browser knows it: passkeys belong to its name. */
export interface Party {
  id: string
  origin: string
}

const IS_NUMBER = /^[\d.]+$|:/

/** The party of a request's host; refused where the server is called by a number, to which no browser gives a passkey. */
export function partyOf(hostname: string, origin: string): Party {
  if (IS_NUMBER.test(hostname.replace(/^\[|\]$/g, '')))
    throw new HttpProblem(
      409,
      'A passkey belongs to a name. Open Bocado by its name, such as http://localhost with its port, and try again.',
    )
  return { id: hostname, origin }
}

async function keepChallenge(tx: Transaction, challenge: string, personId: string | null): Promise<void> {
  await tx.query(
    `INSERT INTO passkey_challenge (challenge_hash, person_id, expires_at) VALUES (?, ?, UTC_TIMESTAMP() + INTERVAL ${HOLDS_MINUTES} MINUTE)`,
    [hashOf(challenge), personId],
  )
}

/** Takes a challenge, so that it is answered once; whether it was asked of this person, or of nobody in particular. */
const takeChallenge =
  (tx: Transaction, personId: string | null) =>
  async (challenge: string): Promise<boolean> => {
    const [result] = await tx.query(
      'DELETE FROM passkey_challenge WHERE challenge_hash = ? AND person_id <=> ? AND expires_at >= UTC_TIMESTAMP()',
      [hashOf(challenge), personId],
    )
    return (result as { affectedRows: number }).affectedRows > 0
  }

interface StoredPasskey extends Passkey {
  credentialId: Buffer
  personId: string
  publicKey: Buffer
  counter: number
  transports: string[]
}

const passkeyOf = (row: Row): StoredPasskey => ({
  id: row['id'] as string,
  name: row['name'] as string,
  since: instantOf(row['created_at'] as string),
  usedAt: row['used_at'] ? instantOf(row['used_at'] as string) : null,
  credentialId: row['credential_id'] as Buffer,
  personId: row['person_id'] as string,
  publicKey: row['public_key'] as Buffer,
  counter: Number(row['counter']),
  transports: (row['transports'] as string).split(',').filter(Boolean) as string[],
})

async function passkeysOf(db: Queryable, personId: string): Promise<StoredPasskey[]> {
  const [rows] = await db.query<Row[]>('SELECT * FROM passkey WHERE person_id = ? ORDER BY created_at, id', [personId])
  return rows.map(passkeyOf)
}

export async function listPasskeys(db: Queryable, personId: string): Promise<Passkey[]> {
  return (await passkeysOf(db, personId)).map(({ id, name, since, usedAt }) => ({ id, name, since, usedAt }))
}

/** What a browser needs to make a passkey of who is signed in. */
export async function askForPasskey(tx: Transaction, personId: string, party: Party): Promise<object> {
  const known = await findAccount(tx, { personId })
  if (!known) throw new HttpProblem(409, 'You have no account here yet, so there is nothing for a passkey to open.')
  const [[row]] = await tx.query<Row[]>('SELECT name FROM person WHERE id = ?', [personId])
  const options = await generateRegistrationOptions({
    rpName: 'Bocado',
    rpID: party.id,
    userID: new Uint8Array(Buffer.from(personId.replaceAll('-', ''), 'hex')),
    userName: known.signInName,
    userDisplayName: row!['name'] as string,
    attestationType: 'none',
    excludeCredentials: (await passkeysOf(tx, personId)).map(({ credentialId, transports }) => ({
      id: credentialId.toString('base64url'),
      transports,
    })),
    authenticatorSelection: { residentKey: 'required', userVerification: 'required' },
  })
  await keepChallenge(tx, options.challenge, personId)
  return options
}

/** Keeps the passkey that a browser made. */
export async function addPasskey(tx: Transaction, personId: string, party: Party, name: string, response: unknown): Promise<Passkey[]> {
  if ((await passkeysOf(tx, personId)).length >= MOST) throw new HttpProblem(409, `You have ${MOST} passkeys already. Remove one first.`)
  const made = await verifyRegistrationResponse({
    response: response as RegistrationResponseJSON,
    expectedChallenge: takeChallenge(tx, personId),
    expectedOrigin: party.origin,
    expectedRPID: party.id,
  }).catch(() => undefined)
  if (!made?.verified) throw new HttpProblem(422, 'The browser’s answer does not fit what was asked. Try again.')
  const { id, publicKey, counter, transports = [] } = made.registrationInfo.credential
  await tx.query(
    `INSERT INTO passkey (id, credential_id, person_id, public_key, counter, transports, name, created_at)
     VALUES (?, ?, ?, ?, ?, ?, ?, UTC_TIMESTAMP())`,
    [randomUUID(), Buffer.from(id, 'base64url'), personId, Buffer.from(publicKey), counter, transports.join(','), name],
  )
  return listPasskeys(tx, personId)
}

export async function removePasskey(tx: Transaction, personId: string, passkeyId: string): Promise<Passkey[]> {
  const [result] = await tx.query('DELETE FROM passkey WHERE id = ? AND person_id = ?', [passkeyId, personId])
  if ((result as { affectedRows: number }).affectedRows === 0) throw new HttpProblem(404, 'There is no such passkey, or it was removed.')
  return listPasskeys(tx, personId)
}

/** What a browser needs to sign somebody in by a passkey; whose it is, the passkey says. */
export async function askToSignIn(tx: Transaction, party: Party): Promise<object> {
  const options = await generateAuthenticationOptions({ rpID: party.id, userVerification: 'required', allowCredentials: [] })
  await keepChallenge(tx, options.challenge, null)
  return options
}

/** Opens a sign-in by a passkey. */
export async function openByPasskey(tx: Transaction, visitor: Visitor, party: Party, response: unknown): Promise<SignedIn> {
  const refused = new HttpProblem(403, 'This passkey opens nothing here. Sign in by your password instead.')
  const { id } = (response ?? {}) as { id?: unknown }
  const [[row]] =
    typeof id === 'string' && id.length < 2000
      ? await tx.query<Row[]>('SELECT * FROM passkey WHERE credential_id = ? FOR UPDATE', [Buffer.from(id, 'base64url')])
      : [[]]
  if (!row) throw refused
  const known = passkeyOf(row)
  const answered = await verifyAuthenticationResponse({
    response: response as AuthenticationResponseJSON,
    expectedChallenge: takeChallenge(tx, null),
    expectedOrigin: party.origin,
    expectedRPID: party.id,
    credential: {
      id: known.credentialId.toString('base64url'),
      publicKey: new Uint8Array(known.publicKey),
      counter: known.counter,
      transports: known.transports,
    },
  }).catch(() => undefined)
  if (!answered?.verified) throw refused
  await tx.query('UPDATE passkey SET counter = ?, used_at = UTC_TIMESTAMP() WHERE id = ?', [
    answered.authenticationInfo.newCounter,
    known.id,
  ])
  return { personId: known.personId, token: await openSignIn(tx, known.personId, 'passkey', visitor.agent) }
}
