import { endpoints, type Geometry } from '@bocado/contract'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { startApplication, type Application } from '../testing/application.js'
import { done, GRANULE, startSite, type TestSite } from '../testing/farm.js'
import { box, there } from '../testing/ground.js'

const { blocks, ground, places, treatments, watches } = endpoints

let app: Application
let place: TestSite
let at: { siteId: string }
let as: { person: string }
let productId: string
beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z' })
  place = await startSite(app)
  at = { siteId: place.site.id }
  as = { person: place.person }
  productId = done(await app.call(treatments.addProduct, at, { ...GRANULE, targets: ['codling-moth'], crops: ['apple'] }, as)).id
})
afterAll(() => app.stop())

const draw = async (kind: 'outline' | 'water', geometry: Geometry, placeId: string | null = null) =>
  done(await app.call(ground.draw, at, { kind, geometry, placeId }, as))

test('what is kept clear of the brook is not treated: the record says how far, and takes no more ground than is left', async () => {
  // 100 m by 100 m, with a brook along its southern edge.
  const { id } = done(await app.call(blocks.create, at, { name: 'Brook Pears', kind: 'orchard', areaHa: 1, grows: 'apple' }, as))
  const watchId = done(await app.call(watches.create, at, { organismId: 'codling-moth', blockId: id, season: '2026-01-01' }, as)).id
  await draw('outline', box(0, 0, 100, 100), id)
  await draw('water', { type: 'LineString', coordinates: [there(-200, 0), there(300, 0)] })
  const did = (areaHa: number, keptClearM: number | null, placeId: string | null = null) =>
    app.call(
      treatments.recordUnplanned,
      at,
      { watchId, productId, placeId, startedAt: '2026-06-11T14:00:00Z', rate: 0.1, areaHa, keptClearM, weather: {} },
      as,
    )
  const [tooMuch] = (await did(1, 20)).problem.fields ?? []
  expect(tooMuch).toMatchObject({ path: 'areaHa', code: 'area.more-than-kept-clear' })
  expect(tooMuch?.message).toMatch(/^is more than is left of Brook Pears where 20 m are kept from what lies near it: 0\.(80|799)\d* ha$/)
  expect(done(await did(0.8, 20)).done).toMatchObject({ areaHa: 0.8, keptClearM: 20 })
  // Nobody said that anything was kept, or it reaches nothing.
  expect(done(await did(1, null)).done).toMatchObject({ areaHa: 1, keptClearM: null })
  expect((await did(0.5, 0)).problem.fields?.[0]?.path).toBe('keptClearM')
  expect((await did(0.5, 301)).problem.fields?.[0]?.path).toBe('keptClearM')

  // A part that is not drawn tells nothing of where it lies.
  const rows = done(await app.call(places.create, at, { parentId: id, level: 'row', name: 'Rows 1 to 4', areaM2: 2000 }, as))
  expect(done(await did(0.2, 20, rows.id)).done).toMatchObject({ areaHa: 0.2, keptClearM: 20 })

  // A correction is held to it as well.
  const first = done(await did(0.7, 25))
  const record = (areaHa: number, keptClearM: number | null) =>
    app.call(
      treatments.record,
      { ...at, treatmentId: first.id },
      { startedAt: '2026-06-11T14:00:00Z', rate: 0.1, areaHa, keptClearM, weather: {}, rowVersion: first.rowVersion },
      as,
    )
  expect((await record(0.8, 25)).problem.fields?.[0]?.path).toBe('areaHa')
  expect(done(await record(0.8, 10)).done).toMatchObject({ areaHa: 0.8, keptClearM: 10 })
})
