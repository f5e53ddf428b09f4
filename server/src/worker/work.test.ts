import { randomUUID } from 'node:crypto'
import { setTimeout as sleep } from 'node:timers/promises'
import { endpoints } from '@bocado/contract'
import { pino } from 'pino'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { jsonOf, type Row } from '../database/pool.js'
import { servingOver, startApplication, type Application } from '../testing/application.js'
import { done, startSite, type TestSite } from '../testing/farm.js'
import { hourlyFile, importFile, preview } from '../testing/upload.js'
import { keepForecasts, packedForecast } from '../watches/derived.js'
import { MOST_ATTEMPTS } from '../database/index.js'
import { sweep } from './retention.js'
import { Worker } from './worker.js'

const { watches } = endpoints

let app: Application
let place: TestSite
beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z' })
  place = await startSite(app)
})
afterAll(() => app.stop())

const count = async (sql: string, values: unknown[] = []): Promise<number> => {
  const [[row]] = await app.database.query<Row[]>(`SELECT COUNT(*) AS n FROM ${sql}`, values)
  return Number(row!['n'])
}
async function until(holds: () => Promise<boolean>): Promise<void> {
  for (let waited = 0; !(await holds()); waited += 100) {
    if (waited > 10_000) throw new Error('it did not come')
    await sleep(100)
  }
}

describe('what the server does though nobody looks', () => {
  test('readings are checked and a forecast issued soon after an import and a watch', async () => {
    const lines = hourlyFile(2024, '2026-06-12').split('\n')
    lines.splice(20_000, 9)
    const file = lines.join('\n')
    await importFile(app, place, file, (await preview(app, place, file.slice(0, 200_000))).body.mapping)
    done(
      await app.call(
        watches.create,
        { siteId: place.site.id },
        { organismId: 'codling-moth', blockId: place.blockId, season: '2026-01-01', biofix: '2026-05-10' },
        { person: place.person },
      ),
    )
    await until(async () => (await count("reading_fix WHERE flag = 'gap' AND variable = 'temperature'")) === 9)
    await until(async () => (await count("issued_forecast WHERE grade = 'dates'")) === 1)
    expect(await count('station WHERE checked_version <> history_version')).toBe(0)
  })
})

