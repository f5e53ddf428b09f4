import { describe, expect, test } from 'vitest'
import { seededRandom } from '../statistics/index.js'
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

  /** Share of simulated counts that end with each verdict, drawn unit by unit. */
  const ends = (against: CountedAgainst, draw: () => number, runs: number) => {
    const by = countingPlan({ ...against, suggestedUnits: 1e6 })!
    const ended = { act: 0, stop: 0 }
    for (let run = 0; run < runs; run++) {
      let total = 0
      for (let n = 1; ; n++) {
        total += draw()
        const said = countingVerdict(by, n, total)
        if (said === 'act' || said === 'stop') {
          ended[said]++
          break
        }
      }
    }
    return { act: ended.act / runs, stop: ended.stop / runs }
  }
  const RUNS = 3000
  /** Wald's bound on either error, and two standard errors of the simulation. */
  const most = 0.1 / 0.9 + 2 * Math.sqrt((0.11 * 0.89) / RUNS)

  test('of animals that sit together errs no oftener than it says', () => {
    const random = seededRandom(11)
    /** Negative binomial with k = 1: geometric. */
    const draw = (mean: number) => () => Math.floor(Math.log(1 - random()) / Math.log(mean / (1 + mean)))
    expect(ends(BEETLES, draw(0.25), RUNS).act).toBeLessThanOrEqual(most)
    expect(ends(BEETLES, draw(0.5), RUNS).stop).toBeLessThanOrEqual(most)
  })

  test('of fruit that are alike within a tree errs no oftener than it says', () => {
    const random = seededRandom(12)
    /** Beta-binomial by its urn, correlation 0.05 within a unit: each item is like one before it, or drawn anew. */
    const draw = (share: number) => () => {
      const strength = (1 - 0.05) / 0.05
      let hit = 0
      for (let i = 0; i < 20; i++) if (random() < (share * strength + hit) / (strength + i)) hit++
      return hit
    }
    expect(ends(FRUIT, draw(0.01), RUNS).act).toBeLessThanOrEqual(most)
    expect(ends(FRUIT, draw(0.02), RUNS).stop).toBeLessThanOrEqual(most)
  })
})
