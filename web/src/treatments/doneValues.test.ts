import { expect, test } from 'vitest'
import { doneInput, endOf, isAboveLabel, NO_WEATHER, NOTHING_MORE, saysWhy, takenOf } from './doneValues.js'

const ZONE = 'America/Los_Angeles'

test('what ends after midnight ends on the day after it was begun', () => {
  expect(endOf('2026-06-14', '22:05', '22:50', ZONE)).toBe('2026-06-15T05:50:00Z')
  expect(endOf('2026-06-14', '22:05', '0:40', ZONE)).toBe('2026-06-15T07:40:00Z')
  expect(endOf('2026-06-14', '', '22:50', ZONE)).toBeNull()
})

test('an end that is no time is refused by its field, and none at all is none', () => {
  const typed = {
    day: '2026-06-14',
    time: '22:05',
    rate: 0.1,
    areaHa: 1,
    keptClearM: null,
    minutes: null,
    doneById: null,
    ...takenOf(null),
    weather: NO_WEATHER,
    ...NOTHING_MORE,
    note: '',
  }
  expect(doneInput(typed, ZONE)).toMatchObject({ startedAt: '2026-06-15T05:05:00Z', endedAt: null, taken: null })
  expect(doneInput({ ...typed, endTime: 'late' }, ZONE).endedAt).toBeUndefined()
  expect(doneInput({ ...typed, taken: 3, takenUnit: 'bags' }, ZONE).taken).toEqual({ amount: 3, unit: 'bags' })
})

test('a rate is above that of the label here, and a word to it is more than a dot', () => {
  const label = { labelRate: 0.2 } as never
  expect(isAboveLabel({ rate: 0.15 }, label, 0.1)).toBe(true)
  expect(isAboveLabel({ rate: 0.15 }, label, null)).toBe(false)
  expect(isAboveLabel({ rate: null }, label, 0.1)).toBe(false)
  expect(isAboveLabel({ rate: 9 }, null, null)).toBe(false)
  expect([' . ', 'the jug was misread'].map((departureReason) => saysWhy({ departureReason }))).toEqual([false, true])
})
