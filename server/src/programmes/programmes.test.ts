import { endpoints, type InputOf } from '@bocado/contract'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { startApplication, type Application } from '../testing/application.js'
import { done, GRANULE, startSite, type TestSite } from '../testing/farm.js'

const { programmes, treatments, watches } = endpoints

let app: Application
let place: TestSite
let at: { siteId: string }
let as: { person: string }
let watchId: string
beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z' })
  place = await startSite(app)
  at = { siteId: place.site.id }
  as = { person: place.person }
  const watch = { organismId: 'codling-moth', blockId: place.blockId, season: '2026-01-01', biofix: null }
  watchId = done(await app.call(watches.create, at, watch, as)).id
})
afterAll(() => app.stop())

type Input = InputOf<typeof programmes.add>
const SWEEP = {
  methodId: 'fallen-fruit',
  when: { kind: 'at-once' },
  everyDays: 7,
  emptyChecks: 3,
  visits: [6, 4, 2],
  hours: 3,
  bags: 4,
} as const
const add = (change: object = {}) =>
  app.call(programmes.add, { ...at, watchId }, { name: 'Sweep', steps: [SWEEP], ...change } as unknown as Input, as)
const list = async () => done(await app.call(programmes.list, at, {}, as))
const faults = async (change: object) => (await add(change)).problem.fields?.map(({ path, message }) => `${path}: ${message}`)

test('a programme is kept with its steps; what cannot be is refused by its step and field', async () => {
  expect(await faults({ steps: [] })).toEqual(['steps: add at least one step'])
  expect(await faults({ steps: [{ ...SWEEP, methodId: null }] })).toEqual(['steps.0.methodId: choose a product, or a method by hand'])
  expect(await faults({ steps: [{ ...SWEEP, when: { kind: 'after', step: 0, days: 7 } }] })).toEqual([
    'steps.0.when: has to follow a step that stands before it',
  ])
  expect(await faults({ steps: [{ ...SWEEP, methodId: 'no-such-method' }] })).toEqual(['steps.0.methodId: choose a method of the library'])
  expect((await faults({ steps: [{ ...SWEEP, methodId: 'spinosyn' }] }))?.[0]).toMatch(/^steps\.0\.methodId: .* comes with a label/)
  expect((await faults({ steps: [{ ...SWEEP, visits: [1, -1, 0] }] }))?.[0]).toMatch(/^steps\.0\.visits\.1: must be at least 0/)
  expect(await list()).toEqual([])
  const kept = done(await add())
  expect(kept).toMatchObject({ name: 'Sweep', followed: false, hourly: null, steps: [{ methodId: 'fallen-fruit', litres: null, bags: 4 }] })
  const gone = done(await app.call(programmes.remove, { ...at, programmeId: kept.id }, { rowVersion: 1 }, as))
  expect(await list()).toEqual([])
  done(await app.call(programmes.restore, { ...at, programmeId: kept.id }, { rowVersion: gone.rowVersion }, as))
  expect((await list()).map(({ name }) => name)).toEqual(['Sweep'])
})

test('of a watch one programme is followed, whoever follows another at the same moment', async () => {
  const product = done(await app.call(treatments.addProduct, at, GRANULE, as))
  const spray = { productId: product.id, when: { kind: 'window' }, visits: [2, 2, 2] }
  const answers = await Promise.all(Array.from({ length: 8 }, (_, i) => add({ name: `Way ${i}`, followed: true, steps: [spray] })))
  expect(answers.every(({ status }) => status === 200)).toBe(true)
  const followed = (await list()).filter((one) => one.followed)
  expect(followed).toHaveLength(1)
  // A followed one that comes back takes its place again.
  const [first] = followed
  const params = { ...at, programmeId: first!.id }
  const gone = done(await app.call(programmes.remove, params, { rowVersion: first!.rowVersion }, as))
  done(await add({ name: 'Meanwhile', followed: true }))
  done(await app.call(programmes.restore, params, { rowVersion: gone.rowVersion }, as))
  expect((await list()).filter((one) => one.followed).map(({ id }) => id)).toEqual([first!.id])
})

test('goes out of sight with its watch, and comes back with it', async () => {
  const before = (await list()).length
  const watch = done(await app.call(watches.list, at, { season: '2026-01-01' }, as)).find(({ id }) => id === watchId)!
  const gone = done(await app.call(watches.remove, { ...at, watchId }, { rowVersion: watch.rowVersion }, as))
  expect(await list()).toEqual([])
  expect((await add()).status).toBe(404)
  done(await app.call(watches.restore, { ...at, watchId }, { rowVersion: gone.rowVersion }, as))
  expect(await list()).toHaveLength(before)
})
