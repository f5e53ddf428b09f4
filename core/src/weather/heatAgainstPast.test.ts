import { describe, expect, test } from 'vitest'
import { dailyFromHours, compareMethods, daysAheadOfPast, pastSums, seasonSum, type PlaceWeather } from './index.js'
import { dayNumber } from '../time/index.js'
import type { HeatRule } from '../heat/rule.js'

const FIRST = dayNumber('2021-01-01')
const SEASON = dayNumber('2026-01-01')
const START = dayNumber('2026-03-01')
const TODAY = dayNumber('2026-06-12')

/** Hours of invented years; `earlier` moves the season of a year forward by days. */
function weather(earlier: (year: number) => number = () => 0): PlaceWeather {
  const values = Float64Array.from({ length: (TODAY - FIRST) * 24 }, (_, h) => {
    const day = FIRST + Math.floor(h / 24)
    const shifted = day + earlier(new Date(day * 86_400_000).getUTCFullYear())
    return 11 - 11 * Math.cos((2 * Math.PI * (shifted - 20)) / 365.25) + 7 * Math.cos((2 * Math.PI * ((h % 24) - 15)) / 24)
  })
  const hours = { firstHour: FIRST * 24, values }
  return { hours, days: dailyFromHours({ firstHour: hours.firstHour, tempsC: values }) }
}
const rule: HeatRule = { method: 'single-sine', lower: 10, upper: 31 }

describe('this season against the past ones', () => {
  test('a spring six days early is six days ahead, a late one behind', () => {
    for (const days of [6, -4]) {
      const place = weather((year) => (year === 2026 ? days : 0))
      const now = seasonSum(place, rule, SEASON, START, TODAY)
      const ahead = daysAheadOfPast(now, pastSums(place, rule, SEASON, START))!
      // The heat before the start is not counted, which takes a little of the shift away.
      expect(Math.abs(ahead - days)).toBeLessThanOrEqual(1)
    }
  })

  test('in winter it is told by the last days that brought heat: a day of frost moves no sum', () => {
    for (const days of [6, -4]) {
      const place = weather((year) => (year === 2025 ? days : 0))
      const season = dayNumber('2025-01-01')
      const whole = seasonSum(place, rule, season, dayNumber('2025-03-01'), dayNumber('2026-01-01'))
      const ahead = daysAheadOfPast(whole, pastSums(place, rule, season, dayNumber('2025-03-01')))!
      expect(Math.abs(ahead)).toBeLessThanOrEqual(15)
      expect(Math.abs(ahead - days)).toBeLessThanOrEqual(10)
    }
  })

  test('past seasons are whole from the start to their end', () => {
    const past = pastSums(weather(), rule, SEASON, START)
    expect(past.map(({ cumulative }) => cumulative.length)).toEqual([306, 306, 306, 306, 306])
  })

  test('without heat or past there is nothing to be ahead of', () => {
    const place = weather()
    expect(daysAheadOfPast(seasonSum(place, rule, SEASON, START, START), pastSums(place, rule, SEASON, START))).toBeUndefined()
    expect(daysAheadOfPast(seasonSum(place, rule, SEASON, START, TODAY), [])).toBeUndefined()
  })

  test('a sum ends where the weather does', () => {
    const place = weather()
    expect(seasonSum(place, rule, SEASON, START, TODAY + 40).cumulative).toHaveLength(TODAY - START)
    expect(seasonSum(place, { ...rule, method: 'hourly' }, SEASON, START, TODAY + 40).cumulative).toHaveLength(TODAY - START)
  })
})

describe('methods compared at a heat', () => {
  const rules = (['single-sine', 'average', 'hourly', 'double-sine'] as const).map((method): HeatRule => ({ ...rule, method }))
  const [sine, average, hourly, double] = compareMethods(weather(), rules, SEASON, START, 150)

  test('the first is the reference; on sine-shaped days the hours agree with the sine', () => {
    expect(sine!.laterBy).toBe(0)
    expect(Math.abs(hourly!.laterBy!)).toBeLessThanOrEqual(1)
    expect(Math.abs(double!.laterBy!)).toBeLessThanOrEqual(1)
  })
  test('the average misses warm afternoons of cool days and comes later', () => expect(average!.laterBy).toBeGreaterThanOrEqual(3))
  test('a heat that no season reaches has no day', () => {
    expect(compareMethods(weather(), rules, SEASON, START, 9000)[0]).toEqual({ method: 'single-sine', day: undefined, laterBy: undefined })
  })
})
