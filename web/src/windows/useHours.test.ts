import { describe, expect, test } from 'vitest'
import { membersOn, runsOf } from './useHours.js'

const hours = (usable: readonly number[]) => usable.map((count) => ({ usable: count, unknown: 0, blocked: {} }))

describe('hours in a row', () => {
  test('are those that half of the members leave, from now on, with the fewest of any of them', () => {
    expect(runsOf({ hours: hours([6, 6, 0, 3, 4, 6, 2, 6]), members: 6, over: 1 })).toEqual([
      { from: 1, until: 2, usable: 6 },
      { from: 3, until: 6, usable: 3 },
      { from: 7, until: 8, usable: 6 },
    ])
  })

  test('go on over midnight', () => {
    const day = Array.from({ length: 48 }, (_, h) => (h === 23 || h === 24 ? 2 : 0))
    expect(runsOf({ hours: hours(day), members: 2, over: 0 })).toEqual([{ from: 23, until: 25, usable: 2 }])
  })

  test('are none where there is no forecast', () => {
    expect(runsOf({ hours: [], members: 0, over: 0 })).toEqual([])
  })
})

test('a day’s members are those of the board, and not known beyond it', () => {
  const board = { from: '2026-06-12', days: [3, 0, 12], members: 12 }
  expect(['2026-06-11', '2026-06-12', '2026-06-14', '2026-06-15'].map((day) => membersOn(board, day))).toEqual([
    undefined,
    3,
    12,
    undefined,
  ])
  expect(membersOn({ ...board, members: 0 }, '2026-06-12')).toBeUndefined()
})
