import type { Schedule, Treatment, WatchForecast } from '@bocado/contract'
import { describe, expect, test } from 'vitest'
import { canMove, conflictsByDay, tasksOf, type Surroundings } from './schedule.js'
import type { Errand } from './walk.js'

const today = '2026-06-12'
const row = (treatments: Partial<Treatment>[]): WatchForecast =>
  ({ watch: { id: 'w', blockId: 'old-apples', season: '2026-01-01' }, treatments, rounds: [], windows: [] }) as unknown as WatchForecast
const deed = (id: string, plannedOn: string, change: object = {}) => ({
  id,
  plannedOn,
  done: null,
  status: 'planned' as const,
  productId: 'virus',
  methodId: null,
  ...change,
})
const count = (id: string, blockId: string, due: string, minutes: number | null): Errand => ({
  id: `count ${id}`,
  kind: 'count',
  blockId,
  due,
  minutes,
})
const schedule: Pick<Schedule, 'jobs' | 'arrangements'> = {
  jobs: [
    {
      id: 'j',
      placeId: 'row-1',
      name: 'Thin the fruit',
      kind: 'crop-work',
      plannedOn: '2026-06-15',
      doneOn: null,
      note: '',
      rowVersion: 1,
    },
  ],
  arrangements: [
    {
      id: 'a',
      task: 'count old-apples',
      personId: 'dario',
      machine: '',
      minutes: null,
      noticeOn: null,
      consentOn: null,
      consentBy: '',
      rowVersion: 1,
    },
  ],
}
const tasks = (rows: WatchForecast[], errands: Errand[] = []) =>
  tasksOf({
    rows,
    errands,
    steps: [],
    schedule,
    blockOf: (id) => (id === 'row-1' ? 'old-apples' : id),
    today,
    from: today,
    until: '2026-06-25',
  })

describe('tasks of a schedule', () => {
  test('what is overdue stands on today, what was done on its day, and what lies further on does not stand', () => {
    const done = { done: { day: '2026-06-12', minutes: 40, label: null }, status: 'done' as const }
    const all = tasks([row([deed('late', '2026-06-01'), deed('far', '2026-07-30'), deed('did', '2026-06-10', done)])])
    expect(all.map(({ key, day, done: isDone }) => `${key} ${day}${isDone ? ' done' : ''}`)).toEqual([
      'deed late 2026-06-12',
      'deed did 2026-06-12 done',
      'job j 2026-06-15',
    ])
    expect(all.map(canMove)).toEqual([true, false, true])
  })

  test('counts of a block on one day are one walk, with the minutes of all that somebody measured', () => {
    const errands = [
      count('a', 'old-apples', '2026-06-10', 20),
      count('b', 'old-apples', today, 15),
      count('c', 'old-apples', '2026-06-14', null),
    ]
    const looks = tasks([], [...errands, count('d', 'young-apples', today, null)]).filter(({ kind }) => kind === 'count')
    expect(
      looks.map(({ id, minutes, errands: all = [], arrangement }) => [id, minutes, all.length, arrangement?.personId ?? null]),
    ).toEqual([
      ['count old-apples 2026-06-12', 35, 2, 'dario'],
      ['count young-apples 2026-06-12', null, 1, null],
      ['count old-apples 2026-06-14', null, 1, 'dario'],
    ])
  })

  test('of each day it is known what a deed would meet there', () => {
    const product = {
      id: 'virus',
      name: 'Granulosis virus D',
      methods: [],
      ways: ['spray'],
      reEntryHours: 30,
      preHarvestDays: 0,
      bees: 'none-stated',
      leastIntervalDays: null,
      notWithin: [],
      licensedOnly: false,
      actionGroup: '',
    }
    const around = {
      products: [product],
      methods: [],
      rules: [],
      flowers: [],
      plantings: [],
      people: [],
      before: [],
      blockOf: (id: string) => id,
    } as unknown as Surroundings
    const all = tasks([row([deed('a', '2026-06-13')])])
    const met = conflictsByDay(all, around, 'deed a', ['2026-06-13', '2026-06-14', '2026-06-15', '2026-06-16'])
    expect([...met].map(([day, found]) => `${day}: ${found.map(({ kind }) => kind).join()}`)).toEqual([
      '2026-06-13: ',
      '2026-06-14: re-entry',
      '2026-06-15: same-day',
      '2026-06-16: ',
    ])
  })
})
