import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { betaRate, dailyHeat, degreeDays, hourlyHeat, type HeatMethod, type HeatRule } from './index.js'

const METHODS: readonly HeatMethod[] = ['average', 'clamped-average', 'single-sine', 'double-sine', 'single-triangle', 'double-triangle']
const day = fc
  .tuple(fc.double({ min: -20, max: 45, noNaN: true }), fc.double({ min: 0, max: 30, noNaN: true }))
  .map(([min, range]) => ({ min, max: min + range }))
const rule = fc.record({
  method: fc.constantFrom(...METHODS),
  lower: fc.double({ min: 0, max: 15, noNaN: true }),
  span: fc.double({ min: 1, max: 25, noNaN: true }),
  cutoff: fc.constantFrom('horizontal' as const, 'intermediate' as const, 'vertical' as const),
})
const made = ({
  span,
  ...r
}: {
  method: HeatMethod
  lower: number
  span: number
  cutoff: 'horizontal' | 'intermediate' | 'vertical'
}): HeatRule => ({ ...r, upper: r.lower + span })

describe('heat of a day', () => {
  test('is never negative nor more than the span between the thresholds', () => {
    fc.assert(
      fc.property(day, rule, fc.double({ min: -20, max: 45, noNaN: true }), (d, r, nextMin) => {
        const heat = degreeDays(d, made(r), nextMin)
        expect(heat).toBeGreaterThanOrEqual(-1e-9)
        expect(heat).toBeLessThanOrEqual(r.span + 1e-9)
      }),
    )
  })

  test('falls as the lower threshold rises', () => {
    fc.assert(
      fc.property(
        day,
        fc.constantFrom(...METHODS),
        fc.double({ min: 0, max: 10, noNaN: true }),
        fc.double({ min: 0.1, max: 10, noNaN: true }),
        (d, method, lower, more) => {
          expect(degreeDays(d, { method, lower: lower + more })).toBeLessThanOrEqual(degreeDays(d, { method, lower }) + 1e-9)
        },
      ),
    )
  })

  test('on a sine-shaped day the hours give what the sine gives', () => {
    for (const cutoff of ['horizontal', 'intermediate', 'vertical'] as const) {
      const r: HeatRule = { method: 'single-sine', lower: 9, upper: 24, cutoff }
      const steps = 24 * 400
      const temps = Float64Array.from({ length: steps }, (_, i) => 17 + 11 * Math.sin((2 * Math.PI * (i + 0.5)) / steps))
      const fromHours = hourlyHeat(temps, r).reduce((a, b) => a + b, 0) / 400
      expect(fromHours).toBeCloseTo(degreeDays({ min: 6, max: 28 }, r), 3)
    }
  })

  test('a flat day counts its height above the threshold, whatever the curve', () => {
    for (const method of METHODS) expect(degreeDays({ min: 15, max: 15 }, { method, lower: 10 }), method).toBeCloseTo(5, 12)
  })
})

describe('heat of a series', () => {
  const days = [
    { min: 5, max: 17 },
    { min: 18, max: 26 },
    { min: 6, max: 14 },
  ]

  test('the double methods look at tomorrow, even where it begins warmer than today ends', () => {
    const r: HeatRule = { method: 'double-sine', lower: 10 }
    const heat = dailyHeat(days, r)
    expect(heat[0]).toBeCloseTo(degreeDays(days[0]!, r, 18), 12)
    expect(heat[0]).toBeGreaterThan(degreeDays(days[0]!, r))
    expect(heat[2]).toBeCloseTo(degreeDays(days[2]!, r), 12)
  })

  test('a bad day is named with its value', () => {
    const r: HeatRule = { method: 'average', lower: 10 }
    expect(() => dailyHeat([...days, { min: 4, max: NaN }], r)).toThrow('days[3].max must be a finite number, got NaN')
    expect(() => dailyHeat([{ min: 9, max: 4 }], r)).toThrow('days[0].min must not be above days[0].max, got 9 and 4')
  })
})

test('the beta rate peaks at its optimum and vanishes at both ends', () => {
  const p = { rmax: 0.08, tmin: 5, topt: 27, tmax: 36 }
  expect(betaRate(27, p)).toBeCloseTo(0.08, 12)
  expect(betaRate(5, p)).toBe(0)
  expect(betaRate(36, p)).toBe(0)
  expect(betaRate(20, p)).toBeLessThan(0.08)
})
