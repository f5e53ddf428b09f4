import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { shareReached } from '../phenology/index.js'
import { seasonWeather, type DailySeries } from '../weather/index.js'
import { dayNumber } from '../time/index.js'
import { emergedShare, emergenceCurves, emergenceTime, flushes, waterPotential } from './index.js'

describe('water potential', () => {
  test('runs from wilting point to field capacity in every texture, and rises with water', () => {
    for (const texture of ['sand', 'loam', 'clay'] as const) {
      expect(waterPotential(0, texture)).toBeCloseTo(-1.5, 6)
      expect(waterPotential(1, texture)).toBeCloseTo(-0.033, 6)
    }
    fc.assert(
      fc.property(fc.double({ min: 0, max: 0.98, noNaN: true }), (fill) => {
        expect(waterPotential(fill, 'loam')).toBeLessThan(waterPotential(fill + 0.02, 'loam'))
      }),
    )
    expect(() => waterPotential(1.2, 'loam')).toThrow('fill')
  })
})

describe('what a day adds', () => {
  const base = { base: 5, optimum: 25 }
  test('warmth above the base, up to the optimum', () => {
    expect(emergenceTime(15, NaN, { kind: 'thermal', ...base })).toBe(10)
    expect(emergenceTime(33, NaN, { kind: 'thermal', ...base })).toBe(20)
    expect(emergenceTime(3, NaN, { kind: 'thermal', ...base })).toBe(0)
  })
  test('only with water above the base where the clock asks for it', () => {
    const threshold = { kind: 'hydrothermal-threshold', ...base, waterBase: -0.75 } as const
    expect([emergenceTime(15, -0.7, threshold), emergenceTime(15, -0.8, threshold)]).toEqual([10, 0])
    expect(emergenceTime(15, -0.25, { ...threshold, kind: 'hydrothermal-product' })).toBeCloseTo(5)
    expect(emergenceTime(15, NaN, threshold)).toBe(0)
    expect(() => emergenceTime(15, 0, { kind: 'thermal', base: 25, optimum: 5 })).toThrow('clock.base')
  })
})

describe('emergence over a season', () => {
  const firstDay = dayNumber('2026-01-01')
  const series = (length: number): DailySeries => ({
    firstDay: dayNumber('2020-01-01'),
    min: new Float64Array(length).fill(10),
    max: new Float64Array(length).fill(20),
    filled: new Float64Array(length),
  })
  const days = firstDay - dayNumber('2020-01-01')
  const bed = { texture: 'loam', cover: 'bare', latitude: 46 } as const
  const weatherOf = (rainPerDay: number) => {
    const known = series(days + 162)
    const rain = new Map(Array.from({ length: days + 400 }, (_, i) => [known.firstDay + i, rainPerDay]))
    return seasonWeather({ series: known, rain, firstDay, today: firstDay + 162 })
  }

  test('is the soil’s warmth summed per member, from its start on', () => {
    const curves = emergenceCurves(weatherOf(0), { kind: 'thermal', base: 5, optimum: 30 }, firstDay + 59, bed)
    expect(curves).toHaveLength(12 * 6)
    expect(curves[6]).toBe(curves[0])
    expect(curves[0]![58]).toBe(0)
    expect(curves[0]![59]).toBeCloseTo(10)
    expect(curves[3]![364]).toBeCloseTo(10 * (365 - 59))
  })

  test('stands still in dry soil and runs in wet one', () => {
    const clock = { kind: 'hydrothermal-threshold', base: 5, optimum: 30, waterBase: -0.5 } as const
    const dry = emergenceCurves(weatherOf(0), clock, firstDay + 59, bed)[0]!
    const wet = emergenceCurves(weatherOf(6), clock, firstDay + 59, bed)[0]!
    expect(dry[200]).toBe(0)
    expect(wet[200]).toBeCloseTo(10 * (201 - 59))
    const emerged = (time: number): number => shareReached(time, { kind: 'weibull', onset: 50, median: 200, shape: 2 })
    expect(emerged(dry[200]!)).toBe(0)
    expect(emerged(wet[200]!)).toBeGreaterThan(0.99)
  })

  test('needs weather', () => {
    const none = seasonWeather({
      series: { ...series(0), min: new Float64Array(), max: new Float64Array() },
      firstDay,
      today: firstDay + 162,
    })
    expect(emergenceCurves(none, { kind: 'thermal', base: 5, optimum: 30 }, firstDay, bed)).toEqual([])
  })
})

test('a curve that has enough stays there, and is the same until then', () => {
  const length = dayNumber('2026-12-31') - dayNumber('2019-08-01') + 1
  const series: DailySeries = {
    firstDay: dayNumber('2019-08-01'),
    min: new Float64Array(length).fill(6),
    max: new Float64Array(length).fill(16),
    filled: new Float64Array(length),
  }
  const weather = seasonWeather({ series, firstDay: dayNumber('2026-01-01'), today: dayNumber('2026-03-01') })
  const clock = { kind: 'thermal', base: 3, optimum: 25 } as const
  const bed = { texture: 'loam', cover: 'bare', latitude: 46 } as const
  const [whole] = emergenceCurves(weather, clock, weather.firstDay, bed)
  const [short] = emergenceCurves(weather, clock, weather.firstDay, bed, 700)
  const reached = whole!.findIndex((time) => time >= 700)
  expect(reached).toBeGreaterThan(60)
  expect(short!.slice(0, reached + 1)).toEqual(whole!.slice(0, reached + 1))
  expect(short!.at(-1)).toBe(short![reached])
})

describe('a flush of seedlings', () => {
  const model = { clock: { kind: 'thermal', base: 4, optimum: 25 }, onset: 40, median: 100, shape: 2, medianSe: 10 } as const
  const steady = Float64Array.from({ length: 60 }, (_, day) => 5 * (day + 1))

  test('is half up at its median, not before its onset, and later by its error where a member says so', () => {
    const past = { seasons: 1, openIndex: 60 }
    const sure = emergedShare(model, [steady, steady, steady], { ...past, scores: [0, 0, 0] })
    expect(sure[19]!.p50).toBeCloseTo(0.5, 9)
    expect(sure[7]!.p90).toBe(0)
    const unsure = emergedShare(model, [steady, steady, steady], { ...past, scores: [-1, 0, 1] })
    expect(unsure[19]!.p10).toBeLessThan(sure[19]!.p50)
    expect(unsure[19]!.p90).toBeGreaterThan(sure[19]!.p50)
  })

  test('has its days found, through short pauses, and what is too small left out', () => {
    const wet = [0, 0.1, 0.25, 0.25, 0.25, 0.4, 0.5, 0.5, 0.5, 0.5, 0.5, 0.5, 0.52, 0.52, 0.52, 0.52, 0.52, 0.7]
    const found = flushes(wet)
    expect(found.map(({ from, until }) => [from, until])).toEqual([
      [1, 7],
      [17, 18],
    ])
    expect(found[0]!.share).toBeCloseTo(0.5, 9)
    expect(found[1]!.share).toBeCloseTo(0.18, 9)
  })
})
