import { randomUUID } from 'node:crypto'
import { endpoints, type Endpoint } from '@bocado/contract'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import type { Row } from './database/pool.js'
import { startApplication, type Application } from './testing/application.js'
import { done, startSite, type TestSite } from './testing/farm.js'

const { sites, blocks, watches } = endpoints

let app: Application
let place: TestSite
beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z' })
  place = await startSite(app)
})
afterAll(() => app.stop())

const inSite = () => ({ siteId: place.site.id })
const asLead = () => ({ person: place.person })
const vines = { name: 'Terrace Vines', kind: 'vineyard', areaHa: 5.5, grows: 'wine grape' } as const

describe('what is wrong is said at its field', () => {
  test('several at once, each by its path', async () => {
    const answer = await app.call(
      sites.create,
      {},
      { name: '', place: 'x', timeZone: 'Mars/Olympus', units: 'metric', latitude: 95 },
      asLead(),
    )
    expect(answer.status).toBe(422)
    expect(Object.fromEntries(answer.problem.fields!.map(({ path, message }) => [path, message]))).toEqual({
      name: 'enter the name of the site',
      timeZone: 'choose a time zone from the list, such as America/Los_Angeles',
      latitude: 'must be at most 90',
    })
  })

  test('a name that is taken', async () => {
    const answer = await app.call(blocks.create, inSite(), { ...vines, name: 'Old Apples' }, asLead())
    expect(answer.problem).toMatchObject({ status: 422, fields: [{ path: 'name', message: 'this name is taken; choose another' }] })
  })

  test('a biofix in the future, outside the season, and a day that is none', async () => {
    const watch = { organismId: 'codling-moth', blockId: place.blockId, season: '2026-01-01' }
    const fields = async (biofix: string) => (await app.call(watches.create, inSite(), { ...watch, biofix }, asLead())).problem.fields
    expect(await fields('2026-06-13')).toEqual([
      {
        path: 'biofix',
        message: 'lies in the future; enter it when it has happened, at the latest today, 2026-06-12',
        code: 'day.has-happened',
        values: { today: { day: '2026-06-12' } },
      },
    ])
    expect(await fields('2025-09-02')).toEqual([
      {
        path: 'biofix',
        message: 'must lie in the season or in the 120 days before it, 2025-09-03 to 2026-12-31',
        code: 'day.within-season-or-before',
        values: { days: 120, from: { day: '2025-09-03' }, to: { day: '2026-12-31' } },
      },
    ])
    expect(await fields('2026-02-30')).toEqual([{ path: 'biofix', message: 'enter a day of the calendar, as 2026-06-12' }])
  })

  test('JSON that is none, and an address that is none', async () => {
    const broken = await app.get(`sites`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: '{"name":',
    })
    expect(broken.status).toBe(400)
    expect(broken.headers.get('content-type')).toContain('application/problem+json')
    expect((await fetch(`${app.address}/api/v1/nothing`)).status).toBe(404)
  })
})

describe('who may write', () => {
  test('nobody without a name, no viewer, nobody of another site', async () => {
    const other = await startSite(app, 'Another bench')
    const status = async (person?: string) => (await app.call(blocks.create, inSite(), vines, person ? { person } : {})).status
    expect(await status()).toBe(401)
    expect(await status(place.viewer)).toBe(403)
    expect(await status(other.person)).toBe(404)
  })

  test('another site’s rows are not there', async () => {
    const other = await startSite(app, 'A third bench')
    const answer = await app.call(
      blocks.update,
      { siteId: other.site.id, blockId: place.blockId },
      { ...vines, rowVersion: 1 },
      { person: other.person },
    )
    expect(answer.status).toBe(404)
  })
})

describe('a write sent again', () => {
  test('under its key is answered as before and stored once', async () => {
    const key = randomUUID()
    const block = { ...vines, name: 'Stone Row' }
    const first = await app.call(blocks.create, inSite(), block, { ...asLead(), key })
    const again = await app.call(blocks.create, inSite(), block, { ...asLead(), key })
    expect(again.body).toEqual(first.body)
    const all = done(await app.call(blocks.list, inSite(), {}))
    expect(all.filter(({ name }) => name === 'Stone Row')).toHaveLength(1)
  })

  test('at the same moment is stored once', async () => {
    const key = randomUUID()
    const send = () => app.call(blocks.create, inSite(), { ...vines, name: 'Long Corn' }, { ...asLead(), key })
    const all = await Promise.all(Array.from({ length: 20 }, send))
    // While the first try runs the others are asked to come again; then they get its answer.
    expect(new Set(all.map(({ status }) => status)).has(200)).toBe(true)
    expect(all.map(({ status, problem }) => [status, problem.detail]).filter(([status]) => status !== 200 && status !== 409)).toEqual([])
    const later = done(await send())
    expect(new Set(all.filter(({ status }) => status === 200).map(({ body }) => body.id))).toEqual(new Set([later.id]))
  })

  test('with other contents under the same key is refused, and a refusal does not use a key up', async () => {
    const key = randomUUID()
    expect((await app.call(blocks.create, inSite(), { ...vines, name: 'Old Apples' }, { ...asLead(), key })).status).toBe(422)
    expect((await app.call(blocks.create, inSite(), { ...vines, name: 'Onion Flat' }, { ...asLead(), key })).status).toBe(200)
    expect((await app.call(blocks.create, inSite(), { ...vines, name: 'Ladder Pears' }, { ...asLead(), key })).problem.detail).toContain(
      'another request',
    )
  })
})