describe('work', () => {
  let alone: Application
  beforeAll(async () => {
    alone = await startApplication({ now: '2026-06-12T14:30:00Z', worker: false })
  })
  afterAll(() => alone.stop())
  const rows = async (sql: string, values: unknown[] = []): Promise<Row[]> => (await alone.database.query<Row[]>(sql, values))[0]
  const watching = async (site: TestSite): Promise<string> =>
    done(
      await alone.call(
        watches.create,
        { siteId: site.site.id },
        { organismId: 'codling-moth', blockId: site.blockId, season: '2026-01-01', biofix: '2026-05-10' },
        { person: site.person },
      ),
    ).id
  const hurry = () => alone.database.query('UPDATE work SET not_before = NOW(3) - INTERVAL 1 SECOND')

  test('of a site that cannot be derived holds up no other, is tried five times, and is shown as failed', async () => {
    const [ill, well] = [await startSite(alone, 'A bench of old'), await startSite(alone, 'Zebra bench')]
    await alone.database.query("UPDATE watch SET model = '[]' WHERE id = ?", [await watching(ill)])
    await watching(well)
    const serving = servingOver(alone)
    const told: string[] = []
    const worker = new Worker(serving, pino({ level: 'error' }, { write: (line: string) => void told.push(line) }))
    for (let round = 0; round < MOST_ATTEMPTS + 2; round++) {
      await hurry()
      while (await worker.workOnce()) continue
    }
    expect(told.filter((line) => line.includes(ill.site.id))).toHaveLength(MOST_ATTEMPTS)
    expect(await rows('SELECT subject, attempts FROM work')).toMatchObject([{ subject: ill.site.id, attempts: MOST_ATTEMPTS }])
    expect((await rows('SELECT site_id FROM watch_forecast')).map((row) => row['site_id'] as string)).toEqual([well.site.id])
    const health = (await (await fetch(`${alone.address}/healthz`)).json()) as { parts: { work: unknown } }
    expect(health.parts.work).toEqual({ failed: 1 })
    // What somebody changes there is a reason to try anew.
    done(await alone.call(endpoints.weather.addStation, { siteId: ill.site.id }, { name: 'Second' }, { person: ill.person }))
    expect(await rows('SELECT attempts, failure FROM work WHERE subject = ?', [ill.site.id])).toEqual([{ attempts: 0, failure: null }])
    await serving.end()
  })

  test('is claimed by one of several, and that of one who died is claimed again', async () => {
    const site = await startSite(alone, 'Claimed bench')
    const id = await watching(site)
    await alone.database.query('DELETE FROM work WHERE subject <> ?', [site.site.id])
    await alone.database.query(
      "UPDATE work SET claimed_by = 'one who died', lease_until = NOW(3) + INTERVAL 60 SECOND, not_before = NOW(3)",
    )
    const servings = [servingOver(alone), servingOver(alone), servingOver(alone)]
    const workers = servings.map((serving) => new Worker(serving, pino({ level: 'silent' })))
    expect(await Promise.all(workers.map((worker) => worker.workOnce()))).toEqual([false, false, false])
    await alone.database.query('UPDATE work SET lease_until = NOW(3) - INTERVAL 1 SECOND')
    expect((await Promise.all(workers.map((worker) => worker.workOnce()))).filter(Boolean)).toHaveLength(1)
    expect(await rows('SELECT watch_id FROM watch_forecast WHERE watch_id = ?', [id])).toHaveLength(1)
    expect(await rows('SELECT id FROM work')).toEqual([])
    await Promise.all(servings.map((serving) => serving.end()))
  })

  test('until it is done a page is shown what was, and told so', async () => {
    const site = await startSite(alone, 'Waiting bench')
    const file = hourlyFile(2024, '2026-06-12')
    await importFile(alone, site, file, (await preview(alone, site, file.slice(0, 200_000))).body.mapping)
    const id = await watching(site)
    const serving = servingOver(alone)
    const worker = new Worker(serving, pino({ level: 'silent' }))
    const work = async (): Promise<void> => {
      await hurry()
      while (await worker.workOnce()) continue
    }
    const band = async () => done(await alone.call(watches.band, { siteId: site.site.id }, { season: '2026-01-01' }))
    // Nothing is kept yet: what is asked for is made for whoever asks.
    const state = async () => done(await alone.call(watches.derived, { siteId: site.site.id }, {})).state
    const first = await band()
    expect(first).toMatchObject({ watches: [{ grade: 'dates' }] })
    await work()
    const kept = await band()
    expect(kept).toEqual(first)
    expect(await state()).toBe('fresh')
    const change = { biofix: '2026-05-20', biofixNote: '', sourceKnown: 'unknown' as const, threshold: null, rowVersion: 1 }
    done(await alone.call(watches.update, { siteId: site.site.id, watchId: id }, change, { person: site.person }))
    const waiting = await band()
    expect(await state()).toBe('recomputing')
    expect(waiting.watches[0]!.windows).toEqual(first.watches[0]!.windows)
    expect(waiting.watches[0]!.watch).toMatchObject({ biofix: '2026-05-20', rowVersion: 2 })
    await work()
    const now = await band()
    expect(await state()).toBe('fresh')
    expect(now.watches[0]!.windows[0]!.opens.p50).toBeGreaterThan(first.watches[0]!.windows[0]!.opens.p50!)
    // A day later everything is of yesterday, until it is made anew.
    done(await alone.call(endpoints.demo.setClock, {}, { now: '2026-06-13T14:30:00Z' }, { person: site.person }))
    expect(await state()).toBe('recomputing')
    await work()
    expect(await state()).toBe('fresh')
    await serving.end()
  })

  test('what was made from something older is never put in place of what is newer', async () => {
    const [row] = await rows('SELECT watch_id, site_id, key_hash, inputs_version FROM watch_forecast LIMIT 1')
    const serving = servingOver(alone)
    const late = await packedForecast(
      {
        watchId: row!['watch_id'] as string,
        keyHash: 'late',
        inputsVersion: Number(row!['inputs_version']) - 1,
        today: '2026-06-12',
        weatherKey: '',
        modelHash: '',
      },
      { forecast: {} as never, rain: [] },
    )
    const place = { siteId: row!['site_id'] as string, season: '2026-01-01', now: new Date() }
    await serving.database.write((tx) => keepForecasts(tx, place, [late]))
    expect(
      await rows('SELECT watch_id, site_id, key_hash, inputs_version FROM watch_forecast WHERE watch_id = ?', [row!['watch_id']]),
    ).toEqual([row])
    await serving.end()
  })
})

