import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { seededRandom } from '../statistics/index.js'
import { coverage, type CohortQuantile } from '../treatment/coverage.js'
import { bestDays, type BestDaysOf } from './bestDays.js'
import { costOfWaiting } from './waiting.js'

type Cohorts = CohortQuantile[][]

/** Every set of days that is allowed, tried one by one. */
function byHand(cohorts: Cohorts, p: BestDaysOf): { days: number[]; mean: number } {
  const mean = (days: readonly number[]): number =>
    cohorts.reduce(
      (sum, cohort) =>
        sum +
        coverage(
          cohort,
          days.map((day) => ({ day, effect: p.effect, residualDays: p.residualDays, decayPerDay: p.decayPerDay ?? 0 })),
        ),
      0,
    ) / cohorts.length
  let sets: number[][] = [[]]
  let best = { days: [] as number[], mean: 0 }
  for (let size = 1; size <= p.k; size++) {
    sets = sets.flatMap((set) =>
      p.candidates.filter((day) => set.every((before) => day > before && day - before >= p.minInterval)).map((day) => [...set, day]),
    )
    for (const days of sets) {
      const reached = mean(days)
      if (reached > best.mean + 1e-12) best = { days, mean: reached }
    }
  }
  return best
}

const cohort = fc
  .array(fc.record({ enter: fc.integer({ min: 0, max: 30 }), stays: fc.integer({ min: 0, max: 8 }) }), { minLength: 1, maxLength: 8 })
  .map((all) => all.map(({ enter, stays }) => ({ enter, exit: enter + stays })))
const plan = fc.record({
  candidates: fc
    .uniqueArray(fc.integer({ min: 0, max: 40 }), { minLength: 1, maxLength: 9 })
    .map((days) => [...days].sort((a, b) => a - b)),
  k: fc.integer({ min: 1, max: 3 }),
  minInterval: fc.integer({ min: 0, max: 10 }),
  effect: fc.constantFrom(0, 0.3, 0.75, 1),
  residualDays: fc.constantFrom(0, 3, 10),
  decayPerDay: fc.constantFrom(0, 0.2),
})

