import { randomUUID } from 'node:crypto'
import { endpoints, type WeatherMapping } from '@bocado/contract'
import { createConnection } from 'mysql2/promise'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import type { Row } from './database/pool.js'
import { startApplication, type Application } from './testing/application.js'
import { done, startSite, type TestSite } from './testing/farm.js'
import { insertImport } from './weatherFiles/store.js'
import { hourlyFile, importFile, preview } from './testing/upload.js'

/* Many at once: everything is asked for twenty times together, and something always holds what somebody else needs. */

const { blocks, bloom, calibration, sites, watches, weather } = endpoints
const SEASON = '2026-01-01'
const TIMES = 20

let app: Application
let place: TestSite
let mapping: WeatherMapping
beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z' })
  place = await startSite(app)
  const file = hourlyFile(2022, '2026-06-12')
  mapping = (await preview(app, place, file.slice(0, 200_000))).body.mapping
  await importFile(app, place, file, mapping)
})
afterAll(() => app.stop())

const at = () => ({ siteId: place.site.id })
const as = () => ({ person: place.person })
const together = <T>(work: (i: number) => Promise<T>, times = TIMES): Promise<T[]> =>
  Promise.all(Array.from({ length: times }, (_, i) => work(i)))
const statuses = (answers: readonly { status: number }[]): number[] =>
  [...new Set(answers.map(({ status }) => status))].sort((a, b) => a - b)

async function health(): Promise<{ status: number; ms: number; body: { ok: boolean; parts: Record<string, unknown> } }> {
  const began = performance.now()
  const answer = await fetch(`${app.address}/healthz`)
  return { status: answer.status, ms: performance.now() - began, body: (await answer.json()) as never }
}

async function deviceOf(stationId: string): Promise<(at: string, temperature: number) => Promise<number>> {
  const { token } = done(await app.call(weather.issueToken, { ...at(), stationId }, {}, as()))
  return async (moment, temperature) => {
    const answer = await fetch(`${app.address}/api/v1/stations/${stationId}/readings`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json', Authorization: `Bearer ${token}` },
      body: JSON.stringify({ at: moment, temperature, humidity: 60, rain: 0, wind: 2 }),
    })
    await answer.text()
    return answer.status
  }
}

describe('twenty at once', () => {
  test('previews of a notebook and of a correction are all answered, and health with them', async () => {
    const text = '2026-04-20 common lilac first open\n2026-04-22 forsythia end'
    const correction = { kind: 'unit', from: '2026-01-05', to: '2026-02-09', variable: 'temperature', readAs: 'F', isIn: 'C' } as const
    const [notebooks, corrections, { status, ms }] = await Promise.all([
      together(() => app.call(bloom.preview, at(), { text }, as())),
      together(() => app.call(weather.previewCorrection, { ...at(), stationId: place.stationId }, correction)),
      health(),
    ])
    expect([statuses(notebooks), statuses(corrections), status]).toEqual([[200], [200], 200])
    expect(ms).toBeLessThan(1000)
  })

  test('accepted calibrations and corrections each end, in words where one was faster', async () => {
    const watch = done(
      await app.call(
        watches.create,
        at(),
        { organismId: 'codling-moth', blockId: place.blockId, season: SEASON, biofix: '2026-05-10' },
        as(),
      ),
    )
    const params = { ...at(), watchId: watch.id }
    done(await app.call(calibration.addSighting, params, { event: 'hatch', kind: 'first', seenOn: '2026-06-01' }, as()))
    const accepted = await together(() => app.call(calibration.accept, params, { event: 'hatch' }, as()))
    expect(accepted.filter(({ status }) => status === 200).length).toBeGreaterThan(0)
    expect(accepted.filter(({ status }) => status >= 500)).toEqual([])
    const unit = { kind: 'unit', from: '2026-01-05', to: '2026-01-06', variable: 'temperature', readAs: 'F', isIn: 'C' } as const
    const corrected = await together(() => app.call(weather.correct, { ...at(), stationId: place.stationId }, unit, as()), 6)
    // Converted twice it would be nonsense: whoever is later is told who put it right.
    expect(corrected.map(({ status }) => status).sort()).toEqual([200, 422, 422, 422, 422, 422])
    expect(corrected.find(({ status }) => status === 422)?.problem.detail).toContain('has put the same right already')
  })

  test('the same hour pushed by a device is stored once and acknowledged every time', async () => {
    const push = await deviceOf(place.stationId)
    for (const hour of ['2026-06-12T08:00:00Z', '2026-06-12T09:00:00Z'])
      expect(await together(() => push(hour, 12))).toEqual(Array<number>(TIMES).fill(200))
    const [[row]] = await app.database.query<Row[]>(
      "SELECT COUNT(*) AS n FROM reading WHERE station_id = ? AND at = '2026-06-12 09:00:00'",
      [place.stationId],
    )
    expect(row!['n']).toBe(1)
  })

  test('of two editors of one block one is first, and the others see what stands there', async () => {
    const block = done(await app.call(blocks.create, at(), { name: 'Stone Row', kind: 'orchard', areaHa: 1.8, grows: 'peach' }, as()))
    const edits = await together((i) =>
      app.call(
        blocks.update,
        { ...at(), blockId: block.id },
        { name: 'Stone Row', kind: 'orchard', areaHa: 1 + i, grows: 'peach', rowVersion: 1 },
        as(),
      ),
    )
    expect(edits.filter(({ status }) => status === 200)).toHaveLength(1)
    expect(edits.filter(({ status }) => status === 409)).toHaveLength(TIMES - 1)
  })

  test('one import sent again while it is stored is stored once; its id stands for no other file', async () => {
    const importId = randomUUID()
    const later = hourlyFile(2015, '2020-01-01')
    const tries = await together(() => importFile(app, place, later, mapping, importId), 4)
    expect(tries.filter(({ status }) => status === 200).length).toBeGreaterThan(0)
    for (const { status, body } of tries)
      if (status !== 200) expect([status, body.detail]).toEqual([409, expect.stringContaining('still being stored')])
    const again = await importFile(app, place, later, mapping, importId)
    expect(again.body).toMatchObject({ id: importId, new: tries.find(({ status }) => status === 200)!.body.new })
    const other = await importFile(app, place, hourlyFile(2014, '2015-01-01'), mapping, importId)
    expect([other.status, other.body.detail]).toEqual([422, expect.stringContaining('another file')])
  })
})

