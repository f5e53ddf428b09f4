import { readFileSync } from 'node:fs'
import { get, type ClientRequest } from 'node:http'
import { setTimeout as sleep } from 'node:timers/promises'
import { endpoints } from '@bocado/contract'
import { MS_PER_HOUR } from '@bocado/core'
import { startApplication, type Application } from '@bocado/server/testing/application'
import { done, startSite, type TestSite } from '@bocado/server/testing/farm'
import { NOW, startBench, watchForty } from './farm.js'

/* What the shape of the house is worth: many sites, pages that listen, hours that come in, people and devices at the same time. */

const { blocks, sites, watches, weather } = endpoints
const SITES = 50
const PAGES = 20

async function timed(work: () => Promise<unknown>): Promise<number> {
  const began = performance.now()
  await work()
  return performance.now() - began
}
const at = (sorted: number[], share: number): number => sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))] as number
async function taken(work: () => Promise<unknown>, times: number): Promise<number[]> {
  const ms: number[] = []
  for (let i = 0; i < times; i++) ms.push(await timed(work))
  return ms.sort((a, b) => a - b)
}

/** Seconds of a core that a process has used, all its threads together. */
function cpuSeconds(pid: number): number {
  const fields = readFileSync(`/proc/${pid}/stat`, 'utf8')
    .replace(/^.*\) /, '')
    .split(' ')
  return (Number(fields[11]) + Number(fields[12])) / 100
}
const memory = (pid: number, what: 'VmRSS' | 'VmHWM'): number =>
  Number(new RegExp(`${what}:\\s+(\\d+)`).exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? NaN) / 1024

/** A page that listens; `heard` is called with each aspect that rises. */
function listen(app: Application, siteId: string, Cookie: string, heard: (aspects: string[]) => void): ClientRequest {
  const request = get(`${app.address}/api/v1/changes?sites=${siteId}`, { headers: { Accept: 'text/event-stream', Cookie } }, (response) => {
    response.setEncoding('utf8').on('data', (text: string) => {
      for (const [, data] of text.matchAll(/^data: (.*)$/gm))
        heard(Object.keys((JSON.parse(data ?? '{}') as { versions: object }).versions))
    })
  })
  request.on('error', () => undefined)
  return request
}

async function manySites(app: Application): Promise<string[]> {
  const person = await app.newPerson()
  for (let i = 0; i < SITES; i++) {
    const { site } = await startSite(app, `Bench ${i}`, person)
    for (const name of ['River', 'Terrace', 'Glass']) done(await app.call(weather.addStation, { siteId: site.id }, { name }, { person }))
  }
  await app.settled()
  const plain = await taken(() => fetch(`${app.address}/healthz`), 60)
  const list = await taken(() => app.call(sites.list, {}, {}, { person }), 60)
  return [`list of ${SITES} sites: p95 ${at(list, 0.95).toFixed(0)} ms (at most 30); an empty answer ${at(plain, 0.95).toFixed(0)} ms`]
}

async function listening(app: Application, place: TestSite): Promise<string[]> {
  const cookie = await app.cookieOf(place.person)
  const pages = Array.from({ length: PAGES }, () => listen(app, place.site.id, cookie, () => undefined))
  await sleep(2000)
  const pid = app.process.pid ?? 0
  const before = cpuSeconds(pid)
  await sleep(10_000)
  const share = (cpuSeconds(pid) - before) / 10
  for (const page of pages) page.destroy()
  return [`${PAGES} pages that listen while nothing happens: ${(100 * share).toFixed(1)} % of a core (at most 5)`]
}

/** A station that pushes hours, one after the other. */
async function device(app: Application, place: TestSite): Promise<() => Promise<Response>> {
  const params = { siteId: place.site.id, stationId: place.stationId }
  const { token } = done(await app.call(weather.issueToken, params, {}, { person: place.person }))
  let hour = Date.parse('2026-06-10T12:00:00Z')
  return () =>
    fetch(`${app.address}/api/v1/stations/${place.stationId}/readings`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json', Authorization: `Bearer ${token}` },
      body: JSON.stringify({ at: new Date((hour += MS_PER_HOUR)).toISOString(), temperature: 15 + ((hour / MS_PER_HOUR) % 9) }),
    })
}

