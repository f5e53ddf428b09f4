import { jsonOf, type Row, type Transaction } from '../database/index.js'
import { HttpProblem } from './problems.js'

/** A key as a request brings it: it belongs to the person who writes, and to this one use. */
export interface Key {
  key: string | undefined
  /** Empty where nobody is known yet, as when a site is begun. */
  personId: string
  /** Of method, address and body. */
  hash: string
}

/** Takes the key for this request, or returns what was answered to it before. */
export async function claimKey(tx: Transaction, { key, personId, hash }: Key): Promise<{ answer: unknown } | undefined> {
  if (!key || key.length > 100)
    throw new HttpProblem(400, 'A write needs an Idempotency-Key header of 1 to 100 characters, the same for each try.')
  try {
    // A first try that still runs holds the key: nobody waits for it with a connection in hand.
    await tx.query(
      'SET STATEMENT innodb_lock_wait_timeout = 0 FOR INSERT INTO idempotency (idempotency_key, person_id, request_hash) VALUES (?, ?, ?)',
      [key, personId, hash],
    )
    return undefined
  } catch (error) {
    const { code } = error as { code?: string }
    if (code === 'ER_LOCK_WAIT_TIMEOUT') throw stillRunning()
    if (code !== 'ER_DUP_ENTRY') throw error
  }
  // Read as it is now: a first try that is just being committed may not be in sight of an ordinary read.
  const [[row]] = await tx.query<Row[]>(
    'SELECT request_hash, response, secret FROM idempotency WHERE idempotency_key = ? AND person_id = ? LOCK IN SHARE MODE',
    [key, personId],
  )
  if (!row) throw stillRunning()
  if (row['request_hash'] !== hash) throw new HttpProblem(422, 'This Idempotency-Key was used for another request.')
  if (row['secret'])
    throw new HttpProblem(
      409,
      'This was done, and its answer was shown once: it is not kept. Have a new one issued; the old one ends then.',
    )
  return { answer: jsonOf(row['response']) }
}

const stillRunning = (): HttpProblem =>
  new HttpProblem(409, 'This is still being stored by its first try. Ask again in a moment.', { retryAfter: 1 })

/** Keeps the answer for a request that is sent again; `undefined` is a secret, of which only is kept that it was answered. */
export async function keepAnswer(tx: Transaction, { key, personId }: Key, answer: unknown): Promise<void> {
  await tx.query('UPDATE idempotency SET response = ?, secret = ? WHERE idempotency_key = ? AND person_id = ?', [
    answer === undefined ? null : JSON.stringify(answer),
    answer === undefined,
    key,
    personId,
  ])
}
