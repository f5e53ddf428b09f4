import { describe, expect, test } from 'vitest'
import { dayNumber } from '../time/civilDays.js'
import { checkHours, fillHours, type Doubt, type HourlySeries } from './index.js'

/** Two stations of one place over five years: the second is 2 °C colder and follows the first with a little noise. */
const FIRST_HOUR = dayNumber('2022-01-01') * 24
const HOURS = (dayNumber('2026-06-12') - dayNumber('2022-01-01')) * 24
const truth = (i: number): number =>
  10 - 9 * Math.cos((2 * Math.PI * (i / 24 - 20)) / 365.25) + 5 * Math.cos((2 * Math.PI * ((i % 24) - 15)) / 24) + 2 * Math.sin(i / 53)
const bench = (): Float64Array => Float64Array.from({ length: HOURS }, (_, i) => truth(i))
const river: HourlySeries = {
  firstHour: FIRST_HOUR,
  values: Float64Array.from({ length: HOURS }, (_, i) => truth(i) - 2 + 0.3 * Math.sin(i * 1.7)),
}
const hourOf = (date: string, hour: number): number => dayNumber(date) * 24 + hour - FIRST_HOUR

const flagged = (doubts: readonly Doubt[]): string[] => doubts.map(({ hour, flag }) => `${hour}: ${flag}`)

describe('each kind of doubt is found where it was planted, and nothing else', () => {
  test('believable weather has none', () => expect(checkHours(bench(), 'temperature')).toEqual([]))

  test('a spike', () => {
    const values = bench()
    const h = hourOf('2026-02-14', 13)
    values[h] = 47.3
    expect(flagged(checkHours(values, 'temperature'))).toEqual([`${h}: spike`])
  })

  test('a stuck sensor, from its eighth equal hour on and not before', () => {
    const values = bench()
    const h = hourOf('2026-03-10', 2)
    values.fill(4.1, h, h + 7)
    expect(checkHours(values, 'temperature')).toEqual([])
    values.fill(4.1, h, h + 12)
    expect(checkHours(values, 'temperature')).toHaveLength(12)
    expect(new Set(checkHours(values, 'temperature').map(({ flag }) => flag))).toEqual(new Set(['flat-line']))
  })

  test('a soil that stands at 0 °C under snow is no stuck sensor; one that stands at 9 °C is', () => {
    const soil = Float64Array.from({ length: 400 }, (_, i) => 6 + Math.sin(i / 10))
    soil.fill(0.1, 50, 200)
    expect(checkHours(soil, 'soil').filter(({ flag }) => flag === 'flat-line')).toEqual([])
    soil.fill(9.2, 300, 320)
    expect(checkHours(soil, 'soil').filter(({ flag }) => flag === 'flat-line')).toHaveLength(20)
  })

  test('a gap, but not the time before the first reading or after the last', () => {
    const values = bench()
    values.fill(NaN, 0, 500)
    values.fill(NaN, HOURS - 30)
    const h = hourOf('2026-04-21', 3)
    values.fill(NaN, h, h + 9)
    expect(checkHours(values, 'temperature').map(({ hour }) => hour)).toEqual(Array.from({ length: 9 }, (_, k) => h + k))
  })

  test('a station that was away for weeks is away, not doubted', () => {
    const values = bench()
    values.fill(NaN, hourOf('2026-02-01', 0), hourOf('2026-02-20', 0))
    expect(checkHours(values, 'temperature')).toEqual([])
  })

  test('what cannot be, and a jump that stays', () => {
    const values = bench()
    const h = hourOf('2026-05-01', 12)
    values[h] = 99
    for (let i = hourOf('2026-05-20', 0); i < HOURS; i++) values[i]! += 20
    expect(flagged(checkHours(values, 'temperature'))).toEqual([`${h}: range`, `${hourOf('2026-05-20', 0)}: step`])
  })

  test('a saturated night is no stuck humidity, a dry one is; no rain for weeks is weather', () => {
    expect(checkHours(new Float64Array(40).fill(99), 'humidity')).toEqual([])
    expect(checkHours(new Float64Array(40).fill(62), 'humidity')).toHaveLength(40)
    expect(checkHours(new Float64Array(900).fill(0), 'rain')).toEqual([])
    expect(checkHours([0, 0, 320, 0], 'rain')).toEqual([{ hour: 2, flag: 'range' }])
  })
})