async function hours(app: Application, place: TestSite, push: () => Promise<Response>): Promise<string[]> {
  const read = () => app.call(weather.stations, { siteId: place.site.id }, {})
  const quiet = await taken(read, 120)
  let told: (() => void) | undefined
  const page = listen(app, place.site.id, await app.cookieOf(place.person), (aspects) => aspects.includes('forecasts') && told?.())
  await sleep(1500)
  const fresh: number[] = []
  const beside: number[] = []
  for (let i = 0; i < 8; i++) {
    const heard = new Promise<void>((resolve) => (told = resolve))
    const waited = timed(async () => {
      await push()
      await Promise.race([heard, sleep(10_000)])
    })
    let waiting = true
    void waited.then(() => (waiting = false))
    while (waiting) beside.push(await timed(read))
    fresh.push(await waited)
  }
  page.destroy()
  const [slow, before] = [
    at(
      beside.sort((a, b) => a - b),
      0.99,
    ),
    at(quiet, 0.99),
  ]
  return [
    `after a pushed hour the band of 40 watches is new within ${(Math.max(...fresh) / 1000).toFixed(1)} s (at most 2); p99 of other answers ${slow.toFixed(0)} ms meanwhile, ${before.toFixed(0)} ms in quiet (at most twice)`,
  ]
}

async function together(app: Application, place: TestSite, push: () => Promise<Response>): Promise<string[]> {
  const params = { siteId: place.site.id }
  const address = `${app.address}/api/v1/sites/${place.site.id}`
  const Cookie = await app.cookieOf(place.person)
  let running = true
  const ms: number[] = []
  const reader = async (i: number): Promise<void> => {
    const tags = new Map<string, string>()
    while (running) {
      for (const path of ['/band?season=2026-01-01', '/stations', '/blocks', `/stations/${place.stationId}/days?season=2026-01-01`]) {
        const tag = tags.get(path)
        const began = performance.now()
        const response = await fetch(address + path, { headers: { Cookie, ...(tag ? { 'If-None-Match': tag } : {}) } })
        await response.arrayBuffer()
        ms.push(performance.now() - began)
        const next = response.headers.get('ETag')
        if (next) tags.set(path, next)
      }
      await sleep(200 + 20 * i)
    }
  }
  let refused = 0
  const writer = async (i: number): Promise<void> => {
    for (let n = 0; running; n++) {
      const answer = await app.call(
        blocks.create,
        params,
        { name: `Row ${i}-${n}`, kind: 'bed', areaHa: null, grows: '' },
        { person: place.person },
      )
      if (answer.status !== 200) refused++
      await sleep(500)
    }
  }
  const pusher = async (): Promise<void> => {
    while (running) {
      if (!(await push()).ok) refused++
      await sleep(2000)
    }
  }
  const all = [...Array.from({ length: 10 }, (_, i) => reader(i)), ...Array.from({ length: 5 }, (_, i) => writer(i)), pusher()]
  await sleep(3000)
  ms.length = 0
  await sleep(15_000)
  running = false
  await Promise.all(all)
  const sorted = ms.sort((a, b) => a - b)
  return [
    `10 readers, 5 writers and a device: p95 of ${sorted.length} reads ${at(sorted, 0.95).toFixed(0)} ms (at most 150), ${refused} writes refused (none)`,
  ]
}

async function aDay(app: Application, push: () => Promise<Response>): Promise<string[]> {
  const pid = app.process.pid ?? 0
  let atSix = NaN
  for (let hour = 1; hour <= 24; hour++) {
    await push()
    await app.settled()
    if (hour === 6) atSix = memory(pid, 'VmRSS')
  }
  const last = memory(pid, 'VmRSS')
  return [
    `24 hours pushed: ${last.toFixed(0)} MB after the last, ${(last / atSix).toFixed(2)} times that of hour 6 (at most 1.1); at its most ${memory(pid, 'VmHWM').toFixed(0)} MB (at most 700)`,
  ]
}

/** The shape of the house on a database of its own. */
export async function report(server: string): Promise<string[]> {
  const app = await startApplication({ now: NOW, server })
  try {
    const place = await startBench(app, 'Hollin Bench')
    await watchForty(app, place)
    done(await app.call(watches.band, { siteId: place.site.id }, { season: '2026-01-01' }))
    const push = await device(app, place)
    return [
      ...(await hours(app, place, push)),
      ...(await listening(app, place)),
      ...(await together(app, place, push)),
      ...(await aDay(app, push)),
      ...(await manySites(app)),
    ]
  } finally {
    await app.stop()
  }
}
