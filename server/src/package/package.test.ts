import { createHash } from 'node:crypto'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { endpoints } from '@bocado/contract'
import { unzipSync, zipSync } from 'fflate'
import fc from 'fast-check'
import { createConnection, type Connection } from 'mysql2/promise'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import type { Row } from '../database/pool.js'
import { startApplication, type Application } from '../testing/application.js'
import { done, startSite, type TestSite, GRANULE } from '../testing/farm.js'
import { hourlyFile, importFile, preview } from '../testing/upload.js'
import { cellOf, valueOf } from './cells.js'
import { exportSite, type PackageDescription } from './exportSite.js'
import { importSite } from './importSite.js'
import { LEFT_OUT, siteTables } from './tables.js'

const { blocks, watches, scouting, treatments, bloom, weather, equipment, permissions } = endpoints
const SEASON = '2026-01-01'
const folder = mkdtempSync(join(tmpdir(), 'bocado-package-'))
const NOW = new Date('2026-06-12T14:30:00Z')

let from: Application
let into: Application
let place: TestSite
const open = (app: Application): Promise<Connection> =>
  createConnection({ uri: app.databaseUrl, dateStrings: true, timezone: 'Z', charset: 'utf8mb4' })
beforeAll(async () => {
  from = await startApplication({ now: '2026-06-12T14:30:00Z' })
  into = await startApplication({ now: '2026-06-12T14:30:00Z' })
  place = await startSite(from, 'Høllin “Bench”, the \\N one')
  await fill()
  await from.settled()
})
afterAll(async () => {
  rmSync(folder, { recursive: true })
  await from.stop()
  await into.stop()
})

/** Something in as many tables as the interface reaches. */
async function fill(): Promise<void> {
  const [at, as] = [{ siteId: place.site.id }, { person: place.person }]
  const lines = hourlyFile(2022, '2026-06-12').split('\n')
  lines.splice(20_000, 9)
  lines[30_000] = 'no reading'
  const file = lines.join('\n')
  await importFile(from, place, file, (await preview(from, place, file.slice(0, 200_000))).body.mapping)
  const watch = done(
    await from.call(watches.create, at, { organismId: 'codling-moth', blockId: place.blockId, season: SEASON, biofix: '2026-05-10' }, as),
  )
  const area = done(
    await from.call(blocks.addCheckArea, { ...at, blockId: place.blockId }, { name: 'Row 4', note: 'two\nlines, "quoted"' }, as),
  )
  const unit = { [done(await from.call(watches.organisms, at, {})).find(({ id }) => id === 'codling-moth')!.sampling.classes[0]!.id]: 2 }
  const round = { watchId: watch.id, countedOn: '2026-06-11', units: [unit, {}], note: '' }
  done(await from.call(scouting.create, at, { ...round, checkAreaId: area.id }, as))
  const gone = done(await from.call(scouting.create, at, { ...round, checkAreaId: null }, as))
  done(await from.call(scouting.remove, { ...at, roundId: gone.id }, { rowVersion: gone.rowVersion }, as))
  const product = done(await from.call(treatments.addProduct, at, GRANULE, as))
  done(await from.call(treatments.plan, at, { watchId: watch.id, productId: product.id, plannedOn: '2026-06-14', note: '' }, as))
  const machine = { name: 'Tower sprayer', kind: 'air-blast', tankL: 1000, shared: true } as const
  const machineId = done(await from.call(equipment.addMachine, at, machine, as)).id
  const lot = { productId: product.id, number: 'L, “1”', amount: 1, unit: 'L', cameOn: '2026-05-01' } as const
  const lotId = done(await from.call(equipment.addLot, at, lot, as)).id
  done(await from.call(permissions.add, at, { kind: 'consent', byWhom: 'the owner', productId: product.id, validFrom: '2026-01-01' }, as))
  const used = { watchId: watch.id, productId: product.id, startedAt: '2026-06-11T14:00:00Z', rate: 0.2, areaHa: 1, weather: {} } as const
  const more = { machineId, lotId, waste: 'waste-site', departureReason: 'the jug\nwas misread' } as const
  const deed = done(await from.call(treatments.recordUnplanned, at, { ...used, ...more }, as))
  done(await from.call(permissions.giveNotice, at, { treatmentId: deed.id, toWhom: 'the school', way: 'told', givenOn: '2026-06-10' }, as))
  const jpeg = readFileSync(new URL('../testing/point.jpg', import.meta.url)).toString('base64')
  const photo = { jpeg, takenOn: '2026-04-20' }
  done(
    await from.call(
      bloom.add,
      at,
      { plantId: 'apple', event: 'first-open', seenFrom: '2026-04-20', place: 'the lane', note: '', photo },
      as,
    ),
  )
  done(await from.call(weather.issueToken, { ...at, stationId: place.stationId }, { simulated: true }, as))
}

