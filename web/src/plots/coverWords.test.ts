import type { CoverLine } from '@bocado/contract'
import { expect, test } from 'vitest'
import type { Format } from '../design/useFormat.js'
import type { Say } from '../messages/useText.js'
import { coverSays } from './coverWords.js'

const t = ((id: string, values: Record<string, unknown> = {}) => `${id} ${JSON.stringify(values)}`) as Say
const f = {
  number: (value: number, digits = 0) => value.toFixed(digits),
  signed: (value: number, digits: number) => `${value > 0 ? '+' : ''}${value.toFixed(digits)}`,
} as Format
const line = (trend: CoverLine['trend'], plots = 5, worked = true): CoverLine => ({
  placeId: 'p',
  placeName: 'Creek Margin',
  worked,
  of: 'weed',
  id: 'w',
  name: 'Balsam',
  seasons: [{ season: '2026-01-01', mean: 12.4, low: 4.25, high: 20.6, plots }],
  trend,
})

test('a tendency is told with its bounds as far as its plots carry it', () => {
  const falls = coverSays(line({ perYear: -14.6, low: -20.2, high: -9.1, plots: 5 }), t, f)
  expect(falls).toMatch(/^plots\.says \{"name":"Balsam","mean":"12 %".*"low":"4.3 %","high":"21 %"/)
  expect(falls).toMatch(/plots\.tells \{"way":"falls","points":15,"from":"9.1","to":"20.2"\}$/)
  expect(coverSays(line({ perYear: 3, low: 0.4, high: 5.6, plots: 5 }), t, f)).toMatch(/"way":"grows","points":3/)
})

test('where bounds hold nothing as well, no way is told, and of few plots none at all', () => {
  expect(coverSays(line({ perYear: -3, low: -8, high: 2, plots: 5 }), t, f)).toMatch(/plots\.tellsNot \{"from":"-8","to":"\+2"\}$/)
  expect(coverSays(line(null, 2), t, f)).toMatch(/plots\.few/)
})

test('a single plot has no mean of its own, and one that was left alone is named so', () => {
  const one = coverSays(line(null, 1, false), t, f)
  expect(one).toMatch(/^plots\.saysOne /)
  expect(one).toContain('plots.ofLeft')
  expect(one).not.toContain('"mean"')
})
