import { describe, expect, test } from 'vitest'
import { dayNumber } from '../time/index.js'
import { unseenDays, unseenExtremes } from './unseenDays.js'

const FIRST = dayNumber('2016-01-01')
const LAST = dayNumber('2026-06-12')

/** Ten years of a place with cold winters and warm summers, its days swinging by 12 °C, with weather of ±6 °C. */
function tenYears(changed: (day: number, c: number) => number = (_, c) => c) {
  const values = new Float64Array((LAST - FIRST) * 24)
  for (let h = 0; h < values.length; h++) {
    const day = FIRST + Math.floor(h / 24)
    const weather = 6 * Math.sin(day * 1.7) * Math.sin(day / 9)
    const c = 10 - 13 * Math.cos(((day - FIRST) / 365.25) * 2 * Math.PI) - 6 * Math.cos(((h % 24) / 24) * 2 * Math.PI) + weather
    values[h] = changed(day, c)
  }
  return { firstHour: FIRST * 24, values }
}
const inMonth = (day: number, month: string): boolean => new Date(day * 86_400_000).toISOString().startsWith(month)

describe('days that the place has never had', () => {
  test('are none in its own weather', () => expect(unseenDays(tenYears())).toEqual([]))

  test('are those of a January that was read in the wrong unit, and no others', () => {
    const january = tenYears((day, c) => (inMonth(day, '2024-01') ? c * 1.8 + 32 : c))
    const found = unseenDays(january)
    expect(found.length).toBeGreaterThan(25)
    expect(found.every((day) => inMonth(day, '2024-01'))).toBe(true)
  })

  test('are told also where four of ten Januaries are wrong', () => {
    const wrong = ['2018-01', '2020-01', '2022-01', '2024-01']
    const found = unseenDays(tenYears((day, c) => (wrong.some((month) => inMonth(day, month)) ? c * 1.8 + 32 : c)))
    expect(new Set(found.map((day) => new Date(day * 86_400_000).toISOString().slice(0, 7)))).toEqual(new Set(wrong))
  })

  test('are found by extremes alone as well, and a day that is not known is none', () => {
    const { values } = tenYears((day, c) => (inMonth(day, '2024-01') ? c * 1.8 + 32 : c))
    const extremesBy = (pick: (...hours: number[]) => number) =>
      Float64Array.from({ length: LAST - FIRST }, (_, d) => pick(...values.subarray(d * 24, d * 24 + 24)))
    const [min, max] = [extremesBy(Math.min), extremesBy(Math.max)]
    const whole = unseenExtremes({ firstDay: FIRST, min, max })
    expect(whole).toEqual(unseenDays({ firstHour: FIRST * 24, values }))
    const gone = whole[3]!
    for (const one of [min, max]) one[gone - FIRST] = NaN
    expect(unseenExtremes({ firstDay: FIRST, min, max })).toEqual(whole.filter((day) => day !== gone))
  })

  test('are colder ones too', () => {
    const frozen = dayNumber('2025-07-04')
    expect(unseenDays(tenYears((day, c) => (day === frozen ? c - 35 : c)))).toEqual([frozen])
  })

  test('are none while the place is little known, nor before the day that is asked for', () => {
    const { firstHour, values } = tenYears((day, c) => (inMonth(day, '2019-01') ? c * 1.8 + 32 : c))
    expect(unseenDays({ firstHour, values: values.slice(0, 24 * 365 * 4) })).toEqual([])
    expect(unseenDays({ firstHour, values }, dayNumber('2019-02-01'))).toEqual([])
  })

  test('leave a heat wave alone that breaks the record by eight degrees', () => {
    const series = tenYears((day, c) => (inMonth(day, '2021-06') ? c + 8 : c))
    expect(unseenDays(series)).toEqual([])
  })
})
