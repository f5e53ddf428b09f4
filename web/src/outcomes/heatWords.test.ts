import { expect, test } from 'vitest'
import type { Format } from '../design/useFormat.js'
import type { Say } from '../messages/useText.js'
import { heatSays } from './heatWords.js'

const t = ((id: string, values: Record<string, unknown> = {}) => `${id} ${JSON.stringify(values)}`) as Say
const f = {
  temperature: (c: number) => `${c} °C`,
  shortDate: (day: string) => day,
  heat: (sum: number) => `${sum}`,
  percent: (share: number) => `${Math.round(100 * share)} %`,
} as Format
const past = [2000, 2500, 2400].map((sum, i) => ({ season: `202${i}-01-01`, cumulative: [sum / 2, sum] }))
const says = (current: number[], aheadDays: number | null, isOver: boolean, of = past) =>
  heatSays({ current, past: of, aheadDays }, { base: 10, from: '2025-01-01', isOver }, t, f)

test('a season that runs is told by days, one that is over by its share of the middle one', () => {
  expect(says([900], -4.2, false)).toMatch(/^review\.heat \{.*"days":4,"way":"behind"/)
  // Sixty days of December hold as much heat as half a day of July.
  expect(says([1200, 2328], -60, true)).toMatch(/^review\.heatOver \{.*"share":"3 %","way":"less"/)
  expect(says([1200, 2640], 20, true)).toMatch(/"share":"10 %","way":"more"/)
  expect(says([1200, 2401], 2, true)).toMatch(/"way":"even"/)
})

test('nothing is said of heat that cannot be held against anything', () => {
  expect(says([], 2, true)).toBeNull()
  expect(says([900], null, false)).toBeNull()
  expect(says([900], 2, true, [])).toBeNull()
})
