import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { drawNormal, predictiveBounds, predictiveShare, seededRandom, studentCdf, studentQuantile, type Random } from './index.js'

test('the distribution of Student’s t agrees with tables and with its quantiles', () => {
  expect(studentCdf(0, 3)).toBe(0.5)
  // One degree of freedom is Cauchy's, two are in closed form.
  expect(studentCdf(1, 1)).toBeCloseTo(0.75, 12)
  expect(studentCdf(-2.92, 2)).toBeCloseTo(0.05, 4)
  expect(studentCdf(1.812461, 10)).toBeCloseTo(0.95, 6)
  expect(studentCdf(-40, 7)).toBeGreaterThan(0)
  // Whole degrees of freedom go another way than those that are not: both meet.
  for (const freedom of [1, 2, 3, 7, 8, 30])
    for (const t of [-4, -1.2, -0.3, 0.8, 2.5]) expect(studentCdf(t, freedom)).toBeCloseTo(studentCdf(t, freedom + 1e-9), 9)
  for (const freedom of [3, 4.5, 8, 29])
    for (const p of [0.02, 0.3, 0.9]) expect(studentCdf(studentQuantile(p, freedom), freedom)).toBeCloseTo(p, 4)
  expect(() => studentCdf(NaN, 3)).toThrow('t must')
  expect(() => studentCdf(1, 0)).toThrow('freedom')
})

/** Share of `runs` in which a new season lies within the bounds of the n before it. */
function covered(n: number, figureSd: number, runs: number, draw: (random: Random) => number): number {
  const random = seededRandom(1000 * n + figureSd)
  const strata = Array.from({ length: 12 }, (_, i) => studentQuantile((i + 0.5) / 12, 1e6))
  let inside = 0
  for (let run = 0; run < runs; run++) {
    const seasons = Array.from({ length: n }, () => {
      const date = draw(random)
      return strata.map((z) => date + z * figureSd)
    })
    const { p10, p90 } = predictiveBounds(seasons)
    // The figure of the place is off by an error drawn once; the season is another one.
    const came = draw(random) + drawNormal(random, 0, figureSd)
    if (came >= p10 && came <= p90) inside++
  }
  return inside / runs
}

const RUNS = 1200
const ERROR = 3 * Math.sqrt((0.8 * 0.2) / RUNS)

describe('bounds that say 80 % hold in about 80 % of new seasons', () => {
  test.each([5, 8, 11, 30].flatMap((n) => [0, 6, 12].map((sd) => [n, sd] as const)))(
    'normal seasons, %i of them, the figure off by %i days',
    (n, figureSd) => {
      const share = covered(n, figureSd, RUNS, (random) => drawNormal(random, 160, 6))
      expect(share).toBeGreaterThan(0.77 - ERROR)
      expect(share).toBeLessThan(0.84 + ERROR)
    },
  )

  test.each([5, 8, 11, 30])('skewed seasons, %i of them', (n) => {
    const share = covered(n, 3, RUNS, (random) => 150 + 6 * -Math.log(1 - random()))
    expect(share).toBeGreaterThan(0.75 - ERROR)
    expect(share).toBeLessThan(0.88 + ERROR)
  })

  test('where percentiles of as many dates would hold in far fewer', () => {
    const random = seededRandom(5)
    let inside = 0
    for (let run = 0; run < RUNS; run++) {
      const dates = Array.from({ length: 8 }, () => drawNormal(random, 160, 6)).sort((a, b) => a - b)
      const came = drawNormal(random, 160, 6)
      if (came >= dates[0]! * 0.3 + dates[1]! * 0.7 && came <= dates[6]! * 0.7 + dates[7]! * 0.3) inside++
    }
    expect(inside / RUNS).toBeLessThan(0.72)
  })
})

const dates = fc.array(
  fc.oneof({ weight: 6, arbitrary: fc.double({ min: 0, max: 365, noNaN: true }) }, { weight: 1, arbitrary: fc.constant(Infinity) }),
  {
    minLength: 1,
    maxLength: 14,
  },
)
const seasons = fc.array(dates, { minLength: 1, maxLength: 14 })

describe('whatever the seasons', () => {
  test('bounds come in their order and the probability grows with the day to that of its coming at all', () => {
    fc.assert(
      fc.property(seasons, (all) => {
        const { p10, p50, p90 } = predictiveBounds(all)
        expect(p10 <= p50 && p50 <= p90).toBe(true)
        const shares = [-50, 50, 150, 250, 450].map((day) => predictiveShare(all, day))
        const comes = predictiveShare(all, Infinity)
        shares.forEach((share, i) => expect(share).toBeGreaterThanOrEqual((shares[i - 1] ?? 0) - 1e-12))
        expect(shares.at(-1)!).toBeLessThanOrEqual(comes + 1e-12)
        if (p50 !== Infinity) {
          // Where seasons agree the distribution is a step: half of it lies before, and half after.
          expect(predictiveShare(all, p50 - 0.001)).toBeLessThanOrEqual(0.5 + 1e-4)
          expect(predictiveShare(all, p50 + 0.001)).toBeGreaterThanOrEqual(0.5 - 1e-4)
        } else expect(comes).toBeLessThanOrEqual(0.5 + 1e-9)
      }),
      { numRuns: 200 },
    )
  })

  test('days that are all later by some days move the bounds by as much', () => {
    fc.assert(
      fc.property(seasons, fc.integer({ min: -100, max: 100 }), (all, by) => {
        const [here, there] = [predictiveBounds(all), predictiveBounds(all.map((season) => season.map((date) => date + by)))]
        for (const p of ['p10', 'p50', 'p90'] as const)
          if (here[p] !== Infinity) expect(there[p] - here[p]).toBeCloseTo(by, 3)
          else expect(there[p]).toBe(Infinity)
      }),
      { numRuns: 100 },
    )
  })

  test.each([
    ['none', [], 'seasons must hold at least one season'],
    ['an empty one', [[1], []], 'seasons[1] must hold at least one date'],
    ['a date that is none', [[NaN]], 'seasons[0] must hold finite dates or Infinity, got NaN'],
  ])('%s is refused by name', (_, all, words) => expect(() => predictiveBounds(all)).toThrow(words))
})
