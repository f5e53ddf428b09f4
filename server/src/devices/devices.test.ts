import { endpoints } from '@bocado/contract'
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest'
import { jsonOf, type Row } from '../database/pool.js'
import { startApplication, type Application } from '../testing/application.js'
import { done, startSite, type TestSite } from '../testing/farm.js'

const { weather, sites, demo } = endpoints

let app: Application
let place: TestSite
let token: string
beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z' })
})
let n = 0
beforeEach(async () => {
  place = await startSite(app, `Bench ${n++}`)
  token = await issue()
})
afterAll(() => app.stop())

const params = () => ({ siteId: place.site.id, stationId: place.stationId })
const issue = async () => done(await app.call(weather.issueToken, params(), {}, { person: place.person })).token

async function push(body: unknown, options: { token?: string; type?: string; stationId?: string } = {}) {
  const response = await fetch(`${app.address}/api/v1/stations/${options.stationId ?? place.stationId}/readings`, {
    method: 'POST',
    headers: { 'Content-Type': options.type ?? 'application/json', Authorization: `Bearer ${options.token ?? token}` },
    body: typeof body === 'string' ? body : JSON.stringify(body),
  })
  return {
    status: response.status,
    body: (await response.json()) as {
      new?: number
      changed?: number
      unchanged?: number
      detail?: string
      fields?: { path: string; message: string }[]
    },
  }
}
const stored = async (): Promise<number> => {
  const [[row]] = await app.database.query<Row[]>('SELECT COUNT(*) AS n FROM reading WHERE station_id = ?', [place.stationId])
  return row!['n'] as number
}
const station = async () => done(await app.call(weather.stations, { siteId: place.site.id }, {}))[0]!
const reading = { at: '2026-06-12T13:00:00Z', temperature: 18.5, humidity: 60, rain: 0, wind: 1.2 }

describe('a device pushes', () => {
  test('one reading or several, as JSON or as CSV', async () => {
    expect((await push(reading)).body).toEqual({ new: 1, changed: 0, unchanged: 0 })
    expect((await push({ readings: [reading, { at: '2026-06-12T12:00:00Z', temperature: 17 }] })).body).toEqual({
      new: 1,
      changed: 0,
      unchanged: 1,
    })
    const csv = 'at,temperature,humidity,rain,wind\n2026-06-12T11:00:00Z,16.2,,0,\n2026-06-12T10:00:00Z,15.9,70,0,1'
    expect((await push(csv, { type: 'text/csv' })).body).toEqual({ new: 2, changed: 0, unchanged: 0 })
  })

  test('late and again, and what it corrects is in the audit trail', async () => {
    await push(reading)
    expect((await push({ at: '2026-06-10T02:00:00Z', temperature: 9 })).body).toMatchObject({ new: 1 })
    expect((await station()).lastHour).toBe('2026-06-12T13:00:00Z')
    expect((await push({ ...reading, temperature: 19 })).body).toMatchObject({ changed: 1 })
    const [[row]] = await app.database.query<Row[]>("SELECT before_row FROM audit WHERE entity = 'reading' AND entity_id = ?", [
      place.stationId,
    ])
    expect(jsonOf(row!['before_row'])).toMatchObject([{ temperature: 18.5 }])
  })

  test('finer than an hour: averaged, rain added up', async () => {
    const minutes = ['00', '20', '40'].map((m, i) => ({ at: `2026-06-12T13:${m}:00Z`, temperature: 18 + i, rain: 0.2 }))
    await push({ readings: minutes })
    const [[row]] = await app.database.query<Row[]>('SELECT temperature, rain FROM reading WHERE station_id = ?', [place.stationId])
    expect(row!['temperature']).toBeCloseTo(19)
    expect(row!['rain']).toBeCloseTo(0.6)
  })

  test('from where the wind blows within an hour is the mean of vectors, and none in a calm', async () => {
    const blows = (moments: [minute: string, direction: number, wind: number][]) =>
      moments.map(([m, direction, wind]) => ({ at: `2026-06-12T${m}:00Z`, direction, wind }))
    await push({
      readings: blows([
        ['13:00', 350, 1],
        ['13:20', 20, 1],
        ['13:40', 180, 0],
        ['12:00', 90, 0],
        ['12:20', 200, 0],
      ]),
    })
    const [rows] = await app.database.query<Row[]>('SELECT direction FROM reading WHERE station_id = ? ORDER BY at', [place.stationId])
    expect(rows.map((row) => row['direction'] as number | null)).toEqual([null, 5])
  })

  test('and the site’s version of its weather rises, so that open pages know', async () => {
    const version = async () =>
      done(await app.call(sites.list, {}, {}, { person: place.person })).find(({ id }) => id === place.site.id)!.versions.weather ?? 0
    const before = await version()
    await push(reading)
    expect(await version()).toBeGreaterThan(before)
    const after = await version()
    await push(reading)
    expect(await version()).toBe(after)
  })

  test('and is noticed when it falls silent', async () => {
    await push({ at: '2026-06-12T12:00:00Z', temperature: 17 })
    expect(await station()).toMatchObject({ device: 'pushed', silent: false })
    await push({ at: '2026-06-12T11:00:00Z', temperature: 16 })
    done(await app.call(demo.setClock, {}, { now: '2026-06-12T18:00:00Z' }, { person: place.person }))
    expect(await station()).toMatchObject({ silent: true, lastHour: '2026-06-12T12:00:00Z' })
    done(await app.call(demo.setClock, {}, { now: '2026-06-12T14:30:00Z' }, { person: place.person }))
  })
})

