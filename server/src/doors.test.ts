import { request } from 'node:http'
import { randomUUID } from 'node:crypto'
import { endpoints } from '@bocado/contract'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { startApplication, type Application } from './testing/application.js'
import { done, startSite, type TestSite } from './testing/farm.js'
import { hourlyFile, importFile, preview } from './testing/upload.js'

const { blocks, bloom, weather } = endpoints

let app: Application
let place: TestSite
beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z' })
  place = await startSite(app)
})
afterAll(() => app.stop())
const at = () => ({ siteId: place.site.id })

/** Asks as any program can, with headers that `fetch` does not let one set. */
function ask(
  path: string,
  options: { method?: string; headers?: Record<string, string>; body?: string } = {},
): Promise<{ status: number; headers: Record<string, unknown>; text: string }> {
  const { hostname, port } = new URL(app.address)
  return new Promise((resolve, reject) => {
    const asked = request({ hostname, port, path, method: options.method ?? 'GET', headers: options.headers ?? {} }, (answer) => {
      let text = ''
      answer.on('data', (part: Buffer) => (text += part.toString()))
      answer.on('end', () => resolve({ status: answer.statusCode ?? 0, headers: answer.headers, text }))
    })
    asked.on('error', reject)
    asked.end(options.body)
  })
}

describe('the doors', () => {
  test.each([
    ['evil.example', 421],
    ['evil.example:4600', 421],
    ['127.0.0.1.evil.example', 421],
    ['localhost', 200],
    ['127.0.0.1:80', 200],
    ['[::1]:4600', 200],
  ])('the name %s is answered with %i', async (host, status) => {
    expect((await ask('/api/v1/session', { headers: { Host: host } })).status).toBe(status)
  })

  test('another page cannot write, whoever it says it is', async () => {
    const write = async (headers: Record<string, string>) =>
      ask(`/api/v1/sites/${place.site.id}/blocks`, {
        method: 'POST',
        headers: {
          'Content-Type': 'application/json',
          'Idempotency-Key': randomUUID(),
          Cookie: await app.cookieOf(place.person),
          ...headers,
        },
        body: JSON.stringify({ name: `Block ${randomUUID().slice(0, 6)}`, kind: 'orchard', areaHa: 1, grows: '' }),
      })
    expect((await write({ Origin: 'http://evil.example' })).status).toBe(403)
    expect((await write({ Origin: 'null' })).status).toBe(403)
    expect((await write({ 'Sec-Fetch-Site': 'cross-site' })).status).toBe(403)
    const { host } = new URL(app.address)
    expect((await write({ Host: host, Origin: `http://${host}` })).status).toBe(200)
    expect((await write({})).status).toBe(200)
  })

  test('nothing promises HTTPS over plain HTTP, each answer has a name, and an error says it', async () => {
    const { headers } = await ask('/api/v1/session', { headers: { Host: 'localhost' } })
    expect(headers['strict-transport-security']).toBeUndefined()
    expect(headers['x-request-id']).toMatch(/^[0-9a-f-]{36}$/)
    expect(headers['x-content-type-options']).toBe('nosniff')
  })

  test('a file of the page that is not there is not the page', async () => {
    for (const path of ['/assets/gone-1234.js', '/favicon-old.png'])
      expect((await ask(path, { headers: { Host: 'localhost' } })).status).toBe(404)
    expect((await ask('/sites/x/windows', { headers: { Host: 'localhost' } })).text).toContain('<title>Bocado</title>')
  })
})