describe('what stands in for a doubted hour', () => {
  const without = (from: number, hours: number): { series: HourlySeries; doubts: Doubt[] } => {
    const values = bench()
    values.fill(NaN, from, from + hours)
    return { series: { firstHour: FIRST_HOUR, values }, doubts: checkHours(values, 'temperature') }
  }
  const h = hourOf('2026-04-21', 3)

  test('three hours: a straight line between the readings beside them', () => {
    const { series, doubts } = without(h, 3)
    const filled = fillHours(series, doubts, 'temperature', [river])
    expect(filled.map(({ method }) => method)).toEqual(['interpolated', 'interpolated', 'interpolated'])
    expect(filled[1]!.value).toBeCloseTo((truth(h - 1) + truth(h + 3)) / 2, 9)
  })

  test('longer: the neighbouring station, by regression and not by its bare value', () => {
    const { series, doubts } = without(h, 9)
    const filled = fillHours(series, doubts, 'temperature', [river])
    for (const { hour, value, method } of filled) {
      expect(method).toBe('neighbour')
      expect(Math.abs(value - truth(hour))).toBeLessThan(0.6)
    }
  })

  test('of two neighbours the better correlated one, not the first', () => {
    const odd: HourlySeries = {
      firstHour: FIRST_HOUR,
      values: Float64Array.from({ length: HOURS }, (_, i) => truth(i) + 4 * Math.sin(i * 0.9)),
    }
    const { series, doubts } = without(h, 9)
    for (const { hour, value } of fillHours(series, doubts, 'temperature', [odd, river]))
      expect(Math.abs(value - truth(hour))).toBeLessThan(0.6)
  })

  test('alone: the same hours of other years, and nothing where there are fewer than three', () => {
    const { series, doubts } = without(h, 9)
    const filled = fillHours(series, doubts, 'temperature', [])
    expect(filled.every(({ method }) => method === 'climatology')).toBe(true)
    expect(Math.abs(filled[4]!.value - truth(h + 4))).toBeLessThan(4)
    const young = dayNumber('2025-01-01') * 24
    const short = { firstHour: young, values: series.values.slice(young - FIRST_HOUR) }
    const unknown = fillHours(short, checkHours(short.values, 'temperature'), 'temperature', [])
    expect(unknown.map(({ method, value }) => [method, value])).toEqual(Array.from({ length: 9 }, () => ['unknown', NaN]))
  })

  test('rain is the neighbour’s as it fell there, or unknown; it is never drawn between hours or taken from other years', () => {
    const values = new Float64Array(HOURS)
    values[h - 1] = 6
    values.fill(NaN, h, h + 2)
    values[h + 2] = 6
    const series = { firstHour: FIRST_HOUR, values }
    const doubts = checkHours(values, 'rain')
    const wet: HourlySeries = { firstHour: FIRST_HOUR + h, values: Float64Array.from([1.4]) }
    expect(fillHours(series, doubts, 'rain', [wet]).map(({ value, method }) => [value, method])).toEqual([
      [1.4, 'neighbour'],
      [NaN, 'unknown'],
    ])
  })

  test('a spike is replaced and the reading itself stays as it came', () => {
    const values = bench()
    const spike = hourOf('2026-02-14', 13)
    values[spike] = 47.3
    const series = { firstHour: FIRST_HOUR, values }
    const [filled] = fillHours(series, checkHours(values, 'temperature'), 'temperature', [])
    expect(filled!.value).toBeCloseTo((truth(spike - 1) + truth(spike + 1)) / 2, 9)
    expect(series.values[spike]).toBe(47.3)
  })
})
