import { mkdtempSync, rmSync } from 'node:fs'
import { readdir, readFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { endpoints } from '@bocado/contract'
import { createConnection, type Connection } from 'mysql2/promise'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { migrate } from '../database/migrate.js'
import { jsonOf, type Row } from '../database/pool.js'
import { startApplication, type Application } from '../testing/application.js'
import { done } from '../testing/farm.js'
import { exportSite } from './exportSite.js'
import { restorePackage } from './restorePackage.js'

/** The last migration before blocks became places, treatments deeds, and sites had a holding. */
const LAST = 62
const MIGRATIONS = new URL('../../migrations/', import.meta.url)
const folder = mkdtempSync(join(tmpdir(), 'bocado-older-'))

const ids = {
  person: '00000000-0000-4000-8000-000000000001',
  site: '00000000-0000-4000-8000-000000000002',
  block: '00000000-0000-4000-8000-000000000003',
  watch: '00000000-0000-4000-8000-000000000004',
  product: '00000000-0000-4000-8000-000000000005',
  planned: '00000000-0000-4000-8000-000000000006',
  sprayed: '00000000-0000-4000-8000-000000000007',
  other: '00000000-0000-4000-8000-000000000008',
}
const LABEL = {
  id: ids.product,
  name: 'Granule C',
  kind: 'microbial',
  stages: ['young-larva'],
  effect: 0.75,
  residualDays: 8,
  labelRate: 0.1,
  rateUnit: 'L/ha',
  reEntryHours: 4,
  preHarvestDays: 0,
  bees: 'none-stated',
  protection: 'gloves',
  rowVersion: 1,
}

let app: Application
let old: Connection
let oldUrl: string
beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z' })
  const url = new URL(app.databaseUrl)
  url.pathname += '_older'
  oldUrl = url.href
  await app.database.query(`CREATE DATABASE ${url.pathname.slice(1)} CHARACTER SET utf8mb4`)
  const names = (await readdir(MIGRATIONS)).filter((name) => Number.parseInt(name) <= LAST)
  await migrate(oldUrl, MIGRATIONS, names)
  old = await createConnection({ uri: oldUrl, dateStrings: true, timezone: 'Z', charset: 'utf8mb4' })
  await fill()
})
afterAll(async () => {
  await old.end()
  await app.database.query(`DROP DATABASE ${new URL(oldUrl).pathname.slice(1)}`)
  rmSync(folder, { recursive: true })
  await app.stop()
})

async function fill(): Promise<void> {
  const insert = (table: string, row: Readonly<Record<string, unknown>>) => old.query(`INSERT INTO ${table} SET ?`, [row])
  const by = { changed_by: ids.person }
  await insert('person', { id: ids.person, name: 'Marit Solheim' })
  for (const [id, name] of [
    [ids.site, 'Hollin Bench'],
    [ids.other, 'Lower Hollin'],
  ])
    await insert('site', { id, name, place: 'a terrace', time_zone: 'America/Los_Angeles', units: 'metric', ...by })
  await insert('site_person', { site_id: ids.site, person_id: ids.person, role: 'lead' })
  const at = { site_id: ids.site, ...by }
  await insert('block', { id: ids.block, name: 'Old Apples', kind: 'orchard', area_ha: 4.2, grows: 'apple', ...at })
  await insert('watch', {
    id: ids.watch,
    organism_id: 'codling-moth',
    block_id: ids.block,
    season: '2026-01-01',
    library_version: '1.0.0',
    model: '{}',
    model_hash: '0'.repeat(64),
    ...at,
  })
  const { residualDays, labelRate, rateUnit, reEntryHours, preHarvestDays, stages, rowVersion: _, ...same } = LABEL
  await insert('product', {
    ...same,
    stages: JSON.stringify(stages),
    residual_days: residualDays,
    label_rate: labelRate,
    rate_unit: rateUnit,
    re_entry_hours: reEntryHours,
    pre_harvest_days: preHarvestDays,
    ...at,
  })
  const of = { watch_id: ids.watch, product_id: ids.product, ...at }
  await insert('treatment', { id: ids.planned, status: 'planned', planned_on: '2026-06-14', ...of })
  await insert('treatment', {
    id: ids.sprayed,
    status: 'done',
    planned_on: '2026-06-02',
    started_at: '2026-06-02 12:00:00',
    rate: 0.1,
    area_ha: 4.1,
    product_then: JSON.stringify(LABEL),
    ...of,
  })
  await insert('audit', { site_id: ids.site, person_id: ids.person, entity: 'treatment', entity_id: ids.sprayed, action: 'create' })
}

