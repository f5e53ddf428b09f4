import { endpoints, type Trial } from '@bocado/contract'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { besideIt, startApplication, type Application } from '../testing/application.js'
import { done, startSite, type TestSite } from '../testing/farm.js'

const { trials } = endpoints

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

const plan = (change: object = {}) =>
  app.call(
    trials.draw,
    at,
    {
      name: 'Soap or water',
      what: 'Bench soap',
      placeId: place.blockId,
      units: 'plants',
      measure: 'count',
      pairs: 6,
      judgeAfterDays: 0,
      ...change,
    } as never,
    as,
  )
const count = (trial: Trial, phase: 'before' | 'after', of: (unit: string) => number, change: object = {}) => {
  const counts = Object.fromEntries(trial.pairs.flatMap(({ treated, check }) => [treated, check]).map((unit) => [unit, of(unit)]))
  return app.call(
    trials.count,
    { ...at, trialId: trial.id },
    { phase, countedOn: '2026-06-12', counts, rowVersion: trial.rowVersion, ...change } as never,
    as,
  )
}
const treat = (trial: Trial, treatedOn: string | null) =>
  app.call(trials.treated, { ...at, trialId: trial.id }, { treatedOn, rowVersion: trial.rowVersion }, as)
const fault = (answer: { problem: { fields?: readonly { path: string; code?: string | undefined }[] | undefined } }) =>
  answer.problem.fields?.map(({ path, code }) => [path, code])

test('a trial is drawn, counted, treated, counted again, and says what it found in that order only', async () => {
  const drawn = done(await plan())
  expect(drawn.pairs).toHaveLength(6)
  expect(drawn).toMatchObject({ drawnOn: '2026-06-12', treatedOn: null, judgeFrom: null, result: null, placeName: 'Old Apples' })
  const treated = new Set(drawn.pairs.map((pair) => pair.treated))
  // Nobody can judge what was not treated, nor count before what was not drawn.
  expect(fault(await count(drawn, 'after', () => 1))).toEqual([['countedOn', undefined]])
  expect(fault(await count(drawn, 'before', () => 1, { countedOn: '2026-06-11' }))).toEqual([['countedOn', 'trial.before-lot']])
  expect(fault(await count(drawn, 'before', () => 1, { countedOn: '2026-06-13' }))).toEqual([['countedOn', 'day.future']])
  const one = await count(drawn, 'before', () => 1, { counts: { 1: 3, 99: 1 } })
  expect(one.problem.fields).toHaveLength(12)
  const before = done(await count(drawn, 'before', (unit) => 20 + Number(unit)))
  expect(fault(await treat(before, '2026-06-11'))).toEqual([['treatedOn', 'trial.before-lot']])
  expect(fault(await treat(before, '2026-06-13'))).toEqual([['treatedOn', 'day.future']])
  const treatedOnDay = done(await treat(before, '2026-06-12'))
  expect(treatedOnDay).toMatchObject({ judgeFrom: '2026-06-12', result: null })
  const after = done(await count(treatedOnDay, 'after', (unit) => (treated.has(unit) ? 4 : 24 + (Number(unit) % 3))))
  expect(after.result).toMatchObject({ verdict: 'worked', used: 6, leftOut: 0, survival: null, shown: { atLeast: false } })
  expect(after.result!.shown!.effect).toBeGreaterThan(0.7)
  // What was treated when no longer changes; the lot stays as it fell.
  expect((await treat(after, null)).status).toBe(422)
  expect(done(await app.call(trials.list, at, {}, as))).toEqual([after])
})

test('it is judged from its day on, and no sooner', async () => {
  const drawn = done(await plan({ judgeAfterDays: 3 }))
  const treated = done(await treat(done(await count(drawn, 'before', () => 9)), '2026-06-12'))
  expect(fault(await count(treated, 'after', () => 9))).toEqual([['countedOn', 'trial.too-early']])
  expect(treated.judgeFrom).toBe('2026-06-15')
  const gone = done(await app.call(trials.remove, { ...at, trialId: treated.id }, { rowVersion: treated.rowVersion }, as))
  const back = done(await app.call(trials.restore, { ...at, trialId: treated.id }, { rowVersion: gone.rowVersion }, as))
  expect(back.pairs).toEqual(drawn.pairs)
})

