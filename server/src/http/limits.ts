import { rateLimit } from 'express-rate-limit'
import { HttpProblem } from './problems.js'

/** Far above what people and their pages need in a minute. */
const WRITES_PER_MINUTE = 3000

/** Holds back whoever writes without end. */
export const limitWrites = rateLimit({
  windowMs: 60_000,
  limit: WRITES_PER_MINUTE,
  standardHeaders: 'draft-8',
  legacyHeaders: false,
  handler: () => {
    throw new HttpProblem(429, `More than ${WRITES_PER_MINUTE} writes in a minute from one place. Wait a minute and go on.`, {
      retryAfter: 60,
    })
  },
})
