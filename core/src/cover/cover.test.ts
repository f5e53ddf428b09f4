import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { drawNormal, seededRandom } from '../statistics/index.js'
import { COVER_CLASSES, coverTrend, meanCover, oneLookASeason, plantsFor, type CoverClass } from './cover.js'

const names = Object.keys(COVER_CLASSES) as CoverClass[]
/** The class in which somebody puts a cover, in %. */
const classOf = (percent: number): CoverClass => names.find((name) => percent <= COVER_CLASSES[name][1]) ?? 'over-75'

describe('mean cover of plots', () => {
  test('worked by hand: middles 15, 37.5, 3 and 87.5', () => {
    const cover = meanCover(['5-25', '25-50', '1-5', 'over-75'])
    expect(cover?.mean).toBeCloseTo(35.75, 10)
    // s² = 4,184.25 / 3 = 1,394.75; of the classes (400 + 625 + 16 + 625) / 48 = 34.71; t 2.353, four plots.
    expect(cover?.high).toBeCloseTo(35.75 + 2.3534 * Math.sqrt((1394.75 + 34.708) / 4), 1)
    expect(cover?.low).toBe(0)
  })

  test('one plot is its class, and none is nothing', () => {
    expect(meanCover(['5-25'])).toEqual({ mean: 15, low: 5, high: 25, plots: 1 })
    expect(meanCover([])).toBeUndefined()
  })

  test('plots that are all alike still leave open what their class leaves open', () => {
    const cover = meanCover(['25-50', '25-50', '25-50'])
    expect(cover?.low).toBeLessThan(37)
    expect(cover?.high).toBeGreaterThan(38)
  })

  test('stays within the ground, and the mean within the interval', () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...names), { minLength: 1, maxLength: 30 }), (classes) => {
        const { mean, low, high } = meanCover(classes)!
        expect(low).toBeGreaterThanOrEqual(0)
        expect(high).toBeLessThanOrEqual(100)
        expect(low <= mean && mean <= high).toBe(true)
      }),
    )
  })

  test('the interval holds the true mean in nine grounds of ten', () => {
    const random = seededRandom(5)
    let held = 0
    const GROUNDS = 600
    for (let g = 0; g < GROUNDS; g++) {
      const [about, sd] = [20 + 50 * random(), 8 + 10 * random()]
      const draw = (): number => Math.min(100, Math.max(0, about + sd * drawNormal(random)))
      let truth = 0
      for (let i = 0; i < 400; i++) truth += draw() / 400
      const { low, high } = meanCover(Array.from({ length: 8 }, () => classOf(draw())))!
      if (low <= truth && truth <= high) held++
    }
    expect(held / GROUNDS).toBeGreaterThan(0.86)
    expect(held / GROUNDS).toBeLessThan(0.97)
  })
})

describe('cover from year to year', () => {
  const line = (...classes: CoverClass[]) => classes.map((cover, i) => ({ year: 2023 + i, cover }))

  test('worked by hand: two plots lose 11.25 points a year, one 17.25', () => {
    const trend = coverTrend([line('25-50', '5-25', '5-25'), line('25-50', '5-25', '5-25'), line('25-50', '5-25', '1-5')])
    expect(trend?.perYear).toBeCloseTo((-11.25 - 11.25 - 17.25) / 3, 10)
    expect(trend?.low).toBeLessThan(-17)
    expect(trend?.plots).toBe(3)
  })

  test('what differs between plots from the beginning does not blur it', () => {
    const alike = coverTrend([line('25-50', '5-25'), line('25-50', '5-25'), line('25-50', '5-25')])
    expect(alike?.high).toBeCloseTo(alike!.low, 10)
    const apart = coverTrend([line('over-75', '50-75'), line('25-50', '5-25'), line('25-50', '5-25')])
    expect(apart!.high - apart!.low).toBeLessThan(6)
  })

  test('few plots, or plots looked at once, say nothing', () => {
    expect(coverTrend([line('25-50', '5-25'), line('25-50', '5-25')])).toBeUndefined()
    expect(coverTrend([line('25-50', '5-25'), line('25-50', '5-25'), line('5-25')])).toBeUndefined()
    expect(() => coverTrend([[{ year: NaN, cover: 'none' }]])).toThrow('plots[0][0].year must be a finite number')
  })
})

test('of a season the look counts that lies nearest to the usual time of the year', () => {
  const look = (season: number, day: number) => ({ season, day })
  expect(oneLookASeason([look(2024, 160), look(2025, 158), look(2026, 120), look(2026, 164), look(2026, 230)])).toEqual([
    look(2024, 160),
    look(2025, 158),
    look(2026, 164),
  ])
  expect(oneLookASeason([])).toEqual([])
})

test('plants for some ground: a square of a metre at 25 cm takes sixteen, and a rest one more', () => {
  expect(plantsFor(1, 25)).toBe(16)
  expect(plantsFor(1.01, 25)).toBe(17)
  expect(plantsFor(0, 25)).toBe(0)
  expect(() => plantsFor(1, 0)).toThrow('spacingCm must be at least 1')
})
