import type { EventSkill, Way, YearsOf } from '@bocado/contract'
import { expect, test } from 'vitest'
import type { Format } from '../design/useFormat.js'
import type { Say } from '../messages/useText.js'
import { nearest } from './nearest.js'
import { shareWords } from './shareWords.js'
import { waySays } from './WaysPart.js'
import { pickedSays, trendSays } from './yearWords.js'

const t = ((id: string, values: Record<string, unknown> = {}) =>
  `${id}${Object.keys(values).length > 0 ? ` ${JSON.stringify(values)}` : ''}`) as Say
const f = {
  percent: (share: number) => `${Math.round(100 * share)}%`,
  number: (value: number) => String(value),
  weight: (kg: number) => `${kg} kg`,
} as Format

test('an efficacy below 0 is said as more, and far below as times', () => {
  expect(shareWords(0.8, t, f)).toBe('share.fewer {"share":"80%"}')
  expect(shareWords(-0.4, t, f)).toBe('share.more {"share":"40%"}')
  expect(shareWords(-33, t, f)).toBe('share.times {"times":"10"}')
})

test('harm reads from less to more, as what worked reads from less to more effect', () => {
  const way = (verdict: string, value: number, low: number, high: number) =>
    waySays({ deeds: [], evidence: { verdict, deeds: 3, areas: 3, effect: { value, low, high } } } as unknown as Way, t, f)
  expect(way('worked', 0.8, 0.6, 0.9)).toContain('"low":"share.fewer {\\"share\\":\\"60%\\"}"')
  expect(way('worse', -0.8, -1.4, -0.3)).toContain('"low":"share.more {\\"share\\":\\"30%\\"}"')
  expect(waySays({ evidence: null, deeds: [{}, {}] } as unknown as Way, t, f)).toBe('known.notJudged {"count":2}')
})

test('a trend says falling or growing only where its whole interval does', () => {
  const says = (yearly: number, low: number, high: number) =>
    trendSays({ yearly, low, high, years: 4, of: 'plants' } as YearsOf['trend'], t, f).split(' ')[0]
  expect(says(-0.3, -0.5, -0.1)).toBe('years.trend.fewer')
  expect(says(0.3, 0.1, 0.5)).toBe('years.trend.more')
  expect(says(-0.3, -0.7, 0.6)).toBe('years.trend.open')
  expect(trendSays(null, t, f)).toBe('years.trend.none')
})

test('what is spoilt is a share of what was looked at, and nothing where nobody looked', () => {
  const picked = { blockId: 'b', season: '2025-01-01', kg: 900, pieces: 400, spoilt: 12, lookedAt: 400 }
  expect(pickedSays(picked, t, f)).toContain('"spoilt":"3%"')
  expect(pickedSays({ ...picked, lookedAt: 0, spoilt: 0 }, t, f)).toContain('"spoilt":"none"')
})

test('nothing is called nearest by one measure alone, or of two seasons', () => {
  const told = (forecasts: number, error: number) => ({ forecasts, error, bias: 0, inside: null })
  const skill = (own: Partial<EventSkill>) => nearest({ byLibrary: null, byOwn: null, byBloom: null, byCalendar: null, ...own })
  expect(skill({ byLibrary: told(4, 3), byCalendar: told(4, 5) })).toBe('library')
  expect(skill({ byLibrary: told(4, 3), byBloom: { ...told(3, 1), name: 'lilac' } })).toBe('bloom')
  expect(skill({ byLibrary: told(4, 3), byCalendar: told(2, 1) })).toBeNull()
  expect(skill({})).toBeNull()
})
