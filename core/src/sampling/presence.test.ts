import { describe, expect, test } from 'vitest'
import { seededRandom } from '../statistics/index.js'
import { countingPlan, countingVerdict, type CountedAgainst } from './countingPlan.js'
import { operatingCharacteristic } from './operatingCharacteristic.js'
import { meanFromShare, per100Of, shareWithAny } from './presence.js'
import { strataOf } from './strata.js'

const MITES: CountedAgainst = { per100: 200, measure: 'presence', itemsPerUnit: 1, suggestedUnits: 30, weights: [1] }

describe('a share of sample units that have any', () => {
  test('and the mean that it means lead to each other', () => {
    for (const k of [0.3, 1, 4, Infinity])
      for (const mean of [0, 0.2, 3]) expect(meanFromShare(shareWithAny(mean, k), k)).toBeCloseTo(mean, 9)
    // The more they sit together, the fewer units have any of as many.
    expect(shareWithAny(2, 0.3)).toBeLessThan(shareWithAny(2, 3))
    expect(() => meanFromShare(1.2, 1)).toThrow('share')
  })

  test('comes to a number per hundred items, and where all have some to a large one', () => {
    expect(per100Of([0, 0, 0], MITES)).toBe(0)
    expect(per100Of([1, 1, 0, 0], { ...MITES, itemsPerUnit: 10 })).toBeCloseTo(10, 9)
    const all = per100Of([1, 1, 1, 1], MITES)
    expect(all).toBeGreaterThan(per100Of([1, 1, 1, 0], MITES))
    expect(Number.isFinite(all)).toBe(true)
  })
})

describe('a plan by presence', () => {
  test('acts where the threshold is reached and leaves where half of it is there, as often as it says', () => {
    const uncapped = { ...MITES, suggestedUnits: 1e6 }
    const [half, full] = operatingCharacteristic(uncapped, [100, 200], 2000, seededRandom(9))!
    const most = 0.1 / 0.9 + 2 * Math.sqrt((0.11 * 0.89) / 2000)
    expect(half!.act).toBeLessThanOrEqual(most)
    expect(full!.stop).toBeLessThanOrEqual(most)
  })

  test('says nothing by curves that need numbers, and treats edge and inside by what their shares mean', () => {
    const clumping = { k: 1, taylor: { a: 1, b: 1.2 }, crowding: { alpha: 0, beta: 2 }, counts: 6 }
    for (const kind of ['crowding', 'precision'] as const) expect(countingPlan({ ...MITES, clumping, choice: { kind } })).toBeNull()
    expect(countingVerdict(countingPlan({ ...MITES, choice: { kind: 'fixed', mostUnits: 20 } })!, 20, 14)).toBe('act')
    const found = [...Array.from({ length: 12 }, () => 1), ...Array.from({ length: 12 }, (_, i) => Number(i === 0))]
    const [edge, inside] = strataOf(
      found,
      [
        { from: 0, edge: true },
        { from: 12, edge: false },
      ],
      MITES,
    )
    expect(edge!.per100).toBeGreaterThan(200)
    expect(inside!.upper).toBeLessThan(200)
    expect(inside!.upper).toBeGreaterThan(inside!.per100)
  })
})
