import { endpoints, type InputOf } from '@bocado/contract'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { startApplication, type Application } from '../testing/application.js'
import { done, GRANULE, startSite, type TestSite } from '../testing/farm.js'

const { crops, bloom, places, treatments, watches, sites } = endpoints
const SEASON = '2026-01-01'

let app: Application
let place: TestSite
let at: { siteId: string }
let as: { person: string }
let bed: string
beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z' })
  place = await startSite(app)
  at = { siteId: place.site.id }
  as = { person: place.person }
  bed = done(await app.call(places.create, at, { parentId: place.blockId, level: 'bed', name: 'Bed 2' }, as)).id
})
afterAll(() => app.stop())

const plant = (input: Partial<InputOf<typeof crops.add>>) =>
  app.call(crops.add, at, { placeId: bed, crop: 'zucchini', standsFrom: '2026-05-20', ...input }, as)
const see = (plantingId: string, stage: InputOf<typeof crops.addStage>['stage'], seenOn: string, more: object = {}) =>
  app.call(crops.addStage, at, { plantingId, stage, seenOn, ...more }, as)
const list = async (season = SEASON) => done(await app.call(crops.list, at, { season }))
const one = async (id: string, season = SEASON) => (await list(season)).find((planting) => planting.id === id)!
const stageOf = async (id: string, stage: string, season = SEASON) => (await one(id, season)).stages.find((s) => s.stage === stage)!

describe('the crop calendar', () => {
  let id: string
  test('says what stands where, with what is expected of it, wide', async () => {
    id = done(await plant({ begins: 'planted', variety: 'Long green' })).id
    const planting = await one(id)
    expect(planting).toMatchObject({ placeName: 'Bed 2', cropName: 'Zucchini', variety: 'Long green', standsUntil: null })
    expect(await stageOf(id, 'planted')).toMatchObject({ seen: { on: '2026-05-20' } })
    expect(await stageOf(id, 'first-flower')).toMatchObject({ seen: null, expected: { from: '2026-06-09', until: '2026-06-29' } })
    expect(await stageOf(id, 'sown')).toMatchObject({ seen: null, expected: null, isPast: true })
    expect(planting.flowers).toMatchObject({ from: '2026-06-09', how: 'expected' })
  })

  test('goes by what was seen from then on, taken back as well', async () => {
    const seen = done(await see(id, 'first-flower', '2026-06-11'))
    expect((await one(id)).flowers).toMatchObject({ from: '2026-06-11', how: 'seen' })
    expect((await see(id, 'first-flower', '2026-06-10')).problem.fields![0]!.message).toContain('recorded already')
    done(await app.call(crops.removeStage, { ...at, recordId: seen.id }, { rowVersion: 1 }, as))
    expect((await stageOf(id, 'first-flower')).seen).toBeNull()
    done(await app.call(crops.restoreStage, { ...at, recordId: seen.id }, { rowVersion: 2 }, as))
    expect((await stageOf(id, 'first-flower')).seen).toMatchObject({ on: '2026-06-11' })
  })

  test.each<[string, () => Promise<{ problem: { fields?: { path: string; message: string }[] | undefined } }>, string]>([
    ['an unknown crop', () => plant({ crop: 'moon-melon' }), 'crop'],
    ['a place of nowhere', () => plant({ placeId: place.site.id }), 'placeId'],
    ['a day to come', () => plant({ standsFrom: '2026-06-13' }), 'standsFrom'],
    ['an end before its beginning', () => plant({ standsUntil: '2026-05-01' }), 'standsUntil'],
    ['a stage of another crop', () => see(id, 'petal-fall', '2026-06-01'), 'stage'],
    ['a stage before it stood there', () => see(id, 'emerged', '2026-05-01'), 'seenOn'],
    ['a stage of tomorrow', () => see(id, 'fruit-set', '2026-06-13'), 'seenOn'],
  ])('refuses %s', async (_, call, path) => {
    const before = await list()
    expect((await call()).problem.fields?.map((field) => field.path)).toEqual([path])
    expect(await list()).toEqual(before)
  })

  test('an apple has its stages anew in each year, and stands in every season', async () => {
    const apple = done(await plant({ placeId: place.blockId, crop: 'apple', standsFrom: '2015-04-01' })).id
    done(await see(apple, 'first-flower', '2025-05-01'))
    done(await see(apple, 'first-flower', '2026-04-26'))
    expect((await stageOf(apple, 'first-flower', '2025-01-01')).seen).toMatchObject({ on: '2025-05-01' })
    expect((await stageOf(apple, 'petal-fall')).expected).toEqual({ from: '2026-05-03', until: '2026-05-17' })
    done(await see(apple, 'petal-fall', '2026-05-12'))
    expect((await one(apple)).flowers).toEqual({ from: '2026-04-26', until: '2026-05-12', how: 'seen' })
  })

  test('a stage that was seen without signal is stored once', async () => {
    const made = { at: '2026-06-12T12:00:00Z', order: 4, by: place.person }
    const stage = { id: '5a1f0a56-6f1e-4b9c-8f0c-0d1f2a3b4c5d', made }
    done(await see(id, 'first-female-flower', '2026-06-12', stage))
    done(await see(id, 'first-female-flower', '2026-06-12', stage))
    expect((await stageOf(id, 'first-female-flower')).seen).toMatchObject({ record: { id: stage.id, rowVersion: 1 } })
  })

  test('knows the first harvest by what was picked there, until somebody writes its day down', async () => {
    const row = done(await app.call(places.create, at, { parentId: place.blockId, level: 'row', name: 'Row 9' }, as)).id
    const bean = done(await plant({ placeId: row, crop: 'bean', standsFrom: '2026-04-01', begins: 'sown' })).id
    const pick = { placeId: row, kg: 1 }
    for (const pickedOn of ['2026-06-11', '2026-06-09']) done(await app.call(endpoints.harvests.add, at, { ...pick, pickedOn }, as))
    expect((await stageOf(bean, 'first-harvest')).seen).toMatchObject({ record: null, on: '2026-06-09', personName: 'Marit Solheim' })
    expect(await stageOf(bean, 'first-flower')).toMatchObject({ expected: null, isPast: true })
    done(await see(bean, 'first-harvest', '2026-06-08'))
    expect((await stageOf(bean, 'first-harvest')).seen).toMatchObject({ on: '2026-06-08', record: { rowVersion: 1 } })
    // Of two that stand there nobody knows which was picked.
    const second = done(await plant({ placeId: row, crop: 'pea', standsFrom: '2026-04-01' })).id
    expect((await stageOf(second, 'first-harvest')).seen).toBeNull()
  })

  test('names what of its family stood in the same soil before', async () => {
    const old = { crop: 'cucumber', standsFrom: '2024-05-10', standsUntil: '2024-09-20' }
    done(await plant(old))
    done(await plant({ crop: 'onion', standsFrom: '2025-04-01', standsUntil: '2025-08-20' }))
    done(await plant({ crop: 'pumpkin', standsFrom: '2020-05-01', standsUntil: '2020-10-01' }))
    expect((await one(id)).sameFamily).toEqual([{ cropName: 'Cucumber', until: '2024-09-20' }])
  })

  test('an annual that nobody cleared ends with its season, one of the autumn with the next', async () => {
    const other = done(await app.call(places.create, at, { parentId: place.blockId, level: 'bed', name: 'Bed 3' }, as)).id
    const old = done(await plant({ placeId: other, crop: 'cucumber', standsFrom: '2025-05-10' })).id
    const garlic = done(await plant({ placeId: other, crop: 'garlic', standsFrom: '2025-10-15' })).id
    const now = (await list()).map(({ id: one }) => one)
    expect(now).not.toContain(old)
    expect(now).toContain(garlic)
    expect((await list('2025-01-01')).map(({ id: one }) => one)).toEqual(expect.arrayContaining([old, garlic]))
    const next = done(await plant({ placeId: other, crop: 'pumpkin', standsFrom: '2026-05-25' })).id
    expect((await one(next)).sameFamily).toEqual([{ cropName: 'Cucumber', until: '2025-12-31' }])
  })

  test('a viewer looks and a scout writes stages down', async () => {
    const scout = done(await app.call(sites.addPerson, at, { name: 'Dario Quince', role: 'scout' }, as)).id
    const input = { plantingId: id, stage: 'fruit-set' as const, seenOn: '2026-06-12' }
    expect((await app.call(crops.addStage, at, input, { person: place.viewer })).status).toBe(403)
    expect((await app.call(crops.addStage, at, input, { person: scout })).status).toBe(200)
  })
})

