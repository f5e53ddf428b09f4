import { describe, expect, test } from 'vitest'
import { drawNormal, drawPoisson, seededRandom } from '../statistics/index.js'
import {
  calibrateFigure,
  calibrationSkill,
  fitCatches,
  flightAt,
  heatAtShare,
  shareReached,
  sustainedCatch,
  type CatchSeason,
} from './index.js'

const PRIOR = { mean: 139, sd: 14 }
const season = (heat: number, datingSd = 4) => ({ heat, datingSd })

describe('calibrating a figure', () => {
  test('worked by hand: one season without dating error moves it by a third', () => {
    const { figure, weight } = calibrateFigure(PRIOR, [season(169, 1e-6)])
    expect(figure.mean).toBeCloseTo(139 + 30 / 3, 6)
    expect(weight).toBeCloseTo(1 / 3, 6)
  })

  test('moves a little with one season and mostly with ten; its error shrinks towards that between years', () => {
    const one = calibrateFigure(PRIOR, [season(169)])
    const ten = calibrateFigure(
      PRIOR,
      Array.from({ length: 10 }, (_, i) => season(169 + (i % 2 ? 6 : -6))),
    )
    expect(one.figure.mean - 139).toBeLessThan(10)
    expect(one.figure.mean - 139).toBeGreaterThan(7)
    expect(ten.figure.mean).toBeGreaterThan(163)
    expect(ten.heatSe).toBeLessThan(one.heatSe)
    expect(ten.heatSe).toBeGreaterThan(ten.yearSd)
    expect(calibrateFigure(PRIOR, []).heatSe).toBeCloseTo(14, 9)
  })

  test('recovers a hidden truth from noisy seasons within its own error', () => {
    const random = seededRandom(5)
    let within = 0
    for (let run = 0; run < 200; run++) {
      const truth = drawNormal(random, 139, 14 * Math.sqrt(1 / 3))
      const seasons = Array.from({ length: 5 }, () => season(drawNormal(random, truth, Math.hypot(14 * Math.sqrt(2 / 3), 4))))
      const { figure } = calibrateFigure(PRIOR, seasons)
      if (Math.abs(figure.mean - truth) < 1.645 * figure.sd) within++
    }
    // 90 % of 200, with three binomial standard errors.
    expect(within / 200).toBeGreaterThan(0.9 - 3 * Math.sqrt((0.9 * 0.1) / 200))
  })

  test('names what is wrong', () => {
    expect(() => calibrateFigure({ mean: 139, sd: 0 }, [])).toThrow(/prior\.sd/)
    expect(() => calibrateFigure(PRIOR, [season(NaN)])).toThrow(/seasons\[0\]\.heat/)
  })
})

describe('skill', () => {
  const cumulative = Float64Array.from({ length: 200 }, (_, i) => (i + 1) * 2)
  const judged = (heat: number) => ({ ...season(heat), day: heat / 2, cumulative, offset: 0 })

  test('judges each season without itself: records that agree beat a library that is off', () => {
    const seasons = [160, 164, 158, 162, 161].map(judged)
    const library = calibrationSkill(PRIOR, seasons, false)!
    const own = calibrationSkill(PRIOR, seasons, true)!
    expect(library.bias).toBeCloseTo((139 - 161) / 2, 6)
    expect(own.error).toBeLessThan(library.error / 2)
    expect(own.seasons).toBe(5)
  })

  test('one season alone has nothing to be judged by but the library', () => {
    const seasons = [judged(160)]
    expect(calibrationSkill(PRIOR, seasons, true)).toEqual(calibrationSkill(PRIOR, seasons, false))
    expect(calibrationSkill(PRIOR, [{ ...judged(160), cumulative: [1, 2] }], true)).toBeUndefined()
  })
})

describe('a flight from catches', () => {
  const random = seededRandom(31)
  /** Catches of a known flight at checks every 15 °C·d, with a patchiness of its own. */
  const flight = (median: number, sd: number, kind: 'normal' | 'lognormal', total: number, rough = 0): CatchSeason => {
    const spread = { kind, median, sd }
    return {
      from: 0,
      checks: Array.from({ length: 24 }, (_, i) => {
        const expected = total * (shareReached(15 * (i + 1), spread) - shareReached(15 * i, spread))
        return { heat: 15 * (i + 1), count: drawPoisson(random, expected * Math.exp(drawNormal(random, 0, rough))) }
      }),
    }
  }

  test.each(['normal', 'lognormal'] as const)('finds the %s median of each season and the spread they share', (kind) => {
    const fit = fitCatches([flight(150, 45, kind, 300), flight(170, 45, kind, 200), flight(140, 45, kind, 250)], kind)!
    expect(Math.abs(fit.seasons[0]!.median - 150)).toBeLessThan(3 * fit.seasons[0]!.se)
    expect(Math.abs(fit.seasons[1]!.median - 170)).toBeLessThan(3 * fit.seasons[1]!.se)
    expect(fit.low).toBeLessThan(45)
    expect(fit.high).toBeGreaterThan(45)
    expect(fit.dispersion).toBeLessThan(1.7)
  })

  test('a flight whose end was not watched is not taken for a short one', () => {
    const whole = flight(150, 45, 'normal', 2000)
    const cut = { from: 0, checks: whole.checks.slice(0, 12) }
    const fit = fitCatches([cut], 'normal')!
    expect(Math.abs(fit.seasons[0]!.median - 150)).toBeLessThan(12)
    expect(Math.abs(fit.sd - 45)).toBeLessThan(8)
  })

  test('rough catches widen the interval', () => {
    const smooth = fitCatches([flight(150, 45, 'normal', 400)], 'normal')!
    const rough = fitCatches([flight(150, 45, 'normal', 400, 1)], 'normal')!
    expect(rough.dispersion).toBeGreaterThan(2 * smooth.dispersion)
    expect(rough.seasons[0]!.se).toBeGreaterThan(smooth.seasons[0]!.se)
  })

  test('says nothing where a season cannot tell, and refuses checks that go backwards', () => {
    expect(fitCatches([{ from: 0, checks: [{ heat: 20, count: 40 }] }], 'normal')).toBeUndefined()
    expect(() => fitCatches([{ from: 50, checks: [{ heat: 20, count: 1 }] }], 'normal')).toThrow(/checks\[0\]\.heat/)
    expect(flightAt(0.03, 'normal', 150, 45)).toBeCloseTo(heatAtShare(0.03, { kind: 'normal', median: 150, sd: 45 }), 9)
  })
})

test('a sustained catch begins in the middle of the interval before its first check; one moth alone is none', () => {
  const checks = [0, 1, 0, 2, 5].map((count, i) => ({ day: 100 + 4 * i, count }))
  expect(sustainedCatch(96, checks)).toEqual({ day: 110, halfInterval: 2, checks: [112, 116] })
  expect(sustainedCatch(96, checks.slice(0, 3))).toBeUndefined()
  expect(sustainedCatch(96, [{ day: 100, count: 3 }], 1)).toEqual({ day: 98, halfInterval: 2, checks: [100] })
})
