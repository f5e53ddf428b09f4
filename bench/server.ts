import { MS_PER_HOUR } from '@bocado/core'
import { readFileSync } from 'node:fs'
import { get } from 'node:http'
import { setTimeout as sleep } from 'node:timers/promises'
import { gunzipSync } from 'node:zlib'
import { endpoints } from '@bocado/contract'
import { startApplication, type Application } from '@bocado/server/testing/application'
import { done, startSite, type TestSite } from '@bocado/server/testing/farm'
import { hourlyFile, importFile, preview } from '@bocado/server/testing/upload'
import { NOW, startBench, watchForty } from './farm.js'

/*
 * How fast the server answers and takes weather in, on a database of its own, over HTTP as a page would ask. Beside each stands a
 * plain thing of the same size in the same run.
 */

const { blocks, watches, weather } = endpoints

/** The most memory that a process has had resident, in MB. */
const peakMemory = (pid: number): number => Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? NaN) / 1024

async function timed(work: () => Promise<unknown>): Promise<number> {
  const began = performance.now()
  await work()
  return performance.now() - began
}

/** 95th percentile of the ms that an answer takes, over many askings. */
async function p95(work: () => Promise<unknown>, times = 60): Promise<number> {
  const taken: number[] = []
  for (let i = 0; i < times; i++) taken.push(await timed(work))
  return taken.sort((a, b) => a - b)[Math.floor(times * 0.95)] as number
}

async function importing(app: Application, place: TestSite): Promise<string[]> {
  const file = hourlyFile(1912, '2026-06-01')
  const rows = file.split('\n').length - 1
  const { mapping } = (await preview(app, place, file.slice(0, 200_000))).body
  const taken = await timed(async () => {
    const { status, body } = await importFile(app, place, file, mapping)
    if (status !== 200) throw new Error(body.detail)
  })
  // What any import has to do at the least: split the text into numbers.
  const plain = await timed(() => {
    let sum = 0
    for (const line of file.split('\n').slice(1)) sum += Number(line.split(',')[1])
    return Promise.resolve(sum)
  })
  return [
    `${rows} hourly rows imported: ${(taken / 1000).toFixed(1)} s (at most 25), splitting the text alone ${(plain / 1000).toFixed(1)} s`,
  ]
}

async function screen(app: Application, place: TestSite): Promise<string[]> {
  const params = { siteId: place.site.id, stationId: place.stationId }
  const season = { season: '2026-01-01' }
  const heat = { ...season, from: '2026-01-01', method: 'single-sine', lower: 10, upper: 31, limit: 37, target: 150 } as never
  const ask = async () => {
    await Promise.all([app.call(weather.days, params, season), app.call(weather.heat, params, heat)])
  }
  const plain = await p95(() => fetch(`${app.address}/healthz`))
  const cold = await timed(ask)
  const warm = await p95(ask)
  const { token } = done(await app.call(weather.issueToken, params, {}, { person: place.person }))
  let hour = Date.parse('2026-06-12T00:00:00Z')
  const push = () =>
    fetch(`${app.address}/api/v1/stations/${place.stationId}/readings`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json', Authorization: `Bearer ${token}` },
      body: JSON.stringify({ at: new Date((hour += MS_PER_HOUR)).toISOString(), temperature: 17 + (hour % 7) / 10 }),
    })
  const fresh: number[] = []
  for (let i = 0; i < 12; i++) {
    await push()
    fresh.push(await timed(ask))
  }
  const freshMost = fresh.sort((a, b) => a - b).at(-1) as number
  return [
    `weather screen, eleven seasons: p95 ${warm.toFixed(0)} ms (at most 100); after a new hour at most ${freshMost.toFixed(0)} ms; first time ${cold.toFixed(0)} ms; an empty answer ${plain.toFixed(0)} ms`,
  ]
}

async function band(app: Application, place: TestSite): Promise<string[]> {
  await watchForty(app, place)
  // As it leaves the server, packed: unpacking and reading it is the page's time.
  const ask = () =>
    new Promise<Buffer>((resolve, reject) => {
      const address = `${app.address}/api/v1/sites/${place.site.id}/band?season=2026-01-01`
      get(address, { headers: { 'Accept-Encoding': 'gzip' } }, (response) => {
        const parts: Buffer[] = []
        response.on('data', (part: Buffer) => parts.push(part)).on('end', () => resolve(Buffer.concat(parts)))
      }).on('error', reject)
    })
  const cold = await timed(ask)
  const warm = await p95(ask, 40)
  const answer = gunzipSync(await ask()).toString()
  // What any answer of this size costs at the least: making its text and reading it.
  const plain = await p95(() => Promise.resolve(JSON.parse(JSON.stringify(JSON.parse(answer)))), 20)
  return [
    `forecast of 40 watches, 132 members: ${cold.toFixed(0)} ms cold (at most 1500), p95 ${warm.toFixed(0)} ms warm (at most 50); its ${(answer.length / 1e6).toFixed(1)} MB written and read alone ${plain.toFixed(0)} ms`,
  ]
}

