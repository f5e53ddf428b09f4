import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { instantOfHour, standardDay, standardHour } from '../time/index.js'
import { completeLateDays, dailyFromHours, firstOpenDay, hasDay } from './index.js'

/** Offsets that there are, half hours and three quarters among them. */
const offsets = fc.integer({ min: -48, max: 56 }).map((quarters) => quarters * 15)
const instants = fc.integer({ min: -2_000_000_000, max: 4_000_000_000 }).map((s) => s * 1000)

describe('the clock of a station', () => {
  test('has days of 24 hours, in every zone and at every moment', () => {
    fc.assert(
      fc.property(instants, offsets, (instant, offset) => {
        const hour = standardHour(instant, offset)
        expect(Math.floor(hour / 24)).toBe(standardDay(instant, offset))
        const begins = instantOfHour(hour, offset)
        expect(begins <= instant && instant < begins + 3_600_000).toBe(true)
        expect(standardHour(begins, offset)).toBe(hour)
        expect(standardDay(instant + 86_400_000, offset)).toBe(standardDay(instant, offset) + 1)
      }),
    )
  })

  test('turns its day at midnight of standard time, which in summer is one o’clock', () => {
    const day = (at: string, offset: number): string =>
      new Date(standardDay(Date.parse(at), offset) * 86_400_000).toISOString().slice(0, 10)
    expect(day('2026-06-13T07:05:00Z', -480)).toBe('2026-06-12')
    expect(day('2026-06-13T08:00:00Z', -480)).toBe('2026-06-13')
    expect(day('2026-01-10T18:29:00Z', 330)).toBe('2026-01-10')
    expect(day('2026-01-10T18:30:00Z', 330)).toBe('2026-01-11')
    expect(() => standardDay(NaN, 0)).toThrow('instant must')
  })
})

/** Hours of a steady week of 10 to 20 °C that end after `length`. */
const hours = (length: number) => ({
  firstHour: 24_000,
  values: Float64Array.from({ length }, (_, i) => 15 - 5 * Math.cos((2 * Math.PI * i) / 24) + i / 240),
})
const daily = (h: ReturnType<typeof hours>) => dailyFromHours({ firstHour: h.firstHour, tempsC: h.values })

describe('a station that is late', () => {
  test('has days that are not over, at most ten of them', () => {
    const series = daily(hours(20 * 24 + 15))
    expect(firstOpenDay(series, 1020)).toBe(1020)
    expect(firstOpenDay(series, 1021)).toBe(1020)
    expect(firstOpenDay(series, 1025)).toBe(1020)
    // Silent for longer: that is a gap.
    expect(firstOpenDay(series, 1040)).toBe(1040)
  })

  test('keeps every hour it read: a day short of its last hours is completed from the day before', () => {
    fc.assert(
      fc.property(fc.integer({ min: 12, max: 23 }), fc.integer({ min: 3, max: 12 }), (read, days) => {
        const late = hours(days * 24 + read)
        const before = daily(late)
        const day = 1000 + days
        const after = completeLateDays(before, late, day, day + 1)
        expect(hasDay(before, day)).toBe(false)
        expect(hasDay(after, day)).toBe(true)
        const i = day - after.firstDay
        const whole = daily(hours((days + 1) * 24))
        // The weather is steady, so what is missing is known.
        expect(after.min[i]).toBeCloseTo(whole.min[i]!, 1)
        expect(after.max[i]).toBeCloseTo(whole.max[i]!, 1)
        expect(after.filled[i]).toBeCloseTo((24 - read) / 24, 9)
        for (const known of late.values.subarray(days * 24)) expect(after.min[i]! <= known && known <= after.max[i]!).toBe(true)
        expect(after.min.slice(0, i)).toEqual(before.min.slice(0, i))
      }),
    )
  })

  test('has today’s hours left alone, and a day with few hours is none', () => {
    const late = hours(5 * 24 + 20)
    expect(completeLateDays(daily(late), late, 1005, 1005)).toEqual(daily(late))
    const few = hours(5 * 24 + 7)
    expect(hasDay(completeLateDays(daily(few), few, 1005, 1006), 1005)).toBe(false)
  })
})