const at = { siteId: ids.site }

describe('a database of before', () => {
  let path: string
  beforeAll(async () => {
    path = join(folder, 'old.zip')
    await exportSite(old, ids.site, path, new Date('2026-06-12T14:30:00Z'))
    await restorePackage(app.databaseUrl, path)
    await migrate(oldUrl, MIGRATIONS)
  })

  test('keeps its blocks with their areas, as places', async () => {
    const [block] = done(await app.call(endpoints.blocks.list, at, {}))
    expect(block).toMatchObject({ id: ids.block, name: 'Old Apples', kind: 'orchard', areaHa: 4.2, grows: 'apple' })
    expect((await old.query<Row[]>('SELECT level, parent_id, area_m2 FROM place'))[0]).toEqual([
      { level: 'block', parent_id: null, area_m2: 42_000 },
    ])
  })

  test('keeps its treatments with the label of their day, as deeds in the block of their watch', async () => {
    const treatments = done(await app.call(endpoints.treatments.list, at, { season: '2026-01-01' }))
    expect(treatments.map(({ id, status, placeId, placeName }) => [id, status, placeId, placeName])).toEqual([
      [ids.sprayed, 'done', ids.block, 'Old Apples'],
      [ids.planned, 'planned', ids.block, 'Old Apples'],
    ])
    const { kind, ...label } = LABEL
    expect(treatments[0]?.done).toMatchObject({ rate: 0.1, areaHa: 4.1, minutes: null, label: { ...label, methods: [], kindBefore: kind } })
    const [deeds] = await old.query<Row[]>('SELECT organism_id, done_by FROM deed ORDER BY planned_on')
    expect(deeds).toEqual([
      { organism_id: 'codling-moth', done_by: ids.person },
      { organism_id: 'codling-moth', done_by: null },
    ])
    expect((await old.query<Row[]>('SELECT entity FROM audit'))[0]).toEqual([{ entity: 'deed' }])
  })

  test('has its sites in one holding, and each its own shelf', async () => {
    const [sites] = await old.query<Row[]>(
      'SELECT s.name, h.name AS holding FROM site s JOIN holding h ON h.id = s.holding_id ORDER BY s.name',
    )
    expect(sites).toEqual([
      { name: 'Hollin Bench', holding: 'Hollin Bench' },
      { name: 'Lower Hollin', holding: 'Hollin Bench' },
    ])
    expect(done(await app.call(endpoints.treatments.products, at, {}))).toMatchObject([{ name: 'Granule C', shared: false }])
  })

  test('says of a product what it is where its kind leaves no doubt, and asks where it does', async () => {
    const kinds = ['oil', 'soap', 'growth-regulator', 'mating-disruption', 'insecticide', 'fungicide', 'release']
    const migration = await readFile(new URL('081_product_method_by_kind.sql', MIGRATIONS), 'utf8')
    const mapped: Record<string, string[]> = {}
    for (const kind of kinds) {
      await old.query("UPDATE product SET kind = ?, methods = '[]'", [kind])
      await old.query(migration)
      const [[row]] = await old.query<Row[]>('SELECT methods FROM product')
      mapped[kind] = jsonOf<string[]>(row!['methods'])
    }
    expect(mapped).toEqual({
      oil: ['horticultural-oil'],
      soap: ['insecticidal-soap'],
      'growth-regulator': ['growth-regulator'],
      'mating-disruption': ['mating-disruption'],
      insecticide: [],
      fungicide: [],
      release: [],
    })
  })

  test('leaves nothing of the way behind', async () => {
    const [databases] = await app.database.query<Row[]>("SHOW DATABASES LIKE 'bocado\\_restore\\_%'")
    expect(databases).toEqual([])
  })
})