describe('a secret', () => {
  const issue = (key: string, person = place.person) =>
    app.call(endpoints.weather.issueToken, { ...inSite(), stationId: place.stationId }, {}, { person, key })
  const push = (token: string) =>
    fetch(`${app.address}/api/v1/stations/${place.stationId}/readings`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json', Authorization: `Bearer ${token}` },
      body: JSON.stringify({ at: '2026-06-12T13:00:00Z', temperature: 12 }),
    })

  test('is shown once, kept nowhere, and not shown again to whoever has the key', async () => {
    const key = randomUUID()
    const { token } = done(await issue(key))
    const again = await issue(key)
    expect(again.status).toBe(409)
    expect(again.problem.detail).toContain('Have a new one issued')
    const [tables] = await app.database.query<Row[]>('SELECT * FROM idempotency')
    expect(JSON.stringify(tables)).not.toContain(token)
    expect((await push(token)).status).toBe(200)
    // A new one ends the old.
    const fresh = done(await issue(randomUUID())).token
    expect((await push(token)).status).toBe(401)
    expect((await push(fresh)).status).toBe(200)
  })

  test('an answer is given again only to the person whose key it is', async () => {
    const scout = done(await app.call(sites.addPerson, inSite(), { name: 'Dario Quince', role: 'lead' }, asLead())).id
    const key = randomUUID()
    const block = { ...vines, name: 'Ladder Pears' }
    const first = done(await app.call(blocks.create, inSite(), block, { ...asLead(), key }))
    const other = await app.call(blocks.create, inSite(), block, { person: scout, key })
    expect(other.problem.fields).toMatchObject([{ path: 'name' }])
    expect(done(await app.call(blocks.create, inSite(), block, { ...asLead(), key })).id).toBe(first.id)
  })
})

describe('changes and removals', () => {
  test('a stale edit is refused with the row as it is, and every step is in the audit trail', async () => {
    const block = done(await app.call(blocks.create, inSite(), { ...vines, name: 'Glass Two', kind: 'tunnel' }, asLead()))
    const at = { ...inSite(), blockId: block.id }
    const change = (areaHa: number, rowVersion: number) =>
      app.call(blocks.update, at, { ...vines, name: 'Glass Two', kind: 'tunnel', areaHa, rowVersion }, asLead())
    expect(done(await change(0.3, 1)).rowVersion).toBe(2)
    const stale = await change(0.4, 1)
    expect(stale.status).toBe(409)
    expect(stale.problem.current).toMatchObject({ area_m2: 3000, row_version: 2 })

    const removed = done(await app.call(blocks.remove, at, { rowVersion: 2 }, asLead()))
    expect(done(await app.call(blocks.list, inSite(), {})).some(({ id }) => id === block.id)).toBe(false)
    done(await app.call(blocks.restore, at, { rowVersion: removed.rowVersion }, asLead()))
    const [rows] = await app.database.query<Row[]>('SELECT action, person_id FROM audit WHERE entity_id = ? ORDER BY id', [block.id])
    expect(rows.map((row) => row['action'] as string)).toEqual(['create', 'change', 'remove', 'restore'])
    expect(rows.every((row) => row['person_id'] === place.person)).toBe(true)
  })

  test('a removed block frees its name', async () => {
    const block = done(await app.call(blocks.create, inSite(), { ...vines, name: 'Creek Margin' }, asLead()))
    done(await app.call(blocks.remove, { ...inSite(), blockId: block.id }, { rowVersion: 1 }, asLead()))
    expect((await app.call(blocks.create, inSite(), { ...vines, name: 'Creek Margin' }, asLead())).status).toBe(200)
  })
})

test('the interface describes itself, with every operation and its schemas', async () => {
  const document = (await (await fetch(`${app.address}/api/v1/openapi.json`)).json()) as {
    openapi: string
    paths: Record<string, Record<string, { parameters: { name: string; in: string }[] }>>
  }
  expect(document.openapi).toBe('3.1.0')
  const all = Object.values(endpoints).flatMap((group) => Object.values<Endpoint>(group))
  for (const e of all) {
    const operation = document.paths[e.path.replace(/:(\w+)/g, '{$1}')]?.[e.method]
    expect(operation, `${e.method} ${e.path}`).toBeDefined()
    const inPath = operation!.parameters.filter((p) => p.in === 'path').map((p) => p.name)
    expect(inPath).toEqual([...e.path.matchAll(/:(\w+)/g)].map(([, name]) => name))
  }
})

test('a southern site’s season starts in July', async () => {
  const site = done(
    await app.call(
      sites.create,
      {},
      {
        name: 'South bench',
        place: 'a river terrace',
        timeZone: 'Pacific/Auckland',
        units: 'metric',
        latitude: -44,
      },
      asLead(),
    ),
  )
  expect(site.season).toEqual({ start: '2025-07-01', end: '2026-06-30' })
})
