import type { Programme, WatchForecast } from '@bocado/contract'
import { expect, test } from 'vitest'
import { stepsDue, stepStates } from './programme.js'

const TODAY = '2026-06-12'
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
  expect(stepStates(programme(), row(), TODAY).map(({ state }) => state)).toEqual(['due', 'waits'])
  const mown = [deed('timed-mowing', '2026-06-09')]
  expect(stepStates(programme(), row(mown), TODAY)[1]).toMatchObject({ state: 'due' })
  const dug = [...mown, deed('digging-roots', '2026-06-11')]
  const round = { checkAreaId: null, countedOn: TODAY, per100: 0 }
  expect(stepStates(programme(), row(dug), TODAY)[1]!.state).toBe('due')
  expect(stepStates(programme(), row(dug, [round]), TODAY)[1]).toEqual({ state: 'over', empty: 1 })
  // A count in the untreated check area says nothing of it.
  expect(stepStates(programme(), row(dug, [{ ...round, checkAreaId: 'c' }]), TODAY)[1]!.state).toBe('due')
})

test('what comes up is of followed programmes, due within the days asked for, and not planned yet', () => {
  const due = (all: Programme[], of: WatchForecast, until = '2026-06-19') =>
    stepsDue(all, [of], TODAY, until).map(({ at, day }) => [at, day])
  expect(due([programme()], row())).toEqual([[0, TODAY]])
  expect(due([programme({ followed: false })], row())).toEqual([])
  expect(due([programme()], row([deed('timed-mowing', null, '2026-06-20')]))).toEqual([])
  expect(due([programme()], row([deed('timed-mowing', '2026-06-09')]))).toEqual([[1, '2026-06-14']])
  expect(due([programme()], row([deed('timed-mowing', '2026-06-09')]), '2026-06-13')).toEqual([])
  expect(due([programme({ watchId: 'gone' })], row())).toEqual([])
})
