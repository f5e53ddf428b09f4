import { randomUUID } from 'node:crypto'
import { setTimeout as sleep } from 'node:timers/promises'
import { endpoints } from '@bocado/contract'
import { pino } from 'pino'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { jsonOf, type Row } from '../database/pool.js'
import { servingOver, startApplication, type Application } from '../testing/application.js'
import { done, startSite, type TestSite } from '../testing/farm.js'
import { hourlyFile, importFile, preview } from '../testing/upload.js'
import { Background } from './background.js'
import { sweep } from './retention.js'

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

  test('a site that cannot be tended holds up no other, and is tried again', async () => {
    const ill = await startSite(app, 'A bench of old')
    const well = await startSite(app, 'Zebra bench')
    await sleep(1500)
    await app.database.query('DELETE FROM issued_forecast')
    const [[sound]] = await app.database.query<Row[]>('SELECT model FROM watch')
    const models = new Map([
      [ill, '[]'],
      [well, JSON.stringify(jsonOf<unknown>(sound!['model']))],
    ])
    for (const [site, model] of models)
      await app.database.query(
        `INSERT INTO watch (id, site_id, block_id, organism_id, season, biofix_note, source_known, library_version, model, model_hash, changed_by)
         SELECT ?, ?, ?, organism_id, season, '', source_known, library_version, ?, model_hash, ? FROM watch LIMIT 1`,
        [randomUUID(), site.site.id, site.blockId, model, site.person],
      )
    const serving = servingOver(app)
    const told: string[] = []
    const background = new Background(serving, pino({ level: 'error' }, { write: (line: string) => void told.push(line) }))
    background.start()
    await until(async () => (await count('issued_forecast WHERE site_id = ?', [well.site.id])) === 1)
    await background.end()
    expect(told.filter((line) => line.includes(ill.site.id))).toHaveLength(1)
    expect(await count('issued_forecast WHERE site_id = ?', [ill.site.id])).toBe(0)
    await serving.end()
  })
})

test('what is old is thinned: keys go, of statements the first of a day stays, of weather forecasts their daily means', async () => {
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
  const serving = servingOver(app)
  await sweep(serving)
  await sweep(serving)
  await serving.end()
  expect(await count("idempotency WHERE idempotency_key = 'old'")).toBe(0)
  expect(await count("issued_forecast WHERE today IN ('2026-05-01', '2026-05-02')")).toBe(2)
  expect(await count("issued_forecast WHERE today < '2026-06-01' AND HOUR(issued_at) = 3")).toBe(2)
  expect(await count("issued_forecast WHERE today = '2026-06-10'")).toBe(3)
  const [rows] = await app.database.query<Row[]>('SELECT hours, daily_means FROM forecast_issue ORDER BY issued_at')
  expect(rows.map((row) => Number(row['hours']))).toEqual([0, 48])
  expect(jsonOf<unknown>(rows[0]!['daily_means'])).toEqual([{ temperature: [10, 20] }])
})
