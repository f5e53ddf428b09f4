import { endpoints, type Product } from '@bocado/contract'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { startApplication, type Application } from '../testing/application.js'
import { done, GRANULE, startSite, type TestSite } from '../testing/farm.js'

const { blocks, treatments, watches } = endpoints
const SEASON = '2026-01-01'

let app: Application
let place: TestSite
let at: { siteId: string }
let as: { person: string }
let mildew: string
let moth: string
let sulphur: Product
let granule: Product
beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z' })
  place = await startSite(app)
  at = { siteId: place.site.id }
  as = { person: place.person }
  const vines = done(
    await app.call(blocks.create, at, { name: 'Terrace Vines', kind: 'vineyard', areaHa: 5.5, grows: 'wine grape' }, as),
  ).id
  const watch = async (organismId: string, blockId: string) =>
    done(await app.call(watches.create, at, { organismId, blockId, season: SEASON }, as)).id
  mildew = await watch('vine-downy-mildew', vines)
  moth = await watch('codling-moth', place.blockId)
  const label = { ...GRANULE, name: 'Terrace sulphur', methods: ['sulphur'], stages: ['spore'] }
  sulphur = done(await app.call(treatments.addProduct, at, label, as))
  granule = done(await app.call(treatments.addProduct, at, { ...GRANULE, targets: ['codling-moth'], crops: ['apple'] }, as))
})
afterAll(() => app.stop())

const plan = (watchId: string, productId: string) => app.call(treatments.plan, at, { watchId, productId, plannedOn: '2026-06-14' }, as)
const did = (watchId: string, productId: string, deviationReason = '') =>
  app.call(
    treatments.recordUnplanned,
    at,
    { watchId, productId, startedAt: '2026-06-11T14:00:00Z', rate: 0.1, areaHa: 1, weather: {}, deviationReason },
    as,
  )

describe('what does not fit', () => {
  test('is not planned, with the reason, and nothing is moved to it', async () => {
    expect((await plan(mildew, sulphur.id)).problem.fields).toEqual([
      { path: 'productId', message: 'Terrace sulphur is not for this: nothing here says that it works against it' },
    ])
    const planned = done(await plan(moth, granule.id))
    const moved = await app.call(
      treatments.move,
      { ...at, treatmentId: planned.id },
      { productId: sulphur.id, plannedOn: '2026-06-15', rowVersion: planned.rowVersion },
      as,
    )
    expect(moved.problem.fields?.[0]?.path).toBe('productId')
    done(await app.call(treatments.remove, { ...at, treatmentId: planned.id }, { rowVersion: planned.rowVersion }, as))
  })

  test('is recorded where it was done, marked, with the reason that is given, and credited with nothing', async () => {
    expect((await did(mildew, sulphur.id)).problem.fields?.[0]).toMatchObject({ path: 'deviationReason' })
    const recorded = done(await did(mildew, sulphur.id, 'the copper had run out'))
    expect(recorded).toMatchObject({
      status: 'done',
      plannedOn: '2026-06-11',
      deviation: { because: 'no-way-to-act', reason: 'the copper had run out' },
      done: { rate: 0.1, label: { name: 'Terrace sulphur' } },
    })
    expect(Date.parse(recorded.done!.reEntryUntil!)).toBe(Date.parse('2026-06-11T18:00:00Z'))
    const outcomes = done(await app.call(endpoints.outcomes.list, at, { season: SEASON }))
    // Nothing was counted near it: then today's threshold is what it would be held against.
    expect(outcomes.find(({ treatmentId }) => treatmentId === recorded.id)).toMatchObject({
      coverage: null,
      deviation: 'no-way-to-act',
      threshold: { per100: 2, from: 'library' },
    })
  })

  test('is not what a bloom sets off either', async () => {
    const trigger = { plantId: 'common-lilac', event: 'end' as const, daysAfter: 3, watchId: mildew, action: 'treat' as const }
    const refused = await app.call(endpoints.bloom.addTrigger, at, { ...trigger, productId: sulphur.id }, as)
    expect(refused.problem.fields).toMatchObject([{ path: 'productId' }])
  })

  test('that was planned before its label said so is marked when it is recorded', async () => {
    const other = done(await app.call(treatments.addProduct, at, { ...GRANULE, name: 'Granule D' }, as))
    const planned = done(await plan(moth, other.id))
    const label = { ...GRANULE, name: 'Granule D', targets: ['grape-berry-moth'], rowVersion: other.rowVersion }
    done(await app.call(treatments.updateProduct, { ...at, productId: other.id }, label, as))
    const recorded = await app.call(
      treatments.record,
      { ...at, treatmentId: planned.id },
      { startedAt: '2026-06-11T14:00:00Z', rate: 0.1, areaHa: 1, weather: {}, note: 'mixed already', rowVersion: planned.rowVersion },
      as,
    )
    expect(done(recorded).deviation).toEqual({ because: 'target-not-on-label', reason: 'mixed already' })
  })

  test('what fits is recorded without a plan and without a mark', async () => {
    expect(done(await did(moth, granule.id)).deviation).toBeNull()
  })
})

describe('a label', () => {
  const add = (label: object) => app.call(treatments.addProduct, at, { ...GRANULE, name: `Label ${Math.random()}`, ...label }, as)

  test('names only methods that come with one, strains that they have, and organisms that there are', async () => {
    expect((await add({ methods: ['hand-picking'] })).problem.fields?.[0]).toMatchObject({ path: 'methods' })
    expect((await add({ methods: ['holy-water'] })).problem.fields?.[0]).toMatchObject({ path: 'methods' })
    expect((await add({ methods: ['bt'], strain: 'feltiae' })).problem.fields?.[0]).toMatchObject({ path: 'strain' })
    expect((await add({ targets: ['unicorn'] })).problem.fields?.[0]).toMatchObject({ path: 'targets' })
  })

  test('of which nobody has said what it is can be planned', async () => {
    const unmapped = done(await add({ methods: [] }))
    expect(done(await plan(mildew, unmapped.id)).productId).toBe(unmapped.id)
  })
})
