import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { countedDays } from '@bocado/demo'
import { afterEach, expect, test } from 'vitest'
import { runTrapCounter } from './trapCounter.js'

let server: Server | undefined
afterEach(() => server?.close())

test('a counter sends each day once it is over, once, and follows the clock', async () => {
  const got: { day: string; caught: number }[] = []
  let refusals = 1
  let now = Date.parse('2026-05-03T12:00:00Z')
  server = createServer((req, res) => {
    if (req.url === '/api/v1/demo/clock') {
      res.end(JSON.stringify({ now: new Date(now).toISOString() }))
      return
    }
    let body = ''
    req.on('data', (chunk: Buffer) => (body += chunk.toString()))
    req.on('end', () => {
      expect(req.url).toBe('/api/v1/traps/a/catches')
      expect(req.headers.authorization).toBe('Bearer secret')
      if (refusals-- > 0) {
        res.statusCode = 503
        res.end('not now')
        return
      }
      got.push(...(JSON.parse(body) as { catches: typeof got }).catches)
      res.end('{}')
    })
  })
  await new Promise<void>((resolve) => server!.listen(0, '127.0.0.1', resolve))
  const address = `http://127.0.0.1:${(server.address() as AddressInfo).port}`
  const stop = new AbortController()
  const running = runTrapCounter({ address, trapId: 'a', token: 'secret' }, stop.signal)
  await expect.poll(() => got.map(({ day }) => day), { timeout: 8000 }).toEqual(['2026-04-29', '2026-04-30', '2026-05-01', '2026-05-02'])
  now = Date.parse('2026-06-12T12:00:00Z')
  await expect.poll(() => got.length, { timeout: 8000 }).toBe(44)
  stop.abort()
  await running
  expect(got).toEqual(countedDays(null, now))
  expect(got.reduce((sum, { caught }) => sum + caught, 0)).toBeGreaterThan(40)
}, 20_000)
