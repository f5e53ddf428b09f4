import type { WatchForecast } from '@bocado/contract'
import { expect, test } from 'vitest'
import { clocksOf } from './groundClocks.js'

test('the clocks of a block are the last of all that was used there, by the labels of those days', () => {
  const done = (day: string, hours: number, days: number) => ({
    done: {
      day,
      reEntryUntil: new Date(Date.parse(`${day}T06:00:00Z`) + hours * 3_600_000).toISOString(),
      label: { preHarvestDays: days },
    },
  })
  const rows = [
    { watch: { blockId: 'vines' }, treatments: [done('2026-06-10', 72, 3), { done: null }] },
    { watch: { blockId: 'vines' }, treatments: [done('2026-06-02', 24, 21)] },
    { watch: { blockId: 'apples' }, treatments: [done('2026-06-12', 4, 0)] },
  ] as unknown as WatchForecast[]
  const now = Date.parse('2026-06-12T14:30:00Z')
  expect(clocksOf(rows, 'vines', now, '2026-06-12')).toEqual({ entry: '2026-06-13T06:00:00.000Z', harvest: '2026-06-23' })
  expect(clocksOf(rows, 'apples', now, '2026-06-12')).toEqual({ entry: null, harvest: null })
})
