import type { Transaction, Row } from '../database/index.js'
import { HttpProblem } from '../http/problems.js'
import { hashOf } from './tokens.js'

/** So many failures are nothing; each more doubles the time until the next try. */
const FREE = { name: 5, address: 30 } as const
const FIRST_WAIT_S = 2
const LONGEST_WAIT_S = 300
/** After this without a failure all is forgotten. */
const FORGOTTEN_S = 3600

const keys = (name: string, address: string): { of: Buffer; free: number }[] =>
  [
    { of: hashOf(`name ${name}`), free: FREE.name },
    { of: hashOf(`address ${address}`), free: FREE.address },
  ].sort((a, b) => a.of.compare(b.of))

/**
 * Counts a try to sign in before it is looked at, so that many at once are counted too; refuses it where too many failed before, by name
 * and by address.
 */
export async function countAttempt(tx: Transaction, name: string, address: string): Promise<void> {
  for (const { of, free } of keys(name, address)) {
    // The row is there before it is held: many first tries at once would else each see none.
    await tx.query('INSERT IGNORE INTO sign_in_attempt (of, failures, last_at) VALUES (?, 0, UTC_TIMESTAMP(3))', [of])
    const [[row]] = await tx.query<Row[]>(
      'SELECT failures, TIMESTAMPDIFF(MICROSECOND, last_at, UTC_TIMESTAMP(3)) / 1000000 AS ago FROM sign_in_attempt WHERE of = ? FOR UPDATE',
      [of],
    )
    const ago = Number(row!['ago'])
    const failures = ago > FORGOTTEN_S ? 0 : Number(row!['failures'])
    const wait = failures < free ? 0 : Math.min(LONGEST_WAIT_S, FIRST_WAIT_S * 2 ** (failures - free))
    if (ago < wait) {
      const left = Math.ceil(wait - ago)
      throw new HttpProblem(429, `Too many tries failed. Wait ${left} s and try again.`, { retryAfter: left })
    }
    await tx.query('UPDATE sign_in_attempt SET failures = ?, last_at = UTC_TIMESTAMP(3) WHERE of = ?', [failures + 1, of])
  }
}

/** Whoever came in has not failed: the name is free again, and the address has one failure less. */
export async function forgetAttempt(tx: Transaction, name: string, address: string): Promise<void> {
  await tx.query('DELETE FROM sign_in_attempt WHERE of = ?', [hashOf(`name ${name}`)])
  await tx.query('UPDATE sign_in_attempt SET failures = failures - 1 WHERE of = ? AND failures > 0', [hashOf(`address ${address}`)])
}
