import { randomUUID } from 'node:crypto'
import { endpoints, type WeatherMapping } from '@bocado/contract'
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest'
import type { Row } from '../database/pool.js'
import { startApplication, startServer, type Application } from '../testing/application.js'
import { done, startSite, type TestSite } from '../testing/farm.js'
import { hourlyFile, importFile, importUntilStoring, preview } from '../testing/upload.js'

let app: Application
let place: TestSite
beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z' })
})
beforeEach(async () => {
  place = await startSite(app, `Bench ${randomUUID().slice(0, 8)}`)
})
afterAll(() => app.stop())

const count = async (table: string, at = app): Promise<number> => {
  const [[row]] = await at.database.query<Row[]>(`SELECT COUNT(*) AS n FROM ${table} WHERE site_id = ?`, [place.site.id])
  return row!['n'] as number
}
async function mappingOf(file: string): Promise<WeatherMapping> {
  const { body } = await preview(app, place, file)
  return body.mapping
}

const FILE = [
  'time,temp C,rain mm',
  ...Array.from({ length: 48 }, (_, h) => `2026-05-${14 + Math.floor(h / 24)} ${String(h % 24).padStart(2, '0')}:00,${10 + (h % 5)},0`),
].join('\n')

describe('importing a file', () => {
  test('counts what is new, and the same file again changes nothing', async () => {
    const mapping = await mappingOf(FILE)
    expect((await importFile(app, place, FILE, mapping)).body).toMatchObject({ new: 48, changed: 0, unchanged: 0, rejected: 0, lines: 48 })
    const again = (await importFile(app, place, FILE, mapping)).body
    expect(again).toMatchObject({ new: 0, changed: 0, unchanged: 48, rejected: 0 })
  })

  test('counts what changed, keeps what it said before, and leaves what the file does not hold', async () => {
    await importFile(app, place, FILE, await mappingOf(FILE))
    const corrected = 'time,temp C\n2026-05-14 03:00,19.5\n2026-05-14 04:00,14\n2026-05-16 00:00,9'
    const result = (await importFile(app, place, corrected, await mappingOf(corrected))).body
    expect(result).toMatchObject({ new: 1, changed: 1, unchanged: 1 })
    const [[now]] = await app.database.query<Row[]>(
      "SELECT temperature, rain FROM reading WHERE station_id = ? AND at = '2026-05-14 11:00:00'",
      [place.stationId],
    )
    expect(now).toMatchObject({ temperature: 19.5, rain: 0 })
    const [before] = await app.database.query<Row[]>('SELECT temperature FROM reading_replaced WHERE import_id = ?', [result.id])
    expect(before).toEqual([expect.objectContaining({ temperature: 13 })])
  })

  test('rejects bad lines with number and reason, to be downloaded', async () => {
    const file = `${FILE}\n2026-05-16 00:00,hot,\n2026-05-16 01:00,9,0`
    const result = (await importFile(app, place, file, await mappingOf(file))).body
    expect(result).toMatchObject({ new: 49, rejected: 1 })
    const csv = await (await app.get(`sites/${place.site.id}/weather-imports/${result.id}/rejected.csv`)).text()
    expect(csv.split('\r\n')).toEqual(['line,reason,content', '50,"temperature ""hot"" is not a number","2026-05-16 00:00,hot,"'])
  })

  test('one cell that cannot be read is one value that is missing; a trace of rain is none that a gauge tells, and drops nothing', async () => {
    const file = `${FILE}\n2026-05-16 00:00,hot,0.4\n2026-05-16 01:00,9,T`
    const result = (await importFile(app, place, file, await mappingOf(file))).body
    expect(result).toMatchObject({ new: 50, rejected: 0, unread: 1 })
    const [rows] = await app.database.query<Row[]>(
      "SELECT temperature, rain FROM reading WHERE station_id = ? AND at >= '2026-05-16 08:00:00' ORDER BY at",
      [place.stationId],
    )
    expect(rows).toMatchObject([
      { temperature: null, rain: 0.4 },
      { temperature: 9, rain: 0 },
    ])
    const csv = await (await app.get(`sites/${place.site.id}/weather-imports/${result.id}/rejected.csv`)).text()
    expect(csv).toContain('temperature ""hot"" is not a number; the rest of the line is taken')
  })

  test('in a unit that the place cannot have had is stopped, with the unit that fits, and stored when somebody insists', async () => {
    const january = [
      'day,high,low',
      ...Array.from({ length: 31 }, (_, i) => `2025-01-${String(i + 1).padStart(2, '0')},${40 + (i % 5)},${28 - (i % 4)}`),
    ].join('\n')
    // Nothing says the unit: it is taken for what fits a January here, whatever the units of the site.
    const guessed = await mappingOf(january)
    expect(guessed.columns.map(({ unit }) => unit)).toEqual(['F', 'F'])
    const wrong: WeatherMapping = { ...guessed, columns: guessed.columns.map((column) => ({ ...column, unit: 'C' })) }
    const refused = await importFile(app, place, january, wrong)
    expect(refused.status).toBe(422)
    expect(refused.body).toMatchObject({
      detail: expect.stringMatching(/none that January can have here; read as °F they fit/) as string,
      fields: [{ path: 'mapping.units' }],
    })
    expect(await count('weather_import')).toBe(0)
    const looked = (await preview(app, place, january, wrong)).body
    expect(looked.questions).toEqual([{ field: 'units', message: expect.stringContaining('read as °F they fit') as string }])
    // Changing one of both leaves a day of two units, which is no better.
    const half: WeatherMapping = { ...wrong, columns: wrong.columns.map((column, i) => (i === 0 ? { ...column, unit: 'F' } : column)) }
    expect((await importFile(app, place, january, half)).body).toMatchObject({ fields: [{ path: 'mapping.units' }] })
    expect(await count('weather_import')).toBe(0)
    expect((await preview(app, place, january, { ...wrong, unitsChecked: true })).body.questions).toEqual([])
    expect((await importFile(app, place, january, { ...wrong, unitsChecked: true })).body).toMatchObject({ new: 31 })
  })

  test('sent twice under one id is stored once', async () => {
    const id = randomUUID()
    const mapping = await mappingOf(FILE)
    const first = (await importFile(app, place, FILE, mapping, id)).body
    expect((await importFile(app, place, FILE, mapping, id)).body).toEqual(first)
    expect(await count('weather_import')).toBe(1)
  })

  test('tells how far it is and ends with the result', async () => {
    const mapping = await mappingOf(FILE)
    const query = new URLSearchParams({ importId: randomUUID(), fileName: 'bench.csv', mapping: JSON.stringify(mapping) }).toString()
    const response = await app.get(`sites/${place.site.id}/stations/${place.stationId}/weather-imports?${query}`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/octet-stream', Accept: 'application/x-ndjson' },
      body: FILE,
    })
    const lines = (await response.text())
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line) as { phase?: string; share?: number; result?: { new: number } })
    expect(new Set(lines.map(({ phase }) => phase))).toEqual(new Set(['reading', 'storing', undefined]))
    expect(lines.at(-1)?.result?.new).toBe(48)
  })
})