describe('the schema', () => {
  test('has no table that is neither in the package of a site nor left out for a reason', async () => {
    const connection = await open(from)
    const [rows] = await connection.query<Row[]>('SHOW FULL TABLES WHERE Table_type = "BASE TABLE"')
    const all = rows.map((row) => Object.values(row)[0] as string)
    const held = (await siteTables(connection)).map(({ name }) => name)
    expect([...held, ...Object.keys(LEFT_OUT)].sort()).toEqual(all.sort())
    await connection.query('CREATE TABLE stray (id INT PRIMARY KEY)')
    await expect(siteTables(connection)).rejects.toThrow('stray')
    await connection.query('DROP TABLE stray')
    await connection.end()
  })
})

describe('a site', () => {
  let path: string
  let connection: Connection
  beforeAll(async () => {
    path = join(folder, 'site.zip')
    const source = await open(from)
    const rows = await exportSite(source, place.site.id, path, NOW)
    expect(rows).toMatchObject({
      site: 1,
      station: 1,
      watch: 1,
      round: 2,
      deed: 2,
      machine: 1,
      lot: 1,
      permission: 1,
      notice: 1,
      photo_file: 1,
      weather_import_rejection: 1,
    })
    expect(rows['reading']).toBeGreaterThan(38_000)
    await source.end()
    connection = await open(into)
  })
  afterAll(() => connection.end())
  const descriptionOf = (file: string): PackageDescription =>
    JSON.parse(Buffer.from(unzipSync(readFileSync(file))['datapackage.json']!).toString()) as PackageDescription
  /** The package with something in it changed. */
  const changed = (name: string, change: (files: Record<string, Uint8Array>) => void): string => {
    const files = unzipSync(readFileSync(path))
    change(files)
    const to = join(folder, name)
    writeFileSync(to, zipSync(files, { level: 1 }))
    return to
  }

  test.each([
    [
      'a file that was damaged',
      (files: Record<string, Uint8Array>) => void (files['data/watch.csv']![40]! ^= 1),
      /watch.csv is missing or damaged/,
    ],
    [
      'rows that the database refuses, the last of them',
      (files: Record<string, Uint8Array>) => {
        const description = JSON.parse(Buffer.from(files['datapackage.json']!).toString()) as PackageDescription
        const resource = description.resources.find(({ name }) => name === 'deed')!
        files[resource.path] = Buffer.from(Buffer.from(files[resource.path]!).toString().replace('planned,', 'flown,'))
        resource.hash = createHash('sha256').update(files[resource.path]!).digest('hex')
        files['datapackage.json'] = Buffer.from(JSON.stringify(description))
      },
      /./,
    ],
    [
      'a package of a newer Bocado',
      (files: Record<string, Uint8Array>) => {
        const description = JSON.parse(Buffer.from(files['datapackage.json']!).toString()) as PackageDescription
        description.bocado.migrations.push('999_flight.sql')
        files['datapackage.json'] = Buffer.from(JSON.stringify(description))
      },
      /a newer Bocado made this package \(999_flight.sql\)/,
    ],
    ['a zip of something else', (files: Record<string, Uint8Array>) => void delete files['datapackage.json'], /no datapackage.json/],
  ])('%s changes nothing', async (_, change, words) => {
    await expect(importSite(connection, changed('other.zip', change))).rejects.toThrow(words)
    for (const table of await siteTables(connection))
      expect((await connection.query<Row[]>(`SELECT COUNT(*) AS n FROM \`${table.name}\``))[0][0], table.name).toMatchObject({ n: 0 })
  })

  test('comes back whole in another database: every row of every table, and every forecast', async () => {
    await importSite(connection, path)
    const again = join(folder, 'again.zip')
    await exportSite(connection, place.site.id, again, NOW)
    const [before, after] = [descriptionOf(path), descriptionOf(again)]
    const issued = 'issued_forecast'
    expect(after.resources.filter(({ name }) => name !== issued)).toEqual(before.resources.filter(({ name }) => name !== issued))
    const band = async (app: Application) => done(await app.call(watches.band, { siteId: place.site.id }, { season: SEASON }))
    expect(await band(into)).toEqual(await band(from))
    expect((await band(into)).watches[0]).toMatchObject({ grade: 'dates' })
  })

  test('that is there already is left as it is', async () => {
    await expect(importSite(connection, path)).rejects.toThrow('is here already')
  })

  test('lies in a package that says what is in it', () => {
    const { resources } = descriptionOf(path)
    const readings = resources.find(({ name }) => name === 'reading')!
    expect(readings.schema.primaryKey).toEqual(['station_id', 'at'])
    expect(readings.schema.fields).toContainEqual({ name: 'temperature', type: 'number' })
    expect(resources.map(({ name }) => name)).not.toContain('work')
  })
})

test('any text and any bytes come back from a cell as they were', () => {
  fc.assert(fc.property(fc.string({ unit: 'binary' }), (text) => valueOf(cellOf(text), 'text') === text))
  fc.assert(fc.property(fc.uint8Array(), (bytes) => Buffer.from(bytes).equals(valueOf(cellOf(Buffer.from(bytes)), 'blob') as Buffer)))
  for (const text of ['', '\\N', '\\\\N', '\\', 'NULL']) expect(valueOf(cellOf(text), 'text')).toBe(text)
  expect(valueOf(cellOf(null), 'text')).toBeNull()
})
