import { randomUUID } from 'node:crypto'
import type { RequestHandler } from 'express'
import { HttpProblem } from './problems.js'

/** Names of this machine itself. */
export const LOOPBACK: ReadonlySet<string> = new Set(['localhost', '127.0.0.1', '[::1]'])
const READS = new Set(['GET', 'HEAD', 'OPTIONS'])

export const hostnameOf = (host: string): string | undefined => {
  try {
    return new URL(`http://${host}`).hostname
  } catch {
    return undefined
  }
}

/**
 * Answers only to names that are this server's: a page elsewhere could otherwise point a name of its own here and act as anyone. A
 * write that a browser sends has to come from this server's own page.
 *
 * @param way the address under which a proxy with TLS offers this server, and the names that it has beside those of this machine
 */
export function ownNamesOnly({ publicOrigin, names }: { publicOrigin: string | undefined; names: readonly string[] }): RequestHandler {
  const offered = publicOrigin === undefined ? undefined : new URL(publicOrigin)
  const isOwn = (host: string): boolean => {
    const name = hostnameOf(host)
    return name !== undefined && (LOOPBACK.has(name) || names.includes(name) || host === offered?.host)
  }
  return (req, _res, next) => {
    const host = req.header('Host') ?? ''
    if (!isOwn(host))
      throw new HttpProblem(
        421,
        'This server does not answer to this name. Open it by its own address, such as http://localhost with its port.',
      )
    if (!READS.has(req.method)) {
      const origin = req.header('Origin')
      const own = origin === undefined || origin === offered?.origin || origin === `http://${host}` || origin === `https://${host}`
      if (!own || req.header('Sec-Fetch-Site') === 'cross-site')
        throw new HttpProblem(403, 'This was sent from another page. Open Bocado itself to change something.')
    }
    next()
  }
}

/** Gives each request a name, by which its answer and what is logged of it are found together. */
export const named: RequestHandler = (_req, res, next) => {
  res.set('X-Request-Id', randomUUID())
  next()
}
