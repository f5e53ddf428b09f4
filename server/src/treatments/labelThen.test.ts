import { readFile } from 'node:fs/promises'
import { endpoints } from '@bocado/contract'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { jsonOf, type Row } from '../database/pool.js'
import { startApplication, type Application } from '../testing/application.js'
import { done, startSite, type TestSite } from '../testing/farm.js'

const { treatments, watches } = endpoints
const SEASON = '2026-01-01'

let app: Application
let place: TestSite
beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z' })
  place = await startSite(app)
})
afterAll(() => app.stop())

test('a label that a correction once put in the place of the first is restored from the audit trail, or marked', async () => {
  const at = { siteId: place.site.id }
  const as = { person: place.person }
  const watch = done(
    await app.call(watches.create, at, { organismId: 'codling-moth', blockId: place.blockId, season: SEASON, biofix: '2026-05-10' }, as),
  )
  const label = {
    name: 'Granule C',
    methods: ['granulosis-virus'] as string[],
    stages: ['young-larva'] as string[],
    effect: 0.75,
    residualDays: 8,
    labelRate: 0.1,
    rateUnit: 'L/ha',
    reEntryHours: 4,
    preHarvestDays: 0,
    bees: 'none-stated',
    protection: 'gloves',
  } as const
  const product = done(await app.call(treatments.addProduct, at, label, as))
  const record = async (day: string) => {
    const planned = done(await app.call(treatments.plan, at, { watchId: watch.id, productId: product.id, plannedOn: day }, as))
    const input = { startedAt: `${day}T15:00:00Z`, rate: 0.1, areaHa: 4, weather: {}, rowVersion: 1 }
    return done(await app.call(treatments.record, { ...at, treatmentId: planned.id }, input, as)).id
  }
  const [kept, rewritten, untold] = [await record('2026-06-01'), await record('2026-06-02'), await record('2026-06-03')]
  // As corrections left them: the label of another day in place, and of one of them nothing in the trail.
  const later = JSON.stringify({ ...product, reEntryHours: 48 })
  await app.database.query('UPDATE deed SET product_then = ?, row_version = 3 WHERE id IN (?)', [later, [rewritten, untold]])
  await app.database.query('DELETE FROM audit WHERE entity_id = ?', [untold])
  // The migration is of a time when deeds were called treatments.
  await app.database.query('RENAME TABLE deed TO treatment')
  await app.database.query("UPDATE audit SET entity = 'treatment' WHERE entity = 'deed'")
  for (const file of ['055_treatment_label_doubtful.sql', '056_treatment_label_first.sql'])
    await app.database.query(await readFile(new URL(`../../migrations/${file}`, import.meta.url), 'utf8'))
  await app.database.query('RENAME TABLE treatment TO deed')
  const all = done(await app.call(treatments.list, at, { season: SEASON }))
  const done_ = (id: string) => all.find((t) => t.id === id)!.done!
  expect([kept, rewritten, untold].map((id) => [done_(id).label!.reEntryHours, done_(id).labelState])).toEqual([
    [4, 'kept'],
    [4, 'restored'],
    [48, 'doubtful'],
  ])
  expect(done_(rewritten).reEntryUntil).toBe('2026-06-02T19:00:00Z')
  const [[row]] = await app.database.query<Row[]>('SELECT product_then FROM deed WHERE id = ?', [rewritten])
  expect(jsonOf<{ name: string }>(row!['product_then']).name).toBe('Granule C')
})
