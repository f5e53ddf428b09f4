import type { Row, Transaction } from '../database/index.js'

const seen = new Map<string, Buffer>()

/** Notes that a sign-in was used; it is kept a little later, since a read stores nothing. */
export function noteSeen(tokenHash: Buffer): void {
  seen.set(tokenHash.toString('hex'), tokenHash)
}

/** Whether anything was noted that is not kept yet. */
export const isAnythingSeen = (): boolean => seen.size > 0

/** Keeps what was noted. */
export async function keepSeen(tx: Transaction): Promise<void> {
  const hashes = [...seen.values()]
  seen.clear()
  await tx.query<Row[]>('UPDATE sign_in SET seen_at = UTC_TIMESTAMP() WHERE token_hash IN (?) AND ended_at IS NULL', [hashes])
  await tx.query<Row[]>(
    'UPDATE phone ph JOIN sign_in i ON i.phone_id = ph.id SET ph.seen_at = UTC_TIMESTAMP() WHERE i.token_hash IN (?) AND ph.ended_at IS NULL',
    [hashes],
  )
}
