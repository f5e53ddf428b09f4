import { endpoints } from '@bocado/contract'
import { dayNumber, joinMembers } from '@bocado/core'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import type { Row } from '../database/pool.js'
import { startApplication, type Application } from '../testing/application.js'
import { done, startSite, type TestSite } from '../testing/farm.js'
import { hourlyFile, importFile, preview } from '../testing/upload.js'

const { weather, watches, demo } = endpoints
const SEASON = '2026-01-01'

let app: Application
let place: TestSite
let token: string
beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z' })
  place = await startSite(app)
  // Readings to 07:00 in standard time today, an hour before "now".
  const file = hourlyFile(2021, '2026-06-13').split('\n').slice(0, -18).join('\n')
  await importFile(app, place, file, (await preview(app, place, file.slice(0, 200_000))).body.mapping)
  const watch = { organismId: 'codling-moth', blockId: place.blockId, season: SEASON, biofix: '2026-05-14' }
  done(await app.call(watches.create, { siteId: place.site.id }, watch, { person: place.person }))
  token = done(await app.call(weather.issueToken, params(), {}, { person: place.person })).token
})
afterAll(() => app.stop())

const params = () => ({ siteId: place.site.id, stationId: place.stationId })

/** Ten days and what is left of today, from 06:00 in standard time; each member its own degrees warmer. */
const issue = (warmer: readonly number[], issuedAt = '2026-06-12T14:00:00Z', hours = 258) => ({
  issuedAt,
  firstHour: issuedAt,
  members: warmer.map((degrees) => ({
    temperature: Array.from({ length: hours }, (_, h) => 26 + degrees + 6 * Math.cos((2 * Math.PI * (h - 9)) / 24)),
  })),
})

async function deliver(body: unknown, bearer = token) {
  const response = await fetch(`${app.address}/api/v1/stations/${place.stationId}/forecast-issues`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json', Authorization: `Bearer ${bearer}` },
    body: JSON.stringify(body),
  })
  return { status: response.status, body: (await response.json()) as { fields?: { path: string; message: string }[] } }
}
const heat = async () => done(await app.call(watches.band, { siteId: place.site.id }, { season: SEASON })).watches[0]!.heat
const days = async () => done(await app.call(weather.days, params(), { season: SEASON }))

test('without a forecast the days ahead come from past years alone', async () => {
  expect(await heat()).toMatchObject({ forecast: null, pastSeasons: 5 })
  expect((await heat()).segments.tails).toHaveLength(5)
  expect((await days()).ahead).toEqual([])
})

describe('a forecast that is delivered', () => {
  test('is crossed with every past season, and its days are in the sums', async () => {
    expect((await deliver(issue([-3, 0, 4]))).status).toBe(200)
    const now = await heat()
    expect(now.forecast).toMatchObject({ members: 3, days: 11, issuedAt: '2026-06-12T14:00:00Z' })
    expect([now.segments.forecast.length, now.segments.tails.length, now.scores.length]).toEqual([3, 5, 60])
    const { segments } = now
    const members = joinMembers({
      ...segments,
      observed: Float64Array.from(segments.observed),
      forecast: segments.forecast.map((d) => Float64Array.from(d)),
      seam: segments.seam.map((d) => Float64Array.from(d)),
      tails: segments.tails.map((t) => ({ ...t, heat: Float64Array.from(t.heat) })),
    })
    const june20 = dayNumber('2026-06-20') - dayNumber(SEASON)
    const sums = members.map(({ cumulative }) => cumulative[june20]!)
    // Within the forecast a member's sum does not depend on the past year behind it.
    expect(sums[0]).toBeCloseTo(sums[4]!, 6)
    expect(sums[10]! - sums[0]!).toBeGreaterThan(40)
  })

  test('is overlaid by what was observed today, and shown day by day', async () => {
    const { ahead, forecast } = await days()
    expect(forecast).toEqual({ issuedAt: '2026-06-12T14:00:00Z', members: 3, correctedFrom: 0 })
    expect(ahead).toHaveLength(11)
    expect(ahead[0]!.day).toBe('2026-06-12')
    // The night's minimum was read, so all members agree on it; the afternoon is still to come.
    expect(ahead[0]!.min.high - ahead[0]!.min.low).toBeLessThan(0.5)
    expect(ahead[0]!.max.high - ahead[0]!.max.low).toBeCloseTo(7, 0)
    expect(ahead[5]!.min.high - ahead[5]!.min.low).toBeCloseTo(7, 6)
  })

  test('gives way to a newer one, is kept, and is left aside when it is old', async () => {
    done(await app.call(demo.setClock, {}, { now: '2026-06-12T20:30:00Z' }, { person: place.person }))
    await deliver(issue([1], '2026-06-12T20:00:00Z', 264))
    expect((await heat()).forecast).toMatchObject({ members: 1, issuedAt: '2026-06-12T20:00:00Z' })
    const [[row]] = await app.database.query<Row[]>('SELECT COUNT(*) AS n FROM forecast_issue WHERE station_id = ?', [place.stationId])
    expect(row!['n']).toBe(2)
    // Delivered again, it is the same issue.
    expect((await deliver(issue([1], '2026-06-12T20:00:00Z', 264))).status).toBe(200)
    done(await app.call(demo.setClock, {}, { now: '2026-06-12T14:30:00Z' }, { person: place.person }))
    expect((await heat()).forecast).toMatchObject({ members: 3 })
    done(await app.call(demo.setClock, {}, { now: '2026-06-14T14:30:00Z' }, { person: place.person }))
    expect((await days()).forecast).toBeNull()
    done(await app.call(demo.setClock, {}, { now: '2026-06-12T14:30:00Z' }, { person: place.person }))
  })
})