test('a crop that was cleared flowers no more, and one whose petals were not watched has ended by the next stage that was seen', async () => {
  const row = done(await app.call(places.create, at, { parentId: place.blockId, level: 'row', name: 'Row 11' }, as)).id
  const gone = done(await plant({ placeId: row, crop: 'cucumber', standsFrom: '2026-04-20', begins: 'planted' })).id
  done(await see(gone, 'first-flower', '2026-05-25'))
  const { placeId, crop, standsFrom, rowVersion } = await one(gone)
  done(await app.call(crops.update, { ...at, plantingId: gone }, { placeId, crop, standsFrom, standsUntil: '2026-06-05', rowVersion }, as))
  expect((await one(gone)).flowers).toEqual({ from: '2026-05-25', until: '2026-06-05', how: 'seen' })
  const pear = done(await plant({ placeId: row, crop: 'pear', standsFrom: '2010-04-01' })).id
  done(await see(pear, 'first-flower', '2026-04-20'))
  done(await see(pear, 'fruit-set', '2026-05-15'))
  expect((await one(pear)).flowers).toEqual({ from: '2026-04-20', until: '2026-05-15', how: 'seen' })
})

test('what bees need: a crop in flower is named for a treatment of its block, and keeps one out that is forbidden in bloom', async () => {
  const blockId = place.blockId
  const blooming = done(await app.call(bloom.blooming, { ...at, blockId }, {}))
  expect(blooming.find(({ name }) => name === 'Zucchini')).toMatchObject({ from: '2026-06-11', how: 'seen' })
  const watch = { organismId: 'codling-moth', blockId, season: SEASON, biofix: '2026-05-10' }
  const watchId = done(await app.call(watches.create, at, watch, as)).id
  const product = done(await app.call(treatments.addProduct, at, { ...GRANULE, bees: 'forbidden-in-bloom' }, as))
  const planned = await app.call(treatments.plan, at, { watchId, productId: product.id, plannedOn: '2026-06-14' }, as)
  expect(planned.status).toBe(422)
  expect(JSON.stringify(planned.problem)).toContain('Zucchini')
  // Of a crop of which nobody wrote anything down it is not known, and so it is said.
  const other = done(await app.call(endpoints.blocks.create, at, { name: 'Ladder Pears', kind: 'orchard', areaHa: 1 }, as)).id
  done(await app.call(crops.add, at, { placeId: other, crop: 'pear', standsFrom: '2010-04-01' }, as))
  expect(done(await app.call(bloom.blooming, { ...at, blockId: other }, {}))).toMatchObject([{ name: 'Pear', how: 'unknown' }])
})
