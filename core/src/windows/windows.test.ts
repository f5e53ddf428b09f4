import { describe, expect, test } from 'vitest'
import type { Reach } from '../phenology/model.js'
import { coverage } from '../treatment/coverage.js'
import {
  contactWindow,
  NEVER,
  POORLY_REACHABLE_BELOW,
  reachableCohort,
  reachHeat,
  windowForecast,
  windowState,
  type WindowForecast,
} from './index.js'

const event = (median: number, sd: number, heatSe = 0) => ({
  generation: 'first',
  id: 'e',
  stage: 's',
  spread: { kind: 'normal', median, sd } as const,
  heatSe,
})
const reach: Reach = { enter: event(100, 20), exit: event(180, 20) }
/** Two degree-days a day: heat h is reached on day h / 2. */
const steady = Float64Array.from({ length: 200 }, (_, i) => 2 * (i + 1))

describe('a cohort on a heat curve', () => {
  test('enters and leaves when its heat is reached, early ones early', () => {
    const cohort = reachableCohort(reachHeat(reach, 9), steady, 0)
    expect(cohort[4]!.enter).toBeCloseTo(50, 6)
    expect(cohort[4]!.exit).toBeCloseTo(90, 6)
    expect(cohort[0]!.enter).toBeLessThan(cohort[8]!.enter)
  })
  test('moves with the uncertainty of its figures', () => {
    const unsure = reachHeat({ enter: event(100, 20, 10), exit: event(180, 20, 10) }, 9)
    expect(reachableCohort(unsure, steady, 1)[4]!.enter).toBeCloseTo(55, 6)
  })
  test('that the season never reaches stays away', () => {
    const cohort = reachableCohort(reachHeat({ enter: event(900, 20), exit: undefined }, 5), steady, 0)
    expect(cohort.every(({ enter, exit }) => enter === NEVER && exit === NEVER)).toBe(true)
    expect(contactWindow(cohort, 200).opens).toBe(Infinity)
  })
})

describe('the window of a contact treatment', () => {
  const cohort = reachableCohort(reachHeat(reach), steady, 0)
  const window = contactWindow(cohort, 200)
  const on = (day: number): number => coverage(cohort, [{ day: day + 0.5, effect: 1, residualDays: 0 }])

  test('lies where coverage is at least four fifths of its best, and no wider', () => {
    expect(window.best).toBeCloseTo(Math.max(...Array.from({ length: 200 }, (_, d) => on(d))), 12)
    for (let d = window.opens; d <= window.closes; d++) expect(on(d)).toBeGreaterThanOrEqual(0.8 * window.best)
    expect(on(window.opens - 1)).toBeLessThan(0.8 * window.best)
    expect(on(window.closes + 1)).toBeLessThan(0.8 * window.best)
  })

  test('spreads its dates over warm and cool years', () => {
    const cool = steady.map((h) => h * 0.8)
    const warm = steady.map((h) => h * 1.25)
    const members = [cool, steady, warm].map((cumulative, i) => ({ pastSeason: i, cumulative }))
    const forecast = windowForecast({ members, scores: [0, 0, 0], seasons: 3, openIndex: 0 }, reachHeat(reach), 200)
    // The mean of a cool, a middle and a warm year.
    expect(Math.abs(forecast.opens.p50 - window.opens)).toBeLessThan(2)
    expect(forecast.opens.p10).toBeLessThan(window.opens)
    expect(forecast.opens.p90).toBeGreaterThan(window.opens)
  })
})

describe('the state of a window', () => {
  const at = (opens: number, closes: number, best = 0.5): WindowForecast => {
    const exactly = (d: number) => ({ p10: d, p50: d, p90: d })
    return { opens: exactly(opens), closes: exactly(closes), bestDay: exactly(opens), best: exactly(best) }
  }
  test.each([
    ['coming', at(170, 180)],
    ['open', at(150, 180)],
    ['closing', at(150, 163)],
    ['past', at(140, 159)],
    ['poorly-reachable', at(150, 180, POORLY_REACHABLE_BELOW - 0.01)],
    ['not-this-season', at(Infinity, Infinity, 0)],
  ] as const)('%s', (state, window) => expect(windowState(window, 160)).toBe(state))
})
