import { randomUUID } from 'node:crypto'
import { endpoints, type InputOf } from '@bocado/contract'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { startApplication, type Application } from '../testing/application.js'
import { done, GRANULE, startSite, type TestSite } from '../testing/farm.js'

const { harvests, blocks, places, treatments, watches } = endpoints
const SEASON = '2026-01-01'

let app: Application
let place: TestSite
let at: { siteId: string }
let as: { person: string }
beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z' })
  place = await startSite(app)
  at = { siteId: place.site.id }
  as = { person: place.person }
})
afterAll(() => app.stop())

const pick = (input: Partial<InputOf<typeof harvests.add>>) =>
  app.call(harvests.add, at, { placeId: place.blockId, pickedOn: '2026-06-12', kg: 3.2, ...input }, as)
const list = async () => done(await app.call(harvests.list, at, { season: SEASON }))

test('a harvest is stored as it was picked, once however often it is sent, corrected, removed and brought back', async () => {
  const sent = { id: randomUUID(), pieces: 14, spoilt: 3, spoiltBy: 'codling-moth', note: 'from the ladder' }
  const answers = await Promise.all(Array.from({ length: 10 }, () => pick(sent)))
  const [first] = answers.map((answer) => done(answer))
  expect(new Set(answers.map((answer) => done(answer).id))).toEqual(new Set([sent.id]))
  expect(first).toMatchObject({ placeName: 'Old Apples', kg: 3.2, pieces: 14, spoilt: 3, spoiltByName: 'Codling moth', tooEarly: [] })
  const params = { ...at, harvestId: sent.id }
  const { pickedOn, placeId } = first!
  const corrected = done(await app.call(harvests.update, params, { placeId, pickedOn, kg: 4, rowVersion: 1 }, as))
  expect(corrected).toMatchObject({ kg: 4, pieces: null, rowVersion: 2 })
  expect((await app.call(harvests.update, params, { placeId, pickedOn, kg: 5, rowVersion: 1 }, as)).status).toBe(409)
  const gone = done(await app.call(harvests.remove, params, { rowVersion: 2 }, as))
  expect((await list()).harvests).toEqual([])
  done(await app.call(harvests.restore, params, { rowVersion: gone.rowVersion }, as))
  expect((await list()).harvests.map(({ kg }) => kg)).toEqual([4])
})

test('what cannot be is refused by its field, and changes nothing', async () => {
  const before = await list()
  const refused = async (input: Parameters<typeof pick>[0]) =>
    (await pick(input)).problem.fields?.map(({ path, message }) => `${path}: ${message}`)
  expect(await refused({ kg: null })).toEqual(['kg: enter how much, or how many'])
  expect(await refused({ pieces: 3, spoilt: 4 })).toEqual(['spoilt: cannot be more than there were'])
  expect((await refused({ pickedOn: '2026-06-13' }))?.[0]).toMatch(/^pickedOn: /)
  expect((await refused({ placeId: randomUUID() }))?.[0]).toMatch(/^placeId: choose a place/)
  expect(await refused({ spoiltBy: 'no-such-thing' })).toEqual(['spoiltBy: choose an organism of the library'])
  expect((await refused({ kg: -1 }))?.[0]).toMatch(/^kg: must be at least/)
  const viewer = done(await app.call(endpoints.sites.addPerson, at, { name: 'Packing-house buyer 2', role: 'viewer' }, as))
  const byViewer = await app.call(harvests.add, at, { placeId: place.blockId, pickedOn: '2026-06-12', kg: 1 }, { person: viewer.id })
  expect(byViewer.status).toBe(403)
  expect(await list()).toEqual(before)
})

test('a label keeps harvest waiting where it was used, in what lies around it and within it; what was picked before is marked, not refused', async () => {
  const block = done(await app.call(blocks.create, at, { name: 'Ladder Pears', kind: 'orchard', areaHa: 2 }, as))
  const part = async (name: string): Promise<string> =>
    done(await app.call(places.create, at, { parentId: block.id, level: 'row', name }, as)).id
  const [sprayed, beside] = [await part('Row 1'), await part('Row 2')]
  const watch = done(
    await app.call(watches.create, at, { organismId: 'codling-moth', blockId: block.id, season: SEASON, biofix: null }, as),
  )
  const product = done(await app.call(treatments.addProduct, at, { ...GRANULE, name: 'Waits ten', preHarvestDays: 10 }, as))
  const input = { watchId: watch.id, productId: product.id, plannedOn: '2026-06-05', placeId: sprayed }
  const planned = done(await app.call(treatments.plan, at, input, as))
  const record = { startedAt: '2026-06-05T20:00:00Z', rate: 0.1, areaHa: 0.01, weather: {}, note: '', rowVersion: planned.rowVersion }
  done(await app.call(treatments.record, { ...at, treatmentId: planned.id }, record, as))

  const { waits } = await list()
  expect(waits).toEqual([
    {
      treatmentId: planned.id,
      name: 'Waits ten',
      from: '2026-06-15',
      placeName: 'Row 1',
      placeIds: expect.arrayContaining([block.id, sprayed]) as string[],
    },
  ])
  expect(waits[0]!.placeIds).not.toContain(beside)
  expect(waits[0]!.placeIds).not.toContain(place.blockId)
  const picked = done(await pick({ placeId: block.id }))
  expect(picked.tooEarly.map(({ name, from }) => [name, from])).toEqual([['Waits ten', '2026-06-15']])
  expect(done(await pick({ placeId: beside })).tooEarly).toEqual([])
  expect(done(await pick({ placeId: sprayed, pickedOn: '2026-06-04' })).tooEarly).toEqual([])
  // The label of that day counts, whatever the shelf says since.
  done(
    await app.call(
      treatments.updateProduct,
      { ...at, productId: product.id },
      { ...GRANULE, name: 'Waits ten', preHarvestDays: 0, rowVersion: 1 },
      as,
    ),
  )
  expect((await list()).waits.map(({ from }) => from)).toEqual(['2026-06-15'])
  // What was done stays done, though nobody watches there any more.
  done(await app.call(watches.remove, { ...at, watchId: watch.id }, { rowVersion: watch.rowVersion }, as))
  expect((await list()).waits.map(({ from }) => from)).toEqual(['2026-06-15'])
  const csv = await (await app.get(`sites/${at.siteId}/harvests.csv?season=${SEASON}`)).text()
  expect(csv).toContain('Waits ten until 2026-06-15')
})

test('days to harvest go on over the turn of the season', async () => {
  const watch = done(
    await app.call(watches.create, at, { organismId: 'codling-moth', blockId: place.blockId, season: '2025-01-01', biofix: null }, as),
  )
  const product = done(await app.call(treatments.addProduct, at, { ...GRANULE, name: 'Winter wash', preHarvestDays: 30 }, as))
  const planned = done(
    await app.call(treatments.plan, at, { watchId: watch.id, productId: product.id, plannedOn: '2025-12-20', placeId: place.blockId }, as),
  )
  const record = { startedAt: '2025-12-20T20:00:00Z', rate: 0.1, areaHa: 1, weather: {}, note: '', rowVersion: planned.rowVersion }
  done(await app.call(treatments.record, { ...at, treatmentId: planned.id }, record, as))
  expect(done(await pick({ pickedOn: '2026-01-10' })).tooEarly.map(({ from }) => from)).toEqual(['2026-01-19'])
  expect(done(await pick({ pickedOn: '2026-01-19' })).tooEarly).toEqual([])
})