test('what is old is thinned: keys go, of statements the first of a day stays, of weather forecasts their daily means, of sign-ins those that hold', async () => {
  const [[watch]] = await app.database.query<Row[]>('SELECT id, site_id FROM watch WHERE site_id = ?', [place.site.id])
  const issued = async (today: string, hour: number): Promise<void> => {
    await app.database.query(
      `INSERT INTO issued_forecast (id, site_id, watch_id, issued_at, today, weather_key, model, model_name, model_hash, windows, events, dates_hash)
       VALUES (?, ?, ?, ?, ?, '', '{}', 'codling-moth@1.0.0', '', '[]', '[]', ?)`,
      [randomUUID(), watch!['site_id'], watch!['id'], `${today} ${String(hour).padStart(2, '0')}:00:00`, today, randomUUID()],
    )
  }
  for (const today of ['2026-05-01', '2026-05-02', '2026-06-10']) for (const hour of [3, 9, 15]) await issued(today, hour)
  const forecast = (at: string) =>
    app.database.query(
      'INSERT INTO forecast_issue (id, site_id, station_id, issued_at, first_hour, hours, members) VALUES (?, ?, ?, ?, ?, 48, ?)',
      [
        randomUUID(),
        place.site.id,
        place.stationId,
        at,
        at,
        JSON.stringify([{ temperature: Array.from({ length: 48 }, (_, h) => (h < 24 ? 10 : 20)) }]),
      ],
    )
  await forecast('2026-03-01 06:00:00')
  await forecast('2026-06-12 06:00:00')
  await app.database.query("INSERT INTO idempotency (idempotency_key, request_hash, created_at) VALUES ('old', '', NOW() - INTERVAL 8 DAY)")
  const signIn = (hash: string, how: string) =>
    app.database.query(
      `INSERT INTO sign_in (token_hash, id, person_id, how, created_at, seen_at, expires_at, ended_at) VALUES (?, ?, ?, 'password', UTC_TIMESTAMP(), ${how})`,
      [Buffer.alloc(32, hash), randomUUID(), place.person],
    )
  const DAYS_AGO = 'UTC_TIMESTAMP() - INTERVAL 100 DAY'
  await signIn('e', `UTC_TIMESTAMP(), UTC_TIMESTAMP() + INTERVAL 20 DAY, ${DAYS_AGO}`)
  await signIn('i', `UTC_TIMESTAMP() - INTERVAL 110 DAY, UTC_TIMESTAMP() + INTERVAL 20 DAY, NULL`)
  await signIn('o', 'UTC_TIMESTAMP(), UTC_TIMESTAMP() + INTERVAL 20 DAY, NULL')
  await app.database.query(
    "INSERT INTO sign_in_attempt VALUES (REPEAT('o', 32), 9, UTC_TIMESTAMP() - INTERVAL 2 HOUR), (REPEAT('n', 32), 9, UTC_TIMESTAMP())",
  )
  // Of a site that keeps it five years: what is six years old goes, unless it is of a treatment; what is four years old stays.
  await app.database.query('UPDATE site SET audit_years = 5 WHERE id = ?', [place.site.id])
  const changed = (entity: string, years: number) =>
    app.database.query(
      'INSERT INTO audit (site_id, person_id, entity, entity_id, action, at) VALUES (?, ?, ?, ?, ?, NOW() - INTERVAL ? YEAR)',
      [place.site.id, place.person, entity, randomUUID(), 'change', years],
    )
  await changed('place', 6)
  await changed('deed', 6)
  await changed('place', 4)
  const serving = servingOver(app)
  await sweep(serving)
  await sweep(serving)
  expect(await count("audit WHERE entity = 'place' AND at < NOW() - INTERVAL 5 YEAR")).toBe(0)
  expect(await count("audit WHERE entity = 'deed' AND at < NOW() - INTERVAL 5 YEAR")).toBe(1)
  expect(await count("audit WHERE entity = 'place' AND at < NOW() - INTERVAL 3 YEAR")).toBe(1)
  expect(await count("sign_in WHERE token_hash IN (REPEAT('e', 32), REPEAT('i', 32))")).toBe(0)
  expect(await count("sign_in WHERE token_hash = REPEAT('o', 32)")).toBe(1)
  expect(await count('sign_in_attempt')).toBe(1)
  await serving.end()
  expect(await count("idempotency WHERE idempotency_key = 'old'")).toBe(0)
  expect(await count("issued_forecast WHERE today IN ('2026-05-01', '2026-05-02')")).toBe(2)
  expect(await count("issued_forecast WHERE today < '2026-06-01' AND HOUR(issued_at) = 3")).toBe(2)
  expect(await count("issued_forecast WHERE today = '2026-06-10'")).toBe(3)
  const [rows] = await app.database.query<Row[]>('SELECT hours, daily_means FROM forecast_issue ORDER BY issued_at')
  expect(rows.map((row) => Number(row['hours']))).toEqual([0, 48])
  expect(jsonOf<unknown>(rows[0]!['daily_means'])).toEqual([{ temperature: [10, 20] }])
})
