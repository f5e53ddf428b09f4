import { describe, expect, test } from 'vitest'
import { seededRandom } from '../statistics/index.js'
import { clumping } from './clumping.js'
import type { CountedAgainst } from './countingPlan.js'
import { drawFinds, operatingCharacteristic } from './operatingCharacteristic.js'

const FRUIT: CountedAgainst = { per100: 2, measure: 'incidence', itemsPerUnit: 20, suggestedUnits: 24, weights: [1, 0, 0] }
const BEETLES: CountedAgainst = { per100: 50, measure: 'density', itemsPerUnit: 1, suggestedUnits: 25, weights: [1] }
const ROUNDS = 3000
/** Wald's bound on either error, and two standard errors of the simulation. */
const MOST = 0.1 / 0.9 + 2 * Math.sqrt((0.11 * 0.89) / ROUNDS)
const uncapped = (against: CountedAgainst): CountedAgainst => ({ ...against, suggestedUnits: 1e6 })
const ends = (against: CountedAgainst, per100: number, seed = 3) =>
  operatingCharacteristic(against, [per100], ROUNDS, seededRandom(seed))![0]!

describe('a plan that is never cut off', () => {
  test.each([
    ['animals that sit together', BEETLES],
    ['fruit that are alike within a tree', FRUIT],
  ])('of %s errs no oftener than it says', (_, against) => {
    expect(ends(uncapped(against), against.per100 / 2).act).toBeLessThanOrEqual(MOST)
    expect(ends(uncapped(against), against.per100).stop).toBeLessThanOrEqual(MOST)
    expect(ends(uncapped(against), against.per100).undecided).toBe(0)
  })
})

describe('where it is cut off', () => {
  test('what stays between the lines is undecided, most of all between safe and the threshold', () => {
    const truths = [0, 1, 1.5, 2, 4]
    const all = operatingCharacteristic(FRUIT, truths, 1000, seededRandom(4))!
    expect(all.map(({ per100 }) => per100)).toEqual(truths)
    for (const { act, stop, undecided, units } of all) {
      expect(act + stop + undecided).toBeCloseTo(1, 9)
      expect(units).toBeGreaterThanOrEqual(10)
      expect(units).toBeLessThanOrEqual(48)
    }
    const most = all.toSorted((a, b) => b.undecided - a.undecided)[0]!
    expect([1, 1.5, 2]).toContain(most.per100)
    // The more there is, the oftener one acts; with nothing there one never does, and stops as soon as one may.
    expect(all.map(({ act }) => act)).toEqual(all.map(({ act }) => act).toSorted((a, b) => a - b))
    expect(all[0]).toMatchObject({ act: 0, stop: 1, units: 22 })
  })
})

test('what is drawn has the mean that was asked for, and clumps as it was taken to', () => {
  const random = seededRandom(6)
  const moments = (against: CountedAgainst, per100: number) => {
    const drawn = Array.from({ length: 40_000 }, () => drawFinds(against, per100, random))
    const mean = drawn.reduce((a, b) => a + b, 0) / drawn.length
    return { mean, variance: drawn.reduce((sum, n) => sum + (n - mean) ** 2, 0) / drawn.length }
  }
  const beetles = moments(BEETLES, 50)
  expect(beetles.mean).toBeCloseTo(0.5, 1)
  expect(beetles.variance).toBeCloseTo(0.5 + 0.5 ** 2, 1)
  const fruit = moments(FRUIT, 10)
  expect(fruit.mean).toBeCloseTo(2, 1)
  // n·p·(1 − p)·(1 + (n − 1)·0.05)
  expect(fruit.variance / (20 * 0.1 * 0.9 * 1.95)).toBeCloseTo(1, 1)
  expect(moments(BEETLES, 0)).toEqual({ mean: 0, variance: 0 })
  expect(() => drawFinds(FRUIT, 120, random)).toThrow('per100')
})

test('without a plan there is nothing to simulate', () => {
  expect(operatingCharacteristic({ ...BEETLES, weights: [0.5] }, [1], 10, seededRandom(1))).toBeNull()
  expect(() => operatingCharacteristic(BEETLES, [-1], 10, seededRandom(1))).toThrow('per100')
})

test('counts that were drawn with a k give it back', () => {
  const random = seededRandom(8)
  const drawn = (k: number) => {
    const against = { ...BEETLES, clumping: { k, taylor: null, crowding: null, counts: 9 } }
    return [20, 50, 100, 200, 300, 400].map((per100) => Array.from({ length: 600 }, () => drawFinds(against, per100, random)))
  }
  for (const k of [0.4, 2]) expect(clumping(drawn(k))!.k! / k).toBeCloseTo(1, 0)
})

test('a plan by crowding errs about as often as it says where it is not cut off, though it is looked at after every unit', () => {
  const clumped = { k: 1, taylor: { a: 1.5, b: 1.3 }, crowding: { alpha: 0, beta: 2 }, counts: 9 }
  const against: CountedAgainst = { ...BEETLES, clumping: clumped, choice: { kind: 'crowding' } }
  expect(ends(against, 20).stop).toBeGreaterThan(0.9)
  expect(ends(against, 120).act).toBeGreaterThan(0.9)
  // By precision every count ends known or undecided, and the more there is the sooner.
  const precise: CountedAgainst = { ...BEETLES, per100: 100, suggestedUnits: 200, clumping: clumped, choice: { kind: 'precision' } }
  expect(ends(precise, 400).units).toBeLessThan(ends(precise, 100).units)
})

test('where animals sit by chance alone the plan is narrower, and can be simulated as well', () => {
  const scattered: CountedAgainst = { ...BEETLES, clumping: { k: null, taylor: null, crowding: null, counts: 9 } }
  const random = seededRandom(2)
  const drawn = Array.from({ length: 20_000 }, () => drawFinds(scattered, 50, random))
  const mean = drawn.reduce((a, b) => a + b, 0) / drawn.length
  expect(drawn.reduce((sum, n) => sum + (n - mean) ** 2, 0) / drawn.length / mean).toBeCloseTo(1, 1)
  expect(ends(scattered, 50).units).toBeLessThan(ends(BEETLES, 50).units)
})