/**
 * Asks as a browser does: packed, and naming what it has already. Unpacking and reading it is the page's time.
 *
 * @param tags of the answers that this page has, by address
 */
function asBrowser(address: string, tags: Map<string, string>): Promise<void> {
  const tag = tags.get(address)
  return new Promise((resolve, reject) => {
    get(address, { headers: { 'Accept-Encoding': 'gzip', ...(tag === undefined ? {} : { 'If-None-Match': tag }) } }, (response) => {
      if (response.headers.etag) tags.set(address, response.headers.etag)
      if ((response.statusCode ?? 500) >= 400) reject(new Error(`${address}: ${response.statusCode}`))
      response.on('data', () => undefined).on('end', resolve)
    }).on('error', reject)
  })
}

/** Eight stations that push every two seconds while six pages look at the site, each asking anew every second. */
async function pushed(app: Application): Promise<string[]> {
  const place = await startSite(app, 'Pushed bench')
  const at = { siteId: place.site.id }
  const as = { person: place.person }
  const file = hourlyFile(2022, '2026-06-12')
  const { mapping } = (await preview(app, place, file.slice(0, 200_000))).body
  const stations: string[] = []
  const tokens: string[] = []
  for (let s = 0; s < 8; s++) {
    const stationId = s === 0 ? place.stationId : done(await app.call(weather.addStation, at, { name: `Row ${s}` }, as)).id
    stations.push(stationId)
    await importFile(app, { ...place, stationId }, file, mapping)
    tokens.push(done(await app.call(weather.issueToken, { ...at, stationId }, {}, as)).token)
    const blockId = done(await app.call(blocks.create, at, { name: `Block ${s}`, kind: 'orchard', areaHa: 1, grows: '', stationId }, as)).id
    for (const organismId of ['codling-moth', 'oriental-fruit-moth'])
      done(await app.call(watches.create, at, { organismId, blockId, season: '2026-01-01', biofix: '2026-05-10' }, as))
  }
  let running = true
  const taken: number[] = []
  const page = async (i: number): Promise<void> => {
    const site = `${app.address}/api/v1/sites/${place.site.id}`
    const tags = new Map<string, string>()
    while (running) {
      for (const address of [
        `${app.address}/api/v1/sites`,
        `${site}/band?season=2026-01-01`,
        `${site}/stations/${stations[i % 8]}/days?season=2026-01-01`,
        `${site}/stations`,
      ])
        taken.push(await timed(() => asBrowser(address, tags)))
      await sleep(1000)
    }
  }
  const pages = Array.from({ length: 6 }, (_, i) => page(i))
  await sleep(3000)
  taken.length = 0
  let refused = 0
  for (let round = 0; round < 12; round++) {
    const moment = new Date(Date.parse('2026-06-12T08:00:00Z') + round * 1_200_000).toISOString()
    const answers = await Promise.all(
      stations.map((stationId, s) =>
        fetch(`${app.address}/api/v1/stations/${stationId}/readings`, {
          method: 'POST',
          headers: { 'Content-Type': 'application/json', Authorization: `Bearer ${tokens[s]}` },
          body: JSON.stringify({ at: moment, temperature: 12 + ((round + s) % 9) }),
        }),
      ),
    )
    refused += answers.filter(({ ok }) => !ok).length
    await sleep(2000)
  }
  running = false
  await Promise.all(pages)
  const sorted = taken.sort((a, b) => a - b)
  const at95 = sorted[Math.floor(sorted.length * 0.95)] as number
  const plain = await p95(() => fetch(`${app.address}/healthz`))
  return [
    `8 stations pushing every 2 s, 6 pages: p95 of ${sorted.length} reads ${at95.toFixed(0)} ms (at most 150), ${refused} pushes refused (none); an empty answer ${plain.toFixed(0)} ms`,
  ]
}

export async function report(server: string): Promise<string[]> {
  const app = await startApplication({ now: NOW, server })
  try {
    const place = await startBench(app, 'Hollin Bench')
    const lines = [...(await screen(app, place)), ...(await band(app, place))]
    lines.push(...(await pushed(app)))
    const large = await startSite(app, 'Large bench')
    lines.push(...(await importing(app, large)))
    await app.call(weather.days, { siteId: large.site.id, stationId: large.stationId }, { season: '2026-01-01' })
    lines.push(`server memory at its most: ${peakMemory(app.process.pid ?? 0).toFixed(0)} MB, its worker with it (at most 700)`)
    return lines
  } finally {
    await app.stop()
  }
}
