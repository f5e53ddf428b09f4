import { expect, test } from 'vitest'
import { countsEnd, type CountedAgainst } from './counts.js'

const FRUIT: CountedAgainst = { per100: 2, measure: 'incidence', itemsPerUnit: 20, suggestedUnits: 24, weights: [1, 0, 0] }

test('truths around the threshold are simulated, in less than two seconds, and come out the same each time', () => {
  const began = performance.now()
  const ends = countsEnd(FRUIT)
  expect(performance.now() - began).toBeLessThan(2000)
  expect(ends.map(({ per100 }) => per100)).toEqual([0, 1, 1.5, 2, 3, 4])
  expect(ends.at(-1)!.act).toBeGreaterThan(0.9)
  expect(countsEnd(FRUIT)).toEqual(ends)
})

test('no more is tried than all items of a hundred, and nothing without lines', () => {
  expect(countsEnd({ ...FRUIT, per100: 60, itemsPerUnit: 5 }).map(({ per100 }) => per100)).toEqual([0, 30, 45, 60, 90])
  expect(countsEnd({ ...FRUIT, weights: [0.3] })).toEqual([])
})
