import { expect, test } from 'vitest'
import { hoursAfter, momentOf, wallClockOf } from './moments.js'

const ZONE = 'America/Los_Angeles'

test('a wall-clock time is the moment that the clock of the site showed it', () => {
  expect(momentOf('2026-06-12', '21:20', ZONE)).toBe('2026-06-13T04:20:00Z')
  expect(momentOf('2026-01-12', '7.05', ZONE)).toBe('2026-01-12T15:05:00Z')
  expect(wallClockOf('2026-06-13T04:20:00Z', ZONE)).toEqual({ day: '2026-06-12', time: '21:20' })
})

test('a time that a clock never shows is none, and of one that it shows twice the first is meant', () => {
  expect(momentOf('2026-03-08', '02:30', ZONE)).toBeNull()
  expect(momentOf('2026-11-01', '01:30', ZONE)).toBe('2026-11-01T08:30:00Z')
  for (const time of ['25:00', '12:60', '', 'noon']) expect(momentOf('2026-06-12', time, ZONE), time).toBeNull()
  expect(momentOf(null, '12:00', ZONE)).toBeNull()
})

test('hours are elapsed hours, also over a change of the clock', () => {
  expect(hoursAfter('2026-11-01T08:30:00Z', 1.5)).toBe('2026-11-01T10:00:00Z')
})
