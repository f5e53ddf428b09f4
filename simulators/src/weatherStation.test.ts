import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import type { InventedHour } from '@bocado/demo'
import { afterEach, expect, test } from 'vitest'
import { dueHours, runStation, toReadings } from './weatherStation.js'

const HOUR = 3_600_000
const START = Date.parse('2026-06-12T00:00:00Z')
const hours: InventedHour[] = Array.from({ length: 12 }, (_, i) => ({
  at: START + i * HOUR,
  temperature: i,
  humidity: 60,
  rain: 0,
  wind: null,
  direction: null,
}))

let server: Server | undefined
afterEach(() => server?.close())

test('an hour is due once it has passed, not while it runs', () => {
  expect(dueHours(hours, START, START + 3.5 * HOUR).map(({ temperature }) => temperature)).toEqual([1, 2])
  expect(dueHours(hours, START + 11 * HOUR, START + 99 * HOUR)).toEqual([])
})

test('a sensor that gave nothing is left out, not sent as zero', () => {
  expect(toReadings(hours.slice(0, 1))).toEqual([{ at: '2026-06-12T00:00:00Z', temperature: 0, humidity: 60, rain: 0 }])
})

test('a station pushes what is due in order, tries again what was refused, and follows the clock', async () => {
  const got: number[] = []
  let refusals = 1
  let now = START + 2 * HOUR
  server = createServer((req, res) => {
    if (req.url === '/api/v1/demo/clock') {
      res.end(JSON.stringify({ now: new Date(now).toISOString() }))
      return
    }
    let body = ''
    req.on('data', (chunk: Buffer) => (body += chunk.toString()))
    req.on('end', () => {
      expect(req.headers.authorization).toBe('Bearer secret')
      if (refusals-- > 0) {
        res.statusCode = 503
        res.end('not now')
        return
      }
      got.push(...(JSON.parse(body) as { readings: { temperature: number }[] }).readings.map(({ temperature }) => temperature))
      res.end('{}')
    })
  })
  await new Promise<void>((resolve) => server!.listen(0, '127.0.0.1', resolve))
  const address = `http://127.0.0.1:${(server.address() as AddressInfo).port}`
  const stop = new AbortController()
  const running = runStation({ address, stationId: 'a', token: 'secret' }, hours, START - 1, stop.signal)
  await expect.poll(() => got, { timeout: 8000 }).toEqual([0, 1])
  now = START + 5 * HOUR
  await expect.poll(() => got, { timeout: 8000 }).toEqual([0, 1, 2, 3, 4])
  stop.abort()
  await running
}, 20_000)