test('twenty counts of one trial at the same moment on two servers: one is kept, the others see that somebody was before them', async () => {
  const drawn = done(await plan({ name: 'Counted by many' }))
  const second = await besideIt(app)
  const units = drawn.pairs.flatMap(({ treated, check }) => [treated, check])
  const answers = await Promise.all(
    Array.from({ length: 20 }, (_, i) =>
      [app, second][i % 2]!.call(
        trials.count,
        { ...at, trialId: drawn.id },
        {
          phase: 'before',
          countedOn: '2026-06-12',
          counts: Object.fromEntries(units.map((unit) => [unit, i])),
          rowVersion: drawn.rowVersion,
        },
        as,
      ),
    ),
  )
  const kept = answers.filter(({ status }) => status === 200)
  expect(kept).toHaveLength(1)
  expect(answers.every(({ status }) => status === 200 || status === 409)).toBe(true)
  expect(done(await app.call(trials.list, at, {}, as)).find(({ id }) => id === drawn.id)).toEqual(kept[0]!.body)
  await second.stop()
})

test('what lives or dies needs no count before, and too few pairs are refused', async () => {
  const drawn = done(await plan({ measure: 'alive', pairs: 5 }))
  const treated = new Set(drawn.pairs.map((pair) => pair.treated))
  const after = done(await count(done(await treat(drawn, '2026-06-12')), 'after', (unit) => (treated.has(unit) ? 1 : 0)))
  expect(after.result).toEqual({
    verdict: 'worked',
    shown: null,
    used: 5,
    leftOut: 0,
    survival: { onlyTreated: 5, onlyCheck: 0, p: 1 / 32 },
  })
  expect((await plan({ pairs: 2 })).problem.fields?.[0]?.path).toBe('pairs')
  expect((await plan({ placeId: '00000000-0000-4000-8000-00000000dead' })).problem.fields?.[0]?.path).toBe('placeId')
})

test('a trial of a way by hand is evidence of it, by itself; one of own words is of none', async () => {
  const of = { organismId: 'codling-moth', methodId: 'hand-picking' }
  expect(fault(await plan({ ...of, methodId: 'no-such-way' }))).toEqual([['methodId', undefined]])
  expect(fault(await plan({ productId: '00000000-0000-4000-8000-00000000dead' }))).toEqual([['productId', undefined]])
  const judged = async (change: object) => {
    const drawn = done(await plan(change))
    const treated = new Set(drawn.pairs.map((pair) => pair.treated))
    const before = done(await count(drawn, 'before', (unit) => 20 + Number(unit)))
    return done(await count(done(await treat(before, '2026-06-12')), 'after', (unit) => (treated.has(unit) ? 4 : 25)))
  }
  const known = await judged({ ...of, name: 'Bags or none' })
  await judged({ organismId: 'codling-moth', name: 'Early or late' })
  const ways = done(await app.call(endpoints.outcomes.ways, at, {}, as))
  expect(ways.map(({ methodId, deeds, trials: tried, evidence }) => [methodId, deeds, tried.map(({ id }) => id), evidence])).toEqual([
    ['hand-picking', [], [known.id], null],
  ])
  expect(ways[0]).toMatchObject({ organismName: 'Codling moth', trials: [{ result: { verdict: 'worked' } }] })
  const gone = done(await app.call(trials.remove, { ...at, trialId: known.id }, { rowVersion: known.rowVersion }, as))
  expect(done(await app.call(endpoints.outcomes.ways, at, {}, as))).toEqual([])
  done(await app.call(trials.restore, { ...at, trialId: known.id }, { rowVersion: gone.rowVersion }, as))
})
