import type { Programme, WatchForecast } from '@bocado/contract'
import { expect, test } from 'vitest'
import { signsOf, stepsDue, stepStates, type Signs } from './programme.js'

const TODAY = '2026-06-12'
const NONE: Signs = { blooms: new Map(), stagesIn: () => new Map() }
const deed = (methodId: string, day: string | null, plannedOn = day ?? '') =>
  ({ productId: null, methodId, status: day ? 'done' : 'planned', plannedOn, done: day ? { day } : null }) as never
const row = (treatments: never[] = [], rounds: object[] = []): WatchForecast =>
  ({
    watch: { id: 'w', season: '2026-01-01' },
    grade: 'months',
    infection: null,
    windows: [],
    treatments,
    rounds,
  }) as unknown as WatchForecast
const programme = (change: object = {}): Programme =>
  ({
    id: 'p',
    watchId: 'w',
    followed: true,
    steps: [
      { productId: null, methodId: 'timed-mowing', when: { kind: 'months', months: [6] }, everyDays: null, emptyChecks: null },
      { productId: null, methodId: 'digging-roots', when: { kind: 'after', step: 0, days: 5 }, everyDays: 10, emptyChecks: 1 },
    ],
    ...change,
  }) as unknown as Programme

test('a step follows the deed that was done with the same means; a round that found nothing ends what has a stop', () => {
  expect(stepStates(programme(), row(), TODAY, NONE).map(({ state }) => state)).toEqual(['due', 'waits'])
  const mown = [deed('timed-mowing', '2026-06-09')]
  expect(stepStates(programme(), row(mown), TODAY, NONE)[1]).toMatchObject({ state: 'due' })
  const dug = [...mown, deed('digging-roots', '2026-06-11')]
  const round = { checkAreaId: null, countedOn: TODAY, per100: 0 }
  expect(stepStates(programme(), row(dug), TODAY, NONE)[1]!.state).toBe('due')
  expect(stepStates(programme(), row(dug, [round]), TODAY, NONE)[1]).toEqual({ state: 'over', empty: 1 })
  // A count in the untreated check area says nothing of it.
  expect(stepStates(programme(), row(dug, [{ ...round, checkAreaId: 'c' }]), TODAY, NONE)[1]!.state).toBe('due')
})

test('what comes up is of followed programmes, due within the days asked for, and not planned yet', () => {
  const due = (all: Programme[], of: WatchForecast, until = '2026-06-19') =>
    stepsDue(all, [of], TODAY, until, NONE).map(({ at, day }) => [at, day])
  expect(due([programme()], row())).toEqual([[0, TODAY]])
  expect(due([programme({ followed: false })], row())).toEqual([])
  expect(due([programme()], row([deed('timed-mowing', null, '2026-06-20')]))).toEqual([])
  expect(due([programme()], row([deed('timed-mowing', '2026-06-09')]))).toEqual([[1, '2026-06-14']])
  expect(due([programme()], row([deed('timed-mowing', '2026-06-09')]), '2026-06-13')).toEqual([])
  expect(due([programme({ watchId: 'gone' })], row())).toEqual([])
})

test('a bloom and a stage of the crop set a step off on the first day on which they were seen this season', () => {
  const record = (seenFrom: string, change: object = {}) => ({
    plantId: 'elder',
    event: 'full-bloom',
    season: '2026-01-01',
    notYet: false,
    seenFrom,
    ...change,
  })
  const records = [
    record('2026-06-09'),
    record('2026-06-07'),
    record('2026-06-01', { notYet: true }),
    record('2025-06-01', { season: '2025-01-01' }),
  ]
  const planting = {
    placeId: 'row-1',
    stages: [
      { stage: 'petal-fall', seen: { on: '2026-05-20' } },
      { stage: 'first-harvest', seen: null },
    ],
  }
  const signs = signsOf(records as never, [planting] as never, '2026-01-01', () => 'b')
  const steps = [
    {
      productId: null,
      methodId: 'mow',
      when: { kind: 'bloom', plantId: 'elder', event: 'full-bloom', days: 10 },
      everyDays: null,
      emptyChecks: null,
    },
    { productId: null, methodId: 'dig', when: { kind: 'crop-stage', stage: 'petal-fall' }, everyDays: null, emptyChecks: null },
    { productId: null, methodId: 'burn', when: { kind: 'crop-stage', stage: 'first-harvest' }, everyDays: null, emptyChecks: null },
  ]
  const of = { ...row(), watch: { id: 'w', season: '2026-01-01', blockId: 'b' } } as WatchForecast
  expect(stepsDue([programme({ steps })], [of], TODAY, '2026-06-30', signs).map(({ at, day }) => [at, day])).toEqual([
    [0, '2026-06-17'],
    [1, '2026-05-20'],
  ])
})
