import type { Site } from '@bocado/contract'
import { expect, test } from 'vitest'
import { withToday } from './todayHere.js'

const site = { today: '2026-06-12', timeZone: 'America/Los_Angeles' } as Site
const at = (moment: string): number => Date.parse(moment)
const today = (readAt: string, now: string): string => withToday(site, at(readAt), at(now)).today

test('the day goes on though no server is heard, by the clock of the site', () => {
  expect(today('2026-06-12T15:00:00Z', '2026-06-12T23:00:00Z')).toBe('2026-06-12')
  // Midnight there is seven in the morning in UTC.
  expect(today('2026-06-12T15:00:00Z', '2026-06-13T06:59:00Z')).toBe('2026-06-12')
  expect(today('2026-06-12T15:00:00Z', '2026-06-13T07:01:00Z')).toBe('2026-06-13')
  expect(today('2026-06-12T15:00:00Z', '2026-07-03T15:00:00Z')).toBe('2026-07-03')
})

test('a clock that was put back, or a site that was never read, changes nothing', () => {
  expect(today('2026-06-12T15:00:00Z', '2026-06-01T15:00:00Z')).toBe('2026-06-12')
  expect(withToday(site, 0, Date.now())).toBe(site)
})
