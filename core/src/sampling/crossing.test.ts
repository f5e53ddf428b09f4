import { describe, expect, test } from 'vitest'
import { crossing } from './crossing.js'

const counts = (per100s: readonly number[], days: readonly number[] = [0, 7, 14, 21]) =>
  per100s.map((per100, i) => ({ day: 100 + days[i]!, per100, onePer100: 0.5 }))

describe('the day on which a threshold is reached', () => {
  test('lies where exact growth leads to, without any width', () => {
    // It doubles in a week and has two more doublings to go.
    const reached = crossing(counts([1, 2, 4, 8]), 32)!
    expect(reached.doublingDays).toBeCloseTo(7, 9)
    for (const day of [reached.p10, reached.p50, reached.p90!]) expect(day).toBeCloseTo(14, 6)
  })

  test('has bounds that widen with the scatter of the counts', () => {
    const [even, odd] = [crossing(counts([1, 2.1, 3.8, 8]), 32)!, crossing(counts([1, 3, 3, 8]), 32)!]
    expect(odd.p50 - odd.p10).toBeGreaterThan(even.p50 - even.p10)
    expect(odd.p10).toBeLessThan(odd.p50)
    // Of three counts that say little, the late bound is not known.
    expect(crossing(counts([1, 6, 4]), 9)?.p90 ?? null).toBeNull()
  })

  test('takes half a find for nothing', () => {
    expect(crossing(counts([0, 0.5, 1, 2]), 16)!.doublingDays).toBeCloseTo(7, 9)
  })

  test.each([
    ['of two counts', counts([1, 2]), 8],
    ['of counts within a week', counts([1, 2, 4], [0, 2, 4]), 8],
    ['where it is over already', counts([1, 4, 9]), 8],
    ['where it falls', counts([9, 6, 4]), 20],
    ['where it takes longer than four weeks', counts([1, 1.05, 1.1, 1.15]), 50],
  ])('is not told %s', (_, all, per100) => expect(crossing(all, per100)).toBeNull())

  test('needs a threshold', () => expect(() => crossing(counts([1, 2, 4]), 0)).toThrow('per100'))
})