describe('a wrong file is refused with its reason and leaves nothing', () => {
  const mapping: WeatherMapping = {
    separator: ',',
    decimal: '.',
    headerLines: 1,
    interval: 'hourly',
    dateColumn: 0,
    timeColumn: null,
    dateOrder: 'ymd',
    clock: 'standard',
    offsetMinutes: null,
    stamp: 'begins',
    columns: [{ variable: 'temperature', column: 1, unit: 'C' }],
  }
  test.each([
    ['empty', '', 'The file is empty'],
    ['a spreadsheet', Uint8Array.from([0x50, 0x4b, 3, 4, 20, 0, 0, 0]), 'a spreadsheet or zip file'],
    ['another kind of list', 'name,colour\nking bloom,white\ncatalpa,white', 'cannot be read, so nothing was stored'],
    [
      'mostly unreadable',
      `${FILE}\n${Array.from({ length: 60 }, (_, i) => `2026-05-20 ${i}:99,1`).join('\n')}`,
      'of 108 lines cannot be read',
    ],
  ])('%s', async (_, file, words) => {
    const { status, body } = await importFile(app, place, file, mapping)
    expect(status).toBe(422)
    expect(body.detail).toContain(words)
    expect([await count('reading'), await count('weather_import'), await count('weather_import_rejection')]).toEqual([0, 0, 0])
  })

  test('with dates that can be read both ways, and without a column of temperature', async () => {
    const ambiguous = await importFile(app, place, 'day,min,max\n3/4/2026,4,9', {
      ...mapping,
      interval: 'daily',
      dateOrder: null,
      columns: [],
    })
    expect(ambiguous.body.fields?.map(({ path }) => path)).toEqual(['mapping.dateOrder', 'mapping.columns'])
    const noDates = await preview(app, place, 'name,colour\nking bloom,white')
    expect(noDates.body.detail).toContain('No column of this file holds dates')
  })
})

