import { describe, expect, test } from 'vitest'
import { clumping } from './clumping.js'
import { countingPlan, countingVerdict, countLeans, type CountedAgainst } from './countingPlan.js'

const FRUIT: CountedAgainst = { per100: 2, measure: 'incidence', itemsPerUnit: 20, suggestedUnits: 24, weights: [1, 0, 0] }
const BEETLES: CountedAgainst = { per100: 50, measure: 'density', itemsPerUnit: 1, suggestedUnits: 25, weights: [1] }

describe('a plan', () => {
  test('holds animals against the negative binomial', () => {
    const { actAt, stopAt } = countingPlan(BEETLES)!
    // By hand, k = 1: q = ln(0.5·1.25/(0.25·1.5)), slope = ln(1.5/1.25)/q, h = ln 9/q.
    const q = Math.log((0.5 * 1.25) / (0.25 * 1.5))
    expect(actAt(1) - actAt(0)).toBeCloseTo(Math.log(1.5 / 1.25) / q, 9)
    expect(actAt(0)).toBeCloseTo(Math.log(9) / q, 9)
    expect(stopAt(0)).toBeCloseTo(-Math.log(9) / q, 9)
  })

  test('holds infested items against the binomial, its lines further apart where many hang on one unit', () => {
    const [alone, together] = [countingPlan({ ...FRUIT, itemsPerUnit: 1 })!, countingPlan(FRUIT)!]
    expect(together.actAt(1) - together.actAt(0)).toBeCloseTo(20 * (alone.actAt(1) - alone.actAt(0)), 9)
    expect(together.actAt(0)).toBeCloseTo(1.95 * alone.actAt(0), 9)
    expect(together).toMatchObject({ leastUnits: 10, mostUnits: 48, unitsIfNone: 22 })
  })

  test('is none where the spread is not known, or nothing is to be decided', () => {
    expect(countingPlan({ ...BEETLES, weights: [0.375, 1, 3, 0] })).toBeNull()
    expect(countingPlan({ ...BEETLES, per100: 0 })).toBeNull()
    expect(countingPlan({ ...FRUIT, per100: 100 })).toBeNull()
    expect(() => countingPlan({ ...FRUIT, itemsPerUnit: 0 })).toThrow('itemsPerUnit')
  })
})

describe('a verdict', () => {
  const plan = countingPlan(FRUIT)!
  test('needs ten units, and goes on between the lines until the most is reached', () => {
    expect(countingVerdict(plan, 9, 60)).toBe('too-few')
    expect(countingVerdict(plan, 10, 60)).toBe('act')
    expect(countingVerdict(plan, 20, 5)).toBe('go-on')
    expect(countingVerdict(plan, 21, 0)).toBe('go-on')
    expect(countingVerdict(plan, 22, 0)).toBe('stop')
    expect(countingVerdict(plan, 48, 14)).toBe('undecided')
    expect([countLeans(plan, 48, 13), countLeans(plan, 48, 14)]).toEqual(['stop', 'act'])
    expect(() => countingVerdict(plan, 20, -1)).toThrow('total')
  })

  test('needs five places, where somebody kept from where the sample units are', () => {
    expect([4, 5, null].map((places) => countingVerdict(plan, 10, 60, places))).toEqual(['too-few', 'act', 'act'])
  })
})

describe('a plan of one’s own', () => {
  const told = { k: 2, taylor: { a: 2, b: 1.4 }, crowding: { alpha: 0.2, beta: 1.5 }, counts: 8 }
  test('moves its lines with what it takes as safe and with the risks', () => {
    const at = (choice: object) => countingPlan({ ...BEETLES, choice: { kind: 'sequential', ...choice } })!
    expect(at({ safeShare: 0.8 }).unitsIfNone).toBeGreaterThan(at({}).unitsIfNone)
    expect(at({ missed: 0.01 }).unitsIfNone).toBeGreaterThan(at({ missed: 0.1 }).unitsIfNone)
    expect(at({ needless: 0.01 }).actAt(20)).toBeGreaterThan(at({}).actAt(20))
    expect(at({ leastUnits: 5, leastPlaces: 1, mostUnits: 12 })).toMatchObject({ leastUnits: 5, leastPlaces: 1, mostUnits: 12 })
    expect(() => at({ safeShare: 1 })).toThrow('safeShare')
    // The more they sit together, the more it takes.
    const clumped = countingPlan({ ...BEETLES, clumping: { ...told, k: 0.3 } })!
    expect(clumped.unitsIfNone).toBeGreaterThan(at({}).unitsIfNone)
  })

  test('of a fixed number says nothing before it, and never neither', () => {
    const plan = countingPlan({ ...BEETLES, weights: [0.375, 1], choice: { kind: 'fixed', mostUnits: 20 } })!
    expect([countingVerdict(plan, 19, 99), countingVerdict(plan, 20, 10), countingVerdict(plan, 20, 9.5)]).toEqual([
      'too-few',
      'act',
      'stop',
    ])
  })

  test('by crowding goes on around the threshold, by precision until the mean is known', () => {
    const crowded = countingPlan({ ...BEETLES, clumping: told, choice: { kind: 'crowding' } })!
    // Iwao 1975 by hand: 0.5·25 ± 1.2816·√(25·(1.2·0.5 + 0.5·0.25))
    expect([crowded.actAt(25), crowded.stopAt(25)].map((total) => total.toFixed(3))).toEqual(['17.956', '7.044'])
    const green = countingPlan({ ...BEETLES, clumping: told, choice: { kind: 'precision' } })!
    expect(green.knownAt!(40)).toBeCloseTo(27.58, 2)
    expect([countingVerdict(green, 40, 27), countingVerdict(green, 40, 28), countingVerdict(green, 49, 24.2)]).toEqual([
      'go-on',
      'act',
      'stop',
    ])
    expect(countingVerdict(green, 50, 0)).toBe('undecided')
    for (const kind of ['crowding', 'precision'] as const) expect(countingPlan({ ...BEETLES, choice: { kind } })).toBeNull()
  })
})

describe('how animals sit together', () => {
  test('is told by five counts, and by fewer not at all', () => {
    const counts = [1, 2, 3, 4, 5].map((mean) => [0, 0, 0, 0, 0, 0, 0, 0, mean * 5, mean * 5])
    expect(clumping(counts.slice(1))).toBeNull()
    const told = clumping([...counts, [0, 0, 0, 0, 0]])!
    // All sit on two of ten: s² = 40/9·m², m* = m + 40/9·m − 1.
    expect(told.taylor!.a).toBeCloseTo(40 / 9, 9)
    expect(told.taylor!.b).toBeCloseTo(2, 9)
    expect(told.crowding!.beta).toBeCloseTo(49 / 9, 9)
    expect(told.crowding!.alpha).toBeCloseTo(-1, 9)
    expect(told.counts).toBe(5)
    expect(told.k).toBeLessThan(0.3)
    // As even as can be: no more together than by chance.
    expect(clumping([1, 2, 3, 4, 5].map((mean) => Array.from({ length: 6 }, () => mean)))!.k).toBeNull()
  })
})
