import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { triage, patchWorth, type PatchToTake } from './index.js'

const patch = (id: string, plants: number, minutes: number, more: Partial<PatchToTake> = {}): PatchToTake => ({
  id,
  plants,
  minutes,
  apartM: 5,
  seeds: true,
  ...more,
})
const ids = (all: readonly PatchToTake[]) => all.map(({ id }) => id)

describe('which patches first', () => {
  test('a small outlier comes before a part of the main stand, what seeds before what does not, what is wanted before its like', () => {
    expect(patchWorth(patch('a', 9, 1, { apartM: 200 }))).toBe(2 * patchWorth(patch('b', 9, 1, { apartM: 0 })))
    expect(ids(triage([patch('main', 400, 60), patch('outlier', 9, 20, { apartM: Infinity }), patch('near', 9, 20)], 60).taken)).toEqual([
      'main',
    ])
    expect(ids(triage([patch('main', 36, 60), patch('outlier', 9, 20, { apartM: 300 }), patch('near', 9, 20)], 60).taken)).toEqual([
      'outlier',
      'near',
    ])
    expect(ids(triage([patch('seeds', 9, 20), patch('young', 16, 20, { seeds: false })], 20).taken)).toEqual(['seeds'])
    expect(ids(triage([patch('any', 9, 20), patch('mine', 9, 20, { rank: 1 })], 20).taken)).toEqual(['mine'])
    expect(ids(triage([patch('last', 9, 20, { rank: 3 }), patch('any', 9, 20)], 20).taken)).toEqual(['any'])
    expect(ids(triage([patch('below', 9, 20), patch('upstream', 9, 20, { spreads: true })], 20).taken)).toEqual(['upstream'])
    // What does not seed gets away from nowhere.
    expect(patchWorth(patch('a', 9, 20, { spreads: true, seeds: false }))).toBe(patchWorth(patch('b', 9, 20, { seeds: false })))
  })

  test('what does not fit whole is left, and said', () => {
    const { taken, left, minutes } = triage([patch('a', 50, 100), patch('b', 4, 10)], 30)
    expect([ids(taken), ids(left), minutes]).toEqual([['b'], ['a'], 10])
    expect(triage([], 60)).toEqual({ taken: [], left: [], minutes: 0 })
    expect(() => triage([patch('a', -1, 1)], 5)).toThrow('plants')
  })

  test('is as good as trying every choice of eight patches', () => {
    const any = fc.array(
      fc.record({
        plants: fc.integer({ min: 0, max: 500 }),
        minutes: fc.integer({ min: 1, max: 90 }),
        apartM: fc.integer({ min: 0, max: 300 }),
        seeds: fc.boolean(),
        rank: fc.constantFrom(null, 1, 2, 3),
        spreads: fc.boolean(),
      }),
      { maxLength: 8 },
    )
    fc.assert(
      fc.property(any, fc.integer({ min: 0, max: 240 }), (drawn, minutes) => {
        const patches = drawn.map((one, i) => ({ ...one, id: String(i) }))
        let most = 0
        for (let mask = 0; mask < 2 ** patches.length; mask++) {
          const chosen = patches.filter((_, i) => mask & (1 << i))
          if (chosen.reduce((sum, one) => sum + one.minutes, 0) <= minutes)
            most = Math.max(
              most,
              chosen.reduce((sum, one) => sum + patchWorth(one), 0),
            )
        }
        const found = triage(patches, minutes)
        expect(found.minutes).toBeLessThanOrEqual(minutes)
        expect(found.taken.reduce((sum, one) => sum + patchWorth(one), 0)).toBeCloseTo(most, 9)
        expect(found.taken.length + found.left.length).toBe(patches.length)
      }),
      { numRuns: 300 },
    )
  })
})