test('daily files and typed days stand side by side, and typing is checked line by line', async () => {
  const { weather } = endpoints
  const file = 'day,min F,max F,rain in\n' + Array.from({ length: 20 }, (_, i) => `5/${i + 1}/2026,50,68,0`).join('\n')
  const result = (await importFile(app, place, file, await mappingOf(file))).body
  expect(result).toMatchObject({ interval: 'daily', new: 20, first: '2026-05-01', last: '2026-05-20' })
  const params = { siteId: place.site.id, stationId: place.stationId }
  const typed = await app.call(
    weather.typeDays,
    params,
    {
      days: [
        { day: '2026-05-20', min: 9, max: 21 },
        { day: '2026-05-21', min: 8, max: 20, rain: 3 },
      ],
    },
    { person: place.person },
  )
  expect(typed.body).toEqual({ new: 1, changed: 1, unchanged: 0 })
  const bad = await app.call(
    weather.typeDays,
    params,
    {
      days: [
        { day: '2026-05-22', min: 9, max: 3 },
        { day: '2026-06-20', min: 1, max: 2 },
      ],
    },
    { person: place.person },
  )
  expect(bad.problem.fields).toEqual([{ path: 'days.0.min', message: 'the minimum is above the maximum' }])
  const { days } = done(await app.call(weather.days, params, { season: '2026-01-01' }))
  const may = (d: number) => days.find(({ day }) => day === `2026-05-${d}`)
  expect(may(19)).toMatchObject({ min: 10, max: 20, filled: 0 })
  expect(may(20)).toMatchObject({ min: 9, max: 21 })
  expect(may(22)).toMatchObject({ min: null })
})

test('200,000 hourly rows go in as one import', async () => {
  const file = hourlyFile(2003, '2025-10-26')
  expect(file.split('\n').length - 1).toBeGreaterThan(200_000)
  const mapping = await mappingOf(file.slice(0, 200_000))
  const { body } = await importFile(app, place, file, mapping)
  expect(body).toMatchObject({ rejected: 0, unchanged: 0 })
})

test('a server killed in the middle of an import leaves nothing of it, and the same import goes through afterwards', async () => {
  const file = hourlyFile(1985, '2026-06-12')
  const mapping = await mappingOf(file.slice(0, 200_000))
  const id = randomUUID()
  const cut = await importUntilStoring(app, place, file, mapping, id)
  app.process.kill('SIGKILL')
  expect(await cut.last).toBeUndefined()
  expect([await count('reading'), await count('weather_import')]).toEqual([0, 0])
  app.process = await startServer(app.databaseUrl, Number(new URL(app.address).port))
  expect((await importFile(app, place, file, mapping, id)).body.rejected).toBe(0)
  expect(await count('weather_import')).toBe(1)
})
