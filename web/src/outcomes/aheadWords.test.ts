import { expect, test } from 'vitest'
import type { Format } from '../design/useFormat.js'
import type { Say } from '../messages/useText.js'
import type { WayAhead } from '../workers/weeds.js'
import { aheadSays } from './aheadWords.js'

const t = ((id: string, values: Record<string, unknown> = {}) => `${id} ${Object.values(values).join(' ')}`.trim()) as Say
const f = { number: (value: number) => String(Math.round(value * 10) / 10), percent: (share: number) => `${100 * share}%` } as Format
const ahead = (change: object = {}) => ({
  plants: [{ p10: 1, p50: 4, p90: 9 }],
  next: { plants: { low: 1.4, high: 8.2 }, rate: { low: 0.4, high: 0.9 } },
  yearsToFew: { p10: 2, p50: 3, p90: null },
  gone: 0.4,
  taken: 120,
  takenFirst: 60,
  bankAliveYears: 6,
  ...change,
})
const way = (id: string, change: object = {}, missed: object | null = null) =>
  ({ way: id, ahead: ahead(change), missed: missed && ahead(missed) }) as unknown as WayAhead
const says = (one: WayAhead, change: object = {}) =>
  aheadSays(
    {
      one,
      all: [way('none', { plants: [{ p10: 1, p50: 50, p90: 90 }] }), one],
      arrivals: 0,
      minutes: 0.5,
      hourly: null,
      plantsPerBag: null,
      ...change,
    },
    t,
    f,
  )

test('a way says when few are left, with what odds nothing is, how long the soil lives, and the hours', () => {
  expect(says(way('two')).sentences).toEqual([
    'ahead.few 3 2 ahead.later',
    'ahead.next 1 9',
    'ahead.gone 1 40%',
    'ahead.bank 6',
    'ahead.work 120 60 1 0.5',
  ])
  expect(says(way('two', { yearsToFew: { p10: 9, p50: null, p90: null }, bankAliveYears: null })).sentences.slice(0, 4)).toEqual([
    'ahead.notFew 1',
    'ahead.next 1 9',
    'ahead.gone 1 40%',
    'ahead.bankLong',
  ])
})

test('where it comes from elsewhere nothing is said to be gone; where nothing is done nothing is to take', () => {
  expect(says(way('two'), { arrivals: 20 }).sentences).toEqual([
    'ahead.few 3 2 ahead.later',
    'ahead.next 1 9',
    'ahead.watch',
    'ahead.work 120 60 1 0.5',
  ])
  expect(says(way('none')).sentences).not.toContain('ahead.work 120 60 1 0.5')
})

test('bags and money are told where somebody filled a bag and said what an hour costs', () => {
  // 120 plants at half a minute each are an hour, 40 of them fill a bag.
  expect(says(way('two'), { hourly: 30, plantsPerBag: 50 }).sentences.slice(-2)).toEqual(['ahead.bags 3 2', 'ahead.money 30 15'])
  expect(says(way('none'), { hourly: 30, plantsPerBag: 50 }).sentences.join()).not.toContain('ahead.money')
})

test('a missed season is told by what it costs, and work that leaves more than none is warned of', () => {
  expect(says(way('two', {}, { taken: 200, yearsToFew: { p10: 3, p50: 5, p90: 8 } })).sentences.at(-1)).toBe('ahead.missed 80 2')
  expect(says(way('one', { plants: [{ p10: 20, p50: 70, p90: 99 }] })).caution).toBe('ahead.half')
  expect(says(way('two')).caution).toBeNull()
})
