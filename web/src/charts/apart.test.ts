import fc from 'fast-check'
import { expect, test } from 'vitest'
import { apart } from './apart.js'

const place = fc.double({ min: -100, max: 800, noNaN: true })

test('labels keep their gap, their order and the picture, whatever their places are', () => {
  fc.assert(
    fc.property(fc.array(place, { maxLength: 40 }), (places) => {
      const set = apart(places, 17, 10, 600)
      const gap = Math.min(17, 590 / Math.max(1, places.length - 1))
      const sorted = set.toSorted((a, b) => a - b)
      for (let i = 1; i < sorted.length; i++) expect((sorted[i] as number) - (sorted[i - 1] as number)).toBeGreaterThan(gap - 1e-6)
      for (const y of set) {
        expect(y).toBeGreaterThan(10 - 1e-6)
        expect(y).toBeLessThan(600 + 1e-6)
      }
      places.forEach((a, i) => {
        places.forEach((b, j) => {
          if (a < b) expect(set[i] as number).toBeLessThanOrEqual((set[j] as number) + 1e-9)
        })
      })
    }),
  )
})

test('what is apart already stays where it is, and one that touches moves no further than it has to', () => {
  expect(apart([300, 40, 120], 17, 10, 600)).toEqual([300, 40, 120])
  expect(apart([100, 105], 17, 10, 600)).toEqual([100, 117])
  expect(apart([595, 598], 17, 10, 600)).toEqual([583, 600])
  expect(apart([], 17, 10, 600)).toEqual([])
})