describe('what is larger than anything that is entered', () => {
  const post = async (path: string, body: string, type = 'application/json') =>
    fetch(`${app.address}/api/v1${path}`, {
      method: 'POST',
      headers: { 'Content-Type': type, 'Idempotency-Key': randomUUID(), Cookie: await app.cookieOf(place.person) },
      body,
    })

  test('is refused in a few words: nearly a million wrong stages', async () => {
    const stages = `[${'1,'.repeat(990_000)}1]`
    const answer = await post(`/sites/${place.site.id}/own-organisms`, `{"entry":{"name":"Moth","stages":${stages}}}`)
    expect(answer.status).toBe(422)
    expect((await answer.text()).length).toBeLessThan(2000)
  })

  test('several thousand wrong ones are named up to a point', async () => {
    const stages = `[${'1,'.repeat(9000)}1]`
    const answer = await post(`/sites/${place.site.id}/own-organisms`, `{"entry":{"name":"Moth","stages":${stages}}}`)
    expect(answer.status).toBe(422)
    const text = await answer.text()
    expect(text.length).toBeLessThan(20_000)
    expect(text).toContain('more')
  })

  test('a file is taken in from nobody who may not, before it is read', async () => {
    const path = weather.import.path.replace(':siteId', place.site.id).replace(':stationId', place.stationId)
    const query = new URLSearchParams({ importId: randomUUID(), fileName: 'x.csv', mapping: '{}' })
    const send = async (person: string) =>
      fetch(`${app.address}/api/v1${path}?${query.toString()}`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/octet-stream', Cookie: await app.cookieOf(person) },
        body: ','.repeat(20_000_000),
      })
    const began = performance.now()
    expect((await send(place.viewer)).status).toBe(403)
    expect((await send(randomUUID())).status).toBe(401)
    expect(performance.now() - began).toBeLessThan(3000)
  })

  test('twenty megabytes of commas on a line end the reader and not the server', async () => {
    const mapping = (await preview(app, place, hourlyFile(2026, '2026-02-01').slice(0, 50_000))).body.mapping
    const before = await memory()
    for (const mark of [',', '"']) {
      const { status, body } = await importFile(app, place, `time,temp C\n${mark.repeat(20_000_000)}`, mapping)
      expect([status, body.detail]).toEqual([422, expect.stringContaining('characters long')])
    }
    expect((await fetch(`${app.address}/healthz`)).status).toBe(200)
    expect((await memory()) - before).toBeLessThan(200)
  })

  test('a preview takes the head of a file and no more', async () => {
    const { status } = await preview(app, place, ','.repeat(400_000))
    expect(status).toBe(413)
    const began = performance.now()
    expect((await preview(app, place, ','.repeat(262_000))).status).toBe(422)
    expect(performance.now() - began).toBeLessThan(2000)
  })

  /** MB of the server's process. */
  async function memory(): Promise<number> {
    const { readFile } = await import('node:fs/promises')
    const status = await readFile(`/proc/${app.process.pid}/status`, 'utf8')
    return Number(/VmRSS:\s+(\d+)/.exec(status)?.[1] ?? 0) / 1024
  }
})

test('a cell that a spreadsheet would run is text in every file that goes out, and comes in again as it was', async () => {
  const note = '=HYPERLINK("http://evil.example")'
  const kept = { plantId: 'common-lilac', event: 'first-open', seenFrom: '2026-04-20', place: '+1 by the gate', note } as const
  done(await app.call(bloom.add, at(), kept, { person: place.person }))
  const csv = await (await app.get(`sites/${place.site.id}/bloom.csv`)).text()
  expect(csv).toContain(`"'=HYPERLINK`)
  expect(csv).toContain(`'+1 by the gate`)
  const lines = done(await app.call(bloom.preview, at(), { text: csv }, { person: place.person }))
  expect(lines[0]).toMatchObject({ place: '+1 by the gate', note, known: true })
  const { days } = done(await app.call(weather.days, { ...at(), stationId: place.stationId }, { season: '2026-01-01' }))
  expect(days[0]!.min).toBeNull()
})

test('what a removed block is called is free again, and removal has the time of the site', async () => {
  const block = done(
    await app.call(blocks.create, at(), { name: 'Long Corn', kind: 'field', areaHa: 8, grows: 'sweet corn' }, { person: place.person }),
  )
  done(await app.call(blocks.remove, { ...at(), blockId: block.id }, { rowVersion: 1 }, { person: place.person }))
  const [rows] = await app.database.query('SELECT deleted_at FROM place WHERE id = ?', [block.id])
  expect((rows as { deleted_at: string }[])[0]!.deleted_at.slice(0, 16)).toBe('2026-06-12 14:30')
})