describe('the best days', () => {
  test('are those that trying every set finds, and reach as much', () => {
    fc.assert(
      fc.property(fc.array(cohort, { minLength: 1, maxLength: 4 }), plan, (cohorts, p) => {
        const [found, tried] = [bestDays(cohorts, p), byHand(cohorts, p)]
        expect(found.mean).toBeCloseTo(tried.mean, 10)
        expect(found.days).toEqual(tried.days)
      }),
      { numRuns: 300 },
    )
  })

  test('of one more treatment never reach less, nor those that must lie farther apart more', () => {
    fc.assert(
      fc.property(fc.array(cohort, { minLength: 1, maxLength: 3 }), plan, (cohorts, p) => {
        const reached = (change: Partial<BestDaysOf>): number => bestDays(cohorts, { ...p, ...change }).mean
        expect(reached({ k: 3 })).toBeGreaterThanOrEqual(reached({ k: 2 }) - 1e-9)
        expect(reached({ k: 2 })).toBeGreaterThanOrEqual(reached({ k: 1 }) - 1e-9)
        expect(reached({ k: 2, minInterval: 12 })).toBeLessThanOrEqual(reached({ k: 2, minInterval: 4 }) + 1e-9)
      }),
      { numRuns: 100 },
    )
  })

  test('of the same reach are fewer, then earlier', () => {
    const whole = [[{ enter: 10, exit: 20 }]]
    const p = { candidates: [9.5, 11.5, 12.5, 30.5], k: 3, minInterval: 1, effect: 1, residualDays: 0 }
    expect(bestDays(whole, p)).toEqual({ days: [11.5], mean: 1 })
    expect(bestDays([[{ enter: 50, exit: 60 }]], p)).toEqual({ days: [], mean: 0 })
    expect(bestDays([[{ enter: 10, exit: 10 }]], p)).toEqual({ days: [], mean: 0 })
  })

  test.each([
    [[], {}, /cohorts must hold at least one/],
    [[[]], {}, /cohort must hold at least one quantile/],
    [[[{ enter: 1, exit: 2 }]], { candidates: [] }, /candidates must hold at least one day/],
    [[[{ enter: 1, exit: 2 }]], { candidates: [3, 2] }, /candidates must be ascending, got 2 after 3/],
    [[[{ enter: 1, exit: 2 }]], { candidates: [NaN] }, /candidates\[0\] must be a finite number/],
    [[[{ enter: 1, exit: 2 }]], { k: 4 }, /k must be 1, 2 or 3, got 4/],
    [[[{ enter: 1, exit: 2 }]], { k: 1.5 }, /k must be 1, 2 or 3/],
    [[[{ enter: 1, exit: 2 }]], { minInterval: -1 }, /minInterval must be at least 0/],
    [[[{ enter: 1, exit: 2 }]], { effect: 1.2 }, /effect must be from 0 to 1/],
    [[[{ enter: 3, exit: 2 }]], {}, /exit must not be before/],
  ] as [Cohorts, Partial<BestDaysOf>, RegExp][])('of %j with %j are refused', (cohorts, change, message) => {
    const p = { candidates: [1, 2], k: 1, minInterval: 1, effect: 0.5, residualDays: 0, ...change }
    expect(() => bestDays(cohorts, p)).toThrow(message)
    expect(() => bestDays(cohorts, p)).toThrow(RangeError)
  })

  test('are found among four months for three treatments over thirteen draws', () => {
    const random = seededRandom(3)
    const cohorts = Array.from({ length: 13 }, () => {
      const late = 20 * random()
      return Array.from({ length: 50 }, (_, q) => ({ enter: late + 30 + q + 5 * random(), exit: late + 40 + q + 8 * random() }))
    })
    const p = { candidates: Array.from({ length: 120 }, (_, d) => d + 0.5), k: 3, minInterval: 7, effect: 0.8, residualDays: 5 }
    const { days, mean } = bestDays(cohorts, p)
    expect(days).toHaveLength(3)
    expect(mean).toBeGreaterThan(bestDays(cohorts, { ...p, k: 2 }).mean)
    // Moved by a day, any of them reaches no more.
    const moved = (i: number, by: number): number =>
      cohorts.reduce(
        (sum, one) =>
          sum +
          coverage(
            one,
            days.map((day, d) => ({ ...p, day: d === i ? day + by : day })),
          ),
        0,
      ) / cohorts.length
    for (const i of [0, 1, 2]) for (const by of [-1, 1]) expect(moved(i, by)).toBeLessThanOrEqual(mean + 1e-12)
  })
})

describe('waiting', () => {
  const action = { effect: 0.8, residualDays: 0 }
  const of = (...cohorts: CohortQuantile[][]) => ({ generation: 'first', cohorts })

  test('costs what has gone out of reach by then, and gains what has come into it', () => {
    const leaving = [
      { enter: 8, exit: 11 },
      { enter: 9, exit: 14 },
    ]
    expect(costOfWaiting(of(leaving), action, 10, [1, 4])).toEqual([
      { days: 1, lost: { p10: 0.4, p50: 0.4, p90: 0.4 } },
      { days: 4, lost: { p10: 0.8, p50: 0.8, p90: 0.8 } },
    ])
    const coming = [{ enter: 11, exit: 20 }]
    expect(costOfWaiting(of(coming), action, 10, [1])[0]!.lost.p50).toBeCloseTo(-0.8, 12)
  })

  test('is told draw by draw: a late season is late on both days', () => {
    const early = [{ enter: 5, exit: 11 }]
    const late = [{ enter: 15, exit: 21 }]
    const [one] = costOfWaiting(of(early, late), action, 10, [1])
    expect(one!.lost).toEqual({
      p10: expect.closeTo(0.08, 12) as number,
      p50: expect.closeTo(0.4, 12) as number,
      p90: expect.closeTo(0.72, 12) as number,
    })
  })
})
