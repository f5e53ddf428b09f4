import { describe, expect, test } from 'vitest'
import { countingPlan, countingVerdict, countLeans, type CountedAgainst } from './countingPlan.js'

const FRUIT: CountedAgainst = { per100: 2, measure: 'incidence', itemsPerUnit: 20, suggestedUnits: 24, weights: [1, 0, 0] }
const BEETLES: CountedAgainst = { per100: 50, measure: 'density', itemsPerUnit: 1, suggestedUnits: 25, weights: [1] }

describe('a plan', () => {
  test('holds animals against the negative binomial', () => {
    const { lines } = countingPlan(BEETLES)!
    // By hand, k = 1: q = ln(0.5·1.25/(0.25·1.5)), slope = ln(1.5/1.25)/q, h = ln 9/q.
    const q = Math.log((0.5 * 1.25) / (0.25 * 1.5))
    expect(lines.slope).toBeCloseTo(Math.log(1.5 / 1.25) / q, 9)
    expect(lines.actIntercept).toBeCloseTo(Math.log(9) / q, 9)
    expect(lines.stopIntercept).toBeCloseTo(-Math.log(9) / q, 9)
  })

  test('holds infested items against the binomial, its lines further apart where many hang on one unit', () => {
    const [alone, together] = [countingPlan({ ...FRUIT, itemsPerUnit: 1 })!, countingPlan(FRUIT)!]
    expect(together.lines.slope).toBeCloseTo(20 * alone.lines.slope, 9)
    expect(together.lines.actIntercept).toBeCloseTo(1.95 * alone.lines.actIntercept, 9)
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
})