test('an import that was stored between the look for it and the write is told as such, and never as another file', async () => {
  const [slow, fast] = await Promise.all([createConnection({ uri: app.databaseUrl }), createConnection({ uri: app.databaseUrl })])
  const task = (importId: string, hash: string) => ({
    importId,
    stationId: place.stationId,
    fileName: 'bench.csv',
    mapping,
    rejections: [],
    hash,
  })
  const as = (tx: typeof slow) => ({ tx, siteId: place.site.id, personId: place.person, now: new Date() }) as never
  const meanwhile = async (importId: string, hash: string): Promise<unknown> => {
    await slow.query('START TRANSACTION')
    // What this transaction sees is what there was now.
    await slow.query('SELECT COUNT(*) FROM weather_import')
    await insertImport(as(fast), task(importId, 'a'.repeat(64)))
    const error: unknown = await insertImport(as(slow), task(importId, hash)).catch((e: unknown) => e)
    await slow.query('ROLLBACK')
    return error
  }
  expect(await meanwhile(randomUUID(), 'a'.repeat(64))).toMatchObject({
    status: 409,
    message: expect.stringContaining('still being stored') as string,
  })
  expect(await meanwhile(randomUUID(), 'b'.repeat(64))).toMatchObject({
    status: 422,
    message: expect.stringContaining('another file') as string,
  })
  await Promise.all([slow.end(), fast.end()])
})

describe('somebody holds what others need', () => {
  test('a station that is locked delays its own devices and nobody else; health answers within a second', async () => {
    const push = await deviceOf(place.stationId)
    const holder = await createConnection({ uri: app.databaseUrl })
    await holder.query('START TRANSACTION')
    await holder.query('SELECT id FROM station WHERE id = ? FOR UPDATE', [place.stationId])
    // More than there are connections for writes.
    const waiting = together((i) => push(`2026-06-12T0${i % 7}:00:00Z`, 11), 12)
    await new Promise((resolve) => setTimeout(resolve, 300))
    const { ms, body } = await health()
    expect(ms).toBeLessThan(1000)
    expect(body.parts['writes']).toMatchObject({ held: 6 })
    const read = performance.now()
    expect((await app.call(sites.list, {}, {})).status).toBe(200)
    expect(done(await app.call(watches.band, at(), { season: SEASON })).watches).not.toHaveLength(0)
    expect(performance.now() - read).toBeLessThan(3000)
    await holder.query('COMMIT')
    await holder.end()
    expect(statuses((await waiting).map((status) => ({ status })))).toEqual([200])
  })
})

describe('eight stations that push while six pages look', () => {
  test('are never refused', async () => {
    const stations = await together(async (i) => done(await app.call(weather.addStation, at(), { name: `Row ${i}` }, as())).id, 8)
    // Each has a gap that a neighbour fills, so that each hangs on the others.
    const file = hourlyFile(2026, '2026-06-12').split('\n')
    file.splice(3200, 9)
    for (const stationId of stations) await importFile(app, { ...place, stationId }, file.join('\n'), mapping)
    const devices = await Promise.all(stations.map(deviceOf))
    let refused = 0
    let slowest = 0
    let looking = true
    const look = async (i: number): Promise<void> => {
      while (looking) {
        const began = performance.now()
        const stationId = stations[i % stations.length]!
        const answers = [
          await app.call(sites.list, {}, {}),
          await app.call(weather.stations, at(), {}),
          await app.call(weather.doubts, { ...at(), stationId }, { season: SEASON }),
          await app.call(watches.band, at(), { season: SEASON }),
        ]
        if (answers.some(({ status }) => status !== 200)) refused++
        slowest = Math.max(slowest, performance.now() - began)
        await new Promise((resolve) => setTimeout(resolve, 200))
      }
    }
    const pages = together(look, 6)
    for (let round = 0; round < 5; round++) {
      const pushed = await Promise.all(devices.map((push, s) => push(`2026-06-12T0${round + 3}:00:00Z`, 10 + s)))
      expect(pushed).toEqual(Array<number>(8).fill(200))
      await new Promise((resolve) => setTimeout(resolve, 500))
    }
    expect((await health()).ms).toBeLessThan(1000)
    looking = false
    await pages
    expect(refused).toBe(0)
  }, 120_000)
})
