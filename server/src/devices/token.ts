import { createHash } from 'node:crypto'
import type { Queryable } from '../database/index.js'
import { HttpProblem } from '../http/problems.js'
import { stationOfToken } from '../weather/store.js'

/** Tokens are kept as their SHA-256 only. */
export const hashOf = (token: string): string => createHash('sha256').update(token).digest('hex')

/** The station that a device's token opens, or 401. */
export async function requireStation(db: Queryable, stationId: string, token: string | undefined) {
  const station = token ? await stationOfToken(db, stationId, hashOf(token)) : undefined
  if (!station)
    throw new HttpProblem(401, 'This token does not open this station. Issue a new one on the weather screen and put it into the device.')
  return station
}
