import { hash, verify } from '@node-rs/argon2'
import { HttpProblem } from '../http/problems.js'

/** Hashes that are made or checked at the same time; each takes 19 MB and a core for a while. */
const AT_ONCE = 4
/** More than this do not wait for their turn. */
const MOST_WAITING = 40

let running = 0
const waiting: (() => void)[] = []

async function inTurn<T>(work: () => Promise<T>): Promise<T> {
  if (running >= AT_ONCE) {
    if (waiting.length >= MOST_WAITING)
      throw new HttpProblem(503, 'Too many sign in at this moment. Try again in a few seconds.', { retryAfter: 5 })
    await new Promise<void>((resolve) => waiting.push(resolve))
  } else running++
  try {
    return await work()
  } finally {
    const next = waiting.shift()
    if (next) next()
    else running--
  }
}

/** A password as it is kept: Argon2id with 19 MiB and two passes, the settings that OWASP names first. */
export const hashPassword = (password: string): Promise<string> => inTurn(() => hash(password))

let nobodys: Promise<string> | undefined

/** Whether a password is right; with no hash to compare with it takes as long, and is wrong. */
export async function isPassword(password: string, kept: string | undefined): Promise<boolean> {
  const against = kept ?? (await (nobodys ??= hashPassword('nobody has this password')))
  const is = await inTurn(() => verify(against, password).catch(() => false))
  return is && kept !== undefined
}
