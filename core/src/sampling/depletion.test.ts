import { expect, test } from 'vitest'
import { depletion } from './depletion.js'

const sweeps = (takens: readonly number[], minutes = 10) => takens.map((taken) => ({ taken, minutes }))

test('what halves with each sweep of as many minutes was twice the first', () => {
  const found = depletion(sweeps([64, 32, 16, 8]))!
  expect(found.there).toBeCloseTo(128, 9)
  expect(found.left).toBeCloseTo(8, 9)
})

test('a longer sweep is held against its minutes', () => {
  const even = depletion(sweeps([64, 32, 16]))!.there
  expect(
    depletion([
      { taken: 64, minutes: 10 },
      { taken: 32, minutes: 10 },
      { taken: 24, minutes: 20 },
    ])!.there,
  ).not.toBeCloseTo(even, 0)
})

test('nothing is said of two sweeps, nor of a catch that does not fall', () => {
  expect(depletion(sweeps([10, 5]))).toBeNull()
  expect(depletion(sweeps([10, 11, 12]))).toBeNull()
  expect(depletion(sweeps([0, 0, 0]))).toBeNull()
  expect(() => depletion([{ taken: 1, minutes: 0 }])).toThrow('minutes')
})
