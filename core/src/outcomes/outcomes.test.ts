import { describe, expect, test } from 'vitest'
import { drawPoisson, seededRandom } from '../statistics/random.js'
import { compareWithCheck, hendersonTilton, meanWithInterval } from './index.js'

const units = (n: number, mean: number, seed: number): number[] => {
  const random = seededRandom(seed)
  return Array.from({ length: n }, () => drawPoisson(random, mean))
}
const sum = (xs: readonly number[]): number => xs.reduce((a, b) => a + b, 0)

describe('treated against check', () => {
  const input = {
    treatedBefore: units(30, 3, 1),
    treatedAfter: units(30, 0.6, 2),
    checkBefore: units(30, 3, 3),
    checkAfter: units(30, 4, 4),
  }
  const result = compareWithCheck(input, { seed: 5 })

  test('gives the formula’s value, with the interval around it', () => {
    const value = hendersonTilton({
      treatedBefore: sum(input.treatedBefore),
      treatedAfter: sum(input.treatedAfter),
      checkBefore: sum(input.checkBefore),
      checkAfter: sum(input.checkAfter),
    })
    expect(result.hendersonTilton.value).toBeCloseTo(value, 12)
    expect(result.method).toBe('bootstrap')
    expect(result.hendersonTilton.sampling.low).toBeLessThan(value)
    expect(result.hendersonTilton.sampling.high).toBeGreaterThan(value)
  })

  test('the spread between areas widens the interval, and the verdict rests on the wide one', () => {
    expect(result.hendersonTilton.withAreas.low).toBeLessThan(result.hendersonTilton.sampling.low)
    expect(result.verdict).toBe('lower-than-check')
    expect(compareWithCheck(input, { seed: 5, areaSdLog: 3 }).verdict).toBe('not-separable')
  })

  test('units count as means: twice the trees in one count change nothing but the interval', () => {
    const twice = compareWithCheck({ ...input, checkAfter: [...input.checkAfter, ...input.checkAfter] }, { seed: 5 })
    expect(twice.hendersonTilton.value).toBeCloseTo(result.hendersonTilton.value, 12)
  })

  test('the same counts and seed give the same interval', () => expect(compareWithCheck(input, { seed: 5 })).toEqual(result))

  test('the sampling interval covers the truth about as often as it says', () => {
    let covered = 0
    const rounds = 150
    for (let r = 0; r < rounds; r++) {
      const drawn = {
        treatedBefore: units(25, 4, 1000 + r),
        treatedAfter: units(25, 2, 3000 + r),
        checkBefore: units(25, 4, 5000 + r),
        checkAfter: units(25, 5, 7000 + r),
      }
      const { low, high } = compareWithCheck(drawn, { seed: r, areaSdLog: 0 }).hendersonTilton.sampling
      if (low <= 0.6 && 0.6 <= high) covered++
    }
    // 90 %, less three binomial standard errors and what a bootstrap of 25 units falls short.
    expect(covered / rounds).toBeGreaterThan(0.81)
  })
})

describe('small and empty counts', () => {
  test('nothing left in the treated area is adjusted for and said', () => {
    const result = compareWithCheck(
      {
        treatedBefore: units(24, 3, 1),
        treatedAfter: Array<number>(24).fill(0),
        checkBefore: units(24, 3, 3),
        checkAfter: units(24, 3, 4),
      },
      { seed: 1 },
    )
    expect(result.zeroAdjusted).toBe(true)
    expect(result.hendersonTilton.value).toBeGreaterThan(0.9)
    expect(result.hendersonTilton.value).toBeLessThan(1)
    expect(Number.isFinite(result.hendersonTilton.withAreas.low)).toBe(true)
  })
  test.each([2, 19, 20, 24, 200])('nothing left is never certain, with %i units in each count', (n) => {
    const { hendersonTilton, abbott } = compareWithCheck(
      { treatedBefore: units(n, 3, 1), treatedAfter: Array<number>(n).fill(0), checkBefore: units(n, 3, 3), checkAfter: units(n, 3, 4) },
      { seed: 1 },
    )
    for (const { sampling, withAreas } of [hendersonTilton, abbott]) {
      expect(sampling.high - sampling.low).toBeGreaterThan(0.005)
      expect(sampling.low).toBeLessThan(0.995)
      expect(withAreas.high - withAreas.low).toBeGreaterThan(sampling.high - sampling.low)
    }
  })
  test('counts that do not vary have an interval, too', () => {
    const same = {
      treatedBefore: Array<number>(30).fill(4),
      treatedAfter: Array<number>(30).fill(1),
      checkBefore: units(30, 4, 2),
      checkAfter: units(30, 4, 5),
    }
    const { method, hendersonTilton } = compareWithCheck(same, { seed: 1 })
    expect(method).toBe('unvarying')
    expect(hendersonTilton.sampling.high - hendersonTilton.sampling.low).toBeGreaterThan(0.05)
  })
  test.each([1, 5, 19, 20, 100])('nothing found in %i units leaves what may have been missed', (n) => {
    const { mean, low, high } = meanWithInterval(Array<number>(n).fill(0), 1)
    expect([mean, low]).toEqual([0, 0])
    expect(high).toBeCloseTo(2.3026 / n, 3)
    const equal = meanWithInterval(Array<number>(n).fill(3), 1)
    expect(equal.low < 3 && 3 < equal.high).toBe(true)
  })
  test('few units get a t interval, one unit each a Poisson one', () => {
    const few = { treatedBefore: [5, 3, 4, 6], treatedAfter: [1, 0, 2, 1], checkBefore: [4, 4, 5, 3], checkAfter: [6, 5, 4, 6] }
    expect(compareWithCheck(few, { seed: 1 }).method).toBe('few-units')
    const totals = compareWithCheck({ treatedBefore: [18], treatedAfter: [4], checkBefore: [16], checkAfter: [21] }, { seed: 1 })
    expect(totals.method).toBe('totals')
    expect(totals.hendersonTilton.sampling.low).toBeLessThan(totals.hendersonTilton.value)
  })
  test('an empty count is refused by name', () => {
    expect(() => compareWithCheck({ treatedBefore: [], treatedAfter: [1], checkBefore: [1], checkAfter: [1] }, { seed: 1 })).toThrow(
      'input.treatedBefore',
    )
  })
})

test('the interval of a mean narrows with more units and never goes below nothing', () => {
  const many = meanWithInterval(units(60, 2, 9), 1)
  const few = meanWithInterval([0, 0, 5, 1], 1)
  expect(many.high - many.low).toBeLessThan(few.high - few.low)
  expect(few.low).toBe(0)
})