describe('past forecasts', () => {
  test('are held against what came, and their bias is taken off the next one', async () => {
    const before = (await days()).ahead
    // A week and a half of issues at midnight that saw every night two degrees too cold and every day right.
    const file = hourlyFile(2026, '2026-06-13').split('\n')
    for (let d = 1; d <= 12; d++) {
      const issuedAt = `2026-05-${String(18 + d).padStart(2, '0')}T08:00:00Z`
      const start = file.findIndex((line) => line.startsWith(`2026-05-${String(18 + d).padStart(2, '0')} 00:00`))
      const temperature = file.slice(start, start + 96).map((line) => {
        const t = Number(line.split(',')[1])
        return Number(line.slice(11, 13)) < 9 ? t - 2 : t
      })
      expect((await deliver({ issuedAt, firstHour: issuedAt, members: [{ temperature }] })).status).toBe(200)
    }
    const { leads } = done(await app.call(weather.score, params(), {}))
    expect(leads.map(({ lead }) => lead)).toEqual([0, 1, 2, 3])
    expect(leads[1]).toMatchObject({ n: 12, biasMin: -2, biasMax: 0, errorMin: 2 })
    expect(leads[1]!.takenOffMin).toBeCloseTo((-2 * 12) / 20, 1)
    const { ahead, forecast } = await days()
    expect(forecast!.correctedFrom).toBeGreaterThanOrEqual(12)
    expect(ahead[1]!.min.middle - before[1]!.min.middle).toBeCloseTo(1.2, 1)
    expect(ahead[1]!.max.middle).toBeCloseTo(before[1]!.max.middle, 6)
    const hour = done(await app.call(weather.hours, params(), { day: '2026-06-13' }))
    expect(hour.source).toBe('forecast')
    expect(Math.min(...hour.hours.map(({ low }) => low ?? NaN))).toBeCloseTo(ahead[1]!.min.low, 1)
  })
})

describe('a forecast that is refused', () => {
  test.each([
    ['of the future', issue([0], '2026-06-13T02:00:00Z'), 'issuedAt', 'lies in the future'],
    [
      'with members of different length',
      { ...issue([0, 1]), members: [...issue([0]).members, { temperature: Array<number>(100).fill(12) }] },
      'members',
      'same number of hours',
    ],
    ['with a value that cannot be', issue([90]), 'members.0.temperature.0', 'must be at most 58'],
    ['without members', { ...issue([]), members: [] }, 'members', 'holds no member'],
  ])('%s', async (_, body, path, message) => {
    const answer = await deliver(body)
    expect(answer.status).toBe(422)
    expect(answer.body.fields?.[0]?.path).toBe(path)
    expect(answer.body.fields?.[0]?.message).toContain(message)
  })
  test('without its token', async () => expect((await deliver(issue([0]), 'guess')).status).toBe(401))
})