describe('what is refused, with a reason and nothing stored', () => {
  test.each([
    ['a future reading', { readings: [reading, { at: '2026-06-12T15:00:00Z', temperature: 20 }] }, 'readings.1.at', 'lies in the future'],
    ['an absurd one', { ...reading, temperature: 400 }, '', 'temperature'],
    ['one without values', { at: reading.at }, '', 'holds no value'],
    ['a word for a number', 'at,temperature\n2026-06-12T13:00:00Z,warm', '', 'number'],
  ])('%s', async (_, body, path, words) => {
    const answer = await push(body, typeof body === 'string' ? { type: 'text/csv' } : {})
    expect(answer.status).toBe(422)
    if (path) expect(answer.body.fields?.[0]?.path).toBe(path)
    expect(JSON.stringify(answer.body)).toContain(words)
    expect(await stored()).toBe(0)
  })

  test('a wrong token, an old token, another site’s station', async () => {
    expect((await push(reading, { token: 'guess' })).status).toBe(401)
    const other = await startSite(app, `Bench ${n++}`)
    expect((await push(reading, { stationId: other.stationId })).status).toBe(401)
    const old = token
    token = await issue()
    expect((await push(reading, { token: old })).status).toBe(401)
    expect((await push(reading)).status).toBe(200)
  })

  test('malformed JSON and ten megabytes', async () => {
    expect((await push('{"at": ')).status).toBe(400)
    expect((await push(`{"readings": "${'x'.repeat(10_000_000)}"}`)).status).toBe(413)
    expect(await stored()).toBe(0)
  })

  test('more than sixty pushes in a minute', async () => {
    const statuses = []
    for (let i = 0; i < 65; i++) statuses.push((await push({ at: reading.at })).status)
    expect(statuses.slice(0, 55).every((status) => status === 422)).toBe(true)
    expect(statuses.at(-1)).toBe(429)
  })
})

test('the time can be moved only where there is a demonstration', async () => {
  const real = await startApplication()
  const { person } = await startSite(real)
  expect(done(await real.call(demo.clock, {}, {})).now).toBeNull()
  expect((await real.call(demo.setClock, {}, { now: '2026-06-12T18:00:00Z' }, { person })).status).toBe(404)
  expect((await app.call(demo.setClock, {}, { now: '2026-06-12T18:00:00Z' })).status).toBe(401)
  expect((await app.call(demo.setClock, {}, { now: '2026-06-12T18:00:00Z' }, { person: place.viewer })).status).toBe(200)
  await real.stop()
})
