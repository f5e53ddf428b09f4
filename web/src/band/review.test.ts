import type { EventSkill, Outcome, WatchForecast, YearsOf } from '@bocado/contract'
import { expect, test } from 'vitest'
import { againstOtherYears, deedsOf, whatToChange } from './review.js'

const SEASON = '2026-01-01'
const bounds = (p50: number) => ({ p10: p50 - 3, p50, p90: p50 + 3 })
/** 1 June is day 151. */
const row = (change: object = {}): WatchForecast =>
  ({
    watch: { id: 'w', organismId: 'oriental-fruit-moth', blockId: 'b' },
    organismName: 'Oriental fruit moth',
    grade: 'dates',
    windows: [{ generation: 'g1', generationName: 'first', state: 'past', opens: bounds(140), closes: bounds(160) }],
    treatments: [],
    rounds: [{ checkAreaId: null, crossed: true, countedOn: '2026-06-01' }],
    ...change,
  }) as unknown as WatchForecast
const outcome = (change: object = {}): Outcome =>
  ({
    watchId: 'w',
    productName: 'Granule C',
    treatedOn: '2026-06-05',
    treated: { before: {}, after: {} },
    comparison: null,
    coverage: { p10: 0.3, p50: 0.4, p90: 0.5 },
    isEarly: false,
    ...change,
  }) as unknown as Outcome
const changes = (p: Partial<Parameters<typeof whatToChange>[0]>) =>
  whatToChange({ season: SEASON, rows: [], outcomes: [], skill: [], ...p }).map(({ what }) => what)

test('a window that closed over the threshold with nothing done is missed; one treated, open, or never over is not', () => {
  expect(whatToChange({ season: SEASON, rows: [row()], outcomes: [], skill: [] })).toEqual([
    { what: 'window-missed', watchId: 'w', name: 'Oriental fruit moth', generation: 'first', closes: '2026-06-10' },
  ])
  expect(changes({ rows: [row({ treatments: [{ done: { day: '2026-06-03' } }] })] })).toEqual([])
  expect(changes({ rows: [row({ treatments: [{ done: { day: '2026-08-03' } }] })] })).toEqual(['window-missed'])
  expect(changes({ rows: [row({ rounds: [{ checkAreaId: 'c', crossed: true, countedOn: '2026-06-01' }] })] })).toEqual([])
  expect(changes({ rows: [row({ rounds: [{ checkAreaId: null, crossed: true, countedOn: '2026-08-01' }] })] })).toEqual([])
  expect(changes({ rows: [row({ windows: [{ ...row().windows[0], state: 'open' }] })] })).toEqual([])
  expect(changes({ rows: [row({ grade: 'months' })] })).toEqual([])
})

test('deeds that met nothing, that nobody counted, or that had no check are named', () => {
  expect(changes({ outcomes: [outcome({ coverage: { p10: 0, p50: 0, p90: 0.001 } })], rows: [row({ rounds: [] })] })).toEqual([
    'met-nothing',
    'leave-check',
  ])
  expect(changes({ outcomes: [outcome({ treated: { before: {}, after: null } })] })).toEqual(['count-after'])
  const judged = (high: number, more: object = {}) =>
    outcome({ comparison: { hendersonTilton: { value: high - 0.3, withAreas: { low: -1, high } } }, ...more })
  expect(changes({ outcomes: [judged(0.39), judged(0.9), judged(0.2, { isEarly: true })] })).toEqual(['did-nothing'])
})

test('a library that is off here is named with its way, until the block goes by its records', () => {
  const skill = (change: object) =>
    ({
      organismName: 'Codling moth',
      name: 'hatch',
      watchId: 'w',
      ownAccepted: false,
      byLibrary: { bias: -4, forecasts: 3 },
      ...change,
    }) as unknown as EventSkill
  expect(changes({ skill: [skill({})] })).toEqual(['forecast-off'])
  for (const quiet of [
    { ownAccepted: true },
    { byLibrary: { bias: -1, forecasts: 3 } },
    { byLibrary: { bias: -4, forecasts: 1 } },
    { watchId: null },
  ])
    expect(changes({ skill: [skill(quiet)] })).toEqual([])
})

test('a season stands beside the middle of the others', () => {
  const line = (...highs: (number | null)[]) =>
    ({
      years: highs.map((per100, i) => ({ season: `${2023 + i}-01-01`, highest: per100 === null ? null : { per100 } })),
    }) as unknown as YearsOf
  expect(againstOtherYears(line(2, 4, 8, 6), SEASON)).toEqual({ times: 1.5, years: 3 })
  expect(againstOtherYears(line(2, null, 8, null), SEASON)).toBeNull()
  expect(againstOtherYears(line(0, 0, 0, 6), SEASON)).toBeNull()
})

test('deeds come in the order of their hours, with the work from begin to end where nobody measured', () => {
  const done = (startedAt: string, endedAt: string | null, minutes: number | null) => ({
    id: startedAt,
    name: 'soap',
    done: { startedAt, endedAt, minutes, day: startedAt.slice(0, 10), doneByName: 'Tovah Lindqvist', bags: null },
  })
  const deeds = deedsOf([
    row({ treatments: [done('2026-06-09T04:00:00Z', '2026-06-09T05:30:00Z', null), { id: 'planned', done: null }] }),
    row({ treatments: [done('2026-06-01T04:00:00Z', null, 40)] }),
  ])
  expect(deeds.map(({ day, minutes }) => [day, minutes])).toEqual([
    ['2026-06-01', 40],
    ['2026-06-09', 90],
  ])
})
