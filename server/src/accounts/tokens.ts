import { createHash, randomBytes } from 'node:crypto'

const BYTES = 32

/** A secret that nobody guesses, as text that stands in an address or a cookie. */
export const newToken = (): string => randomBytes(BYTES).toString('base64url')

/** What is kept of a secret: it cannot be turned back into it. */
export const hashOf = (text: string): Buffer => createHash('sha256').update(text).digest()
