import { randomUUID } from 'node:crypto'
import { endpoints, type InputOf } from '@bocado/contract'
import { afterAll, beforeAll, beforeEach, expect, test } from 'vitest'
import { startApplication, type Application } from '../testing/application.js'
import { done, startSite, type TestSite } from '../testing/farm.js'

const { blocks, bloom, companions, rules, treatments, watches } = endpoints
const SEASON = '2026-01-01'

let app: Application
let place: TestSite
let at: { siteId: string }
let as: { person: string }
let meadow: string
beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z' })
  place = await startSite(app)
  at = { siteId: place.site.id }
  as = { person: place.person }
  meadow = done(await app.call(blocks.create, at, { name: 'Lower Meadow', kind: 'natural-area', areaHa: 2 }, as)).id
})
afterAll(() => app.stop())
beforeEach(async () => {
  for (const { id, rowVersion } of (await list()).companions)
    done(await app.call(companions.remove, { ...at, companionId: id }, { rowVersion }, as))
})

const list = async () => done(await app.call(companions.list, at, {}, as))
const add = (input: Partial<InputOf<typeof companions.add>> = {}) =>
  app.call(
    companions.add,
    at,
    { placeId: meadow, name: 'Bluebell', wakesOn: '02-20', sleepsOn: '06-10', harmedBy: ['cutting'], ...input },
    as,
  )

test('the last to sleep opens the window of a block, and the first to wake closes it', async () => {
  done(await add())
  done(await add({ name: 'Marsh orchid', wakesOn: '04-01', sleepsOn: '09-30', harmedBy: ['cutting', 'chemicals'] }))
  const { asleep } = await list()
  expect(asleep).toEqual([{ blockId: meadow, spans: [{ from: '10-01', until: '02-19', openedBy: 'Marsh orchid', closedBy: 'Bluebell' }] }])
})

test('what would harm it is closed there while it is awake, and nowhere else', async () => {
  done(await add({ name: 'Marsh orchid', wakesOn: '04-01', sleepsOn: '09-30' }))
  const watch = async (blockId: string) =>
    done(await app.call(watches.create, at, { organismId: 'field-bindweed', blockId, season: SEASON, biofix: null }, as)).id
  const plan = async (watchId: string, plannedOn: string, methodId: string, placeId: string) =>
    app.call(treatments.plan, at, { watchId, methodId, plannedOn, placeId }, as)
  const [here, there] = [await watch(meadow), await watch(place.blockId)]
  const refused = await plan(here, '2026-07-01', 'repeated-mowing', meadow)
  expect(refused.problem.fields?.map(({ path, code, values }) => [path, code, values?.['name']])).toEqual([
    ['plannedOn', 'rule.closed', 'Marsh orchid is awake'],
  ])
  done(await plan(here, '2026-10-05', 'repeated-mowing', meadow))
  done(await plan(here, '2026-07-01', 'tillage', meadow))
  done(await plan(there, '2026-07-01', 'repeated-mowing', place.blockId))
  // The rule is told with those of the place, and cannot be changed as one.
  const all = done(await app.call(rules.list, at, {}, as))
  expect(all.map(({ name, blockId, fromDay, untilDay, act }) => [name, blockId, fromDay, untilDay, act])).toEqual([
    ['Marsh orchid is awake', meadow, '04-01', '09-30', 'cutting'],
  ])
})

test('its own blooms widen when it is awake, and what was seen of it lets it sleep sooner', async () => {
  done(await app.call(bloom.add, at, { plantId: 'snowdrop', event: 'first-open', seenFrom: '2025-02-04' }, as))
  const made = done(await add({ name: 'Snowdrop', plantId: 'snowdrop' }))
  expect(made).toMatchObject({ awake: { from: '02-04', until: '06-10' }, blooms: 1 })
  const { id, placeId, name, wakesOn, sleepsOn, harmedBy, plantId, note } = made
  const seen = { placeId, name, wakesOn, sleepsOn, harmedBy, plantId, note, asleepOn: '2026-06-02', rowVersion: 1 }
  expect(done(await app.call(companions.update, { ...at, companionId: id }, seen, as)).awake).toEqual({ from: '02-04', until: '06-01' })
  expect((await app.call(companions.update, { ...at, companionId: id }, seen, as)).status).toBe(409)
})

test('a rule of the place may bind one block alone', async () => {
  const nesting = { name: 'Skylarks nest', kind: 'closed-days', act: 'cutting', whose: 'own', fromDay: '04-15', untilDay: '07-15' } as const
  const rule = done(await app.call(rules.add, at, { ...nesting, placeId: meadow }, as))
  expect(rule).toMatchObject({ placeId: meadow, blockId: meadow, companionId: null })
  const watchId = done(
    await app.call(watches.create, at, { organismId: 'scotch-broom', blockId: place.blockId, season: SEASON, biofix: null }, as),
  ).id
  const input = { watchId, methodId: 'repeated-mowing', plannedOn: '2026-07-01', placeId: place.blockId }
  done(await app.call(treatments.plan, at, input, as))
  const wrong = await app.call(rules.add, at, { ...nesting, placeId: randomUUID() }, as)
  expect(wrong.problem.fields?.[0]?.path).toBe('placeId')
  done(await app.call(rules.remove, { ...at, siteRuleId: rule.id }, { rowVersion: 1 }, as))
})

test('what cannot be is refused by its field', async () => {
  const refused = async (input: Parameters<typeof add>[0]) => (await add(input)).problem.fields?.map(({ path }) => path)
  expect(await refused({ placeId: randomUUID() })).toEqual(['placeId'])
  expect(await refused({ wakesOn: '02-32' })).toEqual(['wakesOn'])
  expect(await refused({ harmedBy: [] })).toEqual(['harmedBy'])
  expect(await refused({ asleepOn: '2026-06-13' })).toEqual(['asleepOn'])
  expect(await refused({ plantId: 'no-such-plant' })).toEqual(['plantId'])
  expect((await list()).companions).toEqual([])
})
