import { rateLimit } from 'express-rate-limit'
import type { Request, RequestHandler } from 'express'
import { HttpProblem } from './problems.js'
import { signInOf } from './identity.js'

/** Far above what people and their pages need in a minute. */
const WRITES_PER_MINUTE = 3000
/** A farm behind one router is one address: it gets as much as several people. */
const OF_AN_ADDRESS = 15_000

const limited = (limit: number, what: string, of?: (req: Request) => string): RequestHandler =>
  rateLimit({
    windowMs: 60_000,
    limit,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    ...(of ? { keyGenerator: of } : {}),
    handler: () => {
      throw new HttpProblem(429, `More than ${limit} writes in a minute from one ${what}. Wait a minute and go on.`, { retryAfter: 60 })
    },
  })

/** Holds back whoever writes without end. */
export const limitWrites: readonly RequestHandler[] = [
  limited(OF_AN_ADDRESS, 'address'),
  limited(WRITES_PER_MINUTE, 'sign-in', (req) => signInOf(req) ?? 'nobody'),
]
