import { instantOfHour, meanDirection, standardHour } from '@bocado/core'
import { randomBytes } from 'node:crypto'
import type { PushInput, ResponseOf, devices } from '@bocado/contract'
import { auditOther, sqlInstant, type Write } from '../database/index.js'
import { fieldProblem, HttpProblem } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { hashOf, requireStation } from './token.js'
import { getStation } from '../weather/stations.js'
import { HOUR_VALUES, mergeHours, mergeRows } from '../weather/readingStore.js'
import { lockStation, noteHour, setToken } from '../weather/store.js'

/** Lets a device push. Only the token's hash is kept, so it is shown this once; an earlier one ends. */
export async function issueToken(w: Write, stationId: string, simulated: boolean): Promise<{ token: string }> {
  const { device } = await getStation(w.tx, w.siteId, stationId)
  const token = randomBytes(24).toString('base64url')
  await setToken(w, stationId, hashOf(token), simulated)
  await auditOther(
    w,
    'station',
    stationId,
    'change',
    { device, token: 'before' },
    { device: simulated ? 'simulated' : 'pushed', token: 'new' },
  )
  return { token }
}

/** Sends the device of a station away. What it pushed stays; what it sends from now on is refused, and can be sent again with a new token. */
export async function endToken(w: Write, stationId: string): Promise<{ id: string }> {
  const { device } = await getStation(w.tx, w.siteId, stationId)
  if (device === 'none') throw new HttpProblem(404, 'No device pushes to this station.')
  await setToken(w, stationId, null, false)
  await auditOther(w, 'station', stationId, 'change', { device }, { device: 'none' })
  return { id: stationId }
}

/** Devices push one after the other: what follows is made once for those that come together. */
const SOON_MS = 400

/** Clocks of devices run a little ahead; more than this is a reading of the future. */
const AHEAD_MS = 10 * 60_000

/**
 * Stores what a device pushed: all of it, or nothing. Several readings of one hour are averaged, rain added up; duplicates and
 * late readings are fine.
 */
export async function pushReadings(
  { db: tx, clock }: Deps,
  stationId: string,
  token: string | undefined,
  input: PushInput,
): Promise<ResponseOf<typeof devices.push>> {
  const station = await requireStation(tx, stationId, token)
  const now = await clock.now(tx)
  input.readings.forEach(({ at }, i) => {
    if (Date.parse(at) > now.getTime() + AHEAD_MS)
      throw fieldProblem(`readings.${i}.at`, `${at} lies in the future; set the clock of the device`)
  })
  tx.soonMs = SOON_MS
  const w: Write = { tx, siteId: station.siteId, personId: station.tokenBy, now }
  await lockStation(w, station.id)
  const hours = intoHours(input, station.utcOffsetMinutes)
  const counts = await mergeHours(
    w,
    station.id,
    null,
    mergeRows(
      hours,
      ({ at }) => at,
      HOUR_VALUES.map(
        (variable) =>
          ({ values }) =>
            values[variable],
      ),
    ),
  )
  await noteHour(w, station.id, sqlInstant(new Date(hours.at(-1)?.at ?? 0)))
  return counts
}

/** Readings by the hours of the station's standard time into which they fall; `at` is the moment at which the hour begins. */
function intoHours(
  { readings }: PushInput,
  utcOffsetMinutes: number,
): { at: number; values: Partial<Record<(typeof HOUR_VALUES)[number], number>> }[] {
  const hours = new Map<number, PushInput['readings']>()
  for (const reading of readings) {
    const hour = instantOfHour(standardHour(Date.parse(reading.at), utcOffsetMinutes), utcOffsetMinutes)
    hours.set(hour, [...(hours.get(hour) ?? []), reading])
  }
  return [...hours]
    .sort(([a], [b]) => a - b)
    .map(([at, of]) => {
      const values: Partial<Record<(typeof HOUR_VALUES)[number], number>> = {}
      for (const variable of HOUR_VALUES) {
        const read = of.flatMap((reading) => reading[variable] ?? [])
        if (read.length === 0) continue
        if (variable === 'direction') {
          const given = of.filter((reading) => reading.direction !== undefined)
          const mean = meanDirection(
            given.map(({ direction = NaN }) => direction),
            given.map(({ wind = NaN }) => wind),
          )
          if (!Number.isNaN(mean)) values[variable] = mean
          continue
        }
        const sum = read.reduce((a, b) => a + b, 0)
        values[variable] = variable === 'rain' ? sum : sum / read.length
      }
      return { at, values }
    })
}
