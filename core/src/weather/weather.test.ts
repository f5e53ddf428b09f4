import { describe, expect, test } from 'vitest'
import { dailyHeat, type HeatRule } from '../heat/index.js'
import { dailyFromHours, fillDays, hasDay, seasonHeat, seasonWeather, withDailyExtremes, type DailySeries } from './index.js'
import { civilDate, dayNumber, sameDayInYear, seasonLater, seasonStart } from '../time/index.js'

describe('the calendar', () => {
  test('days that are none are refused', () => {
    expect(() => dayNumber('2026-02-30')).toThrow('got 2026-02-30')
    expect(() => dayNumber('12 June')).toThrow(RangeError)
    expect(civilDate(dayNumber('2024-02-29'))).toBe('2024-02-29')
  })
  test('29 February repeats the 28th in years without one', () =>
    expect(civilDate(sameDayInYear(dayNumber('2024-02-29'), -1))).toBe('2023-02-28'))
  test('seasons start in January in the north and in July in the south', () => {
    expect(civilDate(seasonStart(dayNumber('2026-06-12'), 'north'))).toBe('2026-01-01')
    expect(civilDate(seasonStart(dayNumber('2026-06-12'), 'south'))).toBe('2025-07-01')
    expect(seasonLater(dayNumber('2024-01-01'), 1) - dayNumber('2024-01-01')).toBe(366)
  })
})

const hours = (days: number, temperature: (hour: number) => number): { firstHour: number; tempsC: Float64Array } => ({
  firstHour: dayNumber('2026-05-01') * 24,
  tempsC: Float64Array.from({ length: days * 24 }, (_, h) => temperature(h)),
})

describe('days from hours', () => {
  test('a gap of three hours is bridged and counted as filled, one of four leaves the day open', () => {
    const read = hours(2, (h) => (h % 24 >= 10 && h % 24 < (h < 24 ? 13 : 14) ? NaN : h % 24))
    const days = dailyFromHours(read)
    expect(hasDay(days, dayNumber('2026-05-01'))).toBe(true)
    expect(days.filled[0]).toBeCloseTo(3 / 24)
    expect(hasDay(days, dayNumber('2026-05-02'))).toBe(false)
  })

  test('typed extremes stand in for a day without hours, and not for one that has them', () => {
    const series = withDailyExtremes(
      dailyFromHours(hours(1, (h) => h)),
      ['2026-05-01', '2026-05-03'].map((d) => ({ day: dayNumber(d), min: 4, max: 9 })),
    )
    expect(series.max[0]).toBe(23)
    expect(hasDay(series, dayNumber('2026-05-02'))).toBe(false)
    expect(series.max[2]).toBe(9)
  })
})

/** Years of invented days: warm in summer, each year a little different. */
function years(from: number, to: string, extra: (year: number) => number = () => 0): DailySeries {
  const first = dayNumber(`${from}-01-01`)
  const length = dayNumber(to) - first + 1
  const min = new Float64Array(length)
  const max = new Float64Array(length)
  for (let i = 0; i < length; i++) {
    const date = new Date((first + i) * 86_400_000)
    const season = 12 - 12 * Math.cos((2 * Math.PI * (date.getTime() / 86_400_000 - 20)) / 365.25) + extra(date.getUTCFullYear())
    min[i] = season - 6
    max[i] = season + 6
  }
  return { firstDay: first, min, max, filled: new Float64Array(length) }
}

function without(series: DailySeries, from: string, to: string): DailySeries {
  const min = series.min.slice()
  for (let d = dayNumber(from); d <= dayNumber(to); d++) min[d - series.firstDay] = NaN
  return { ...series, min }
}

describe('filling', () => {
  const series = years(2020, '2026-06-11')
  test('short gaps lie between their neighbours, long ones take other years, and all of it is marked', () => {
    const short = fillDays(without(series, '2026-05-02', '2026-05-03'), dayNumber('2026-01-01'), dayNumber('2026-06-11'))
    const i = dayNumber('2026-05-02') - series.firstDay
    expect(short.min[i]).toBeCloseTo(series.min[i]!, 1)
    expect(short.filled[i]).toBe(1)
    const long = fillDays(without(series, '2026-05-02', '2026-05-20'), dayNumber('2026-01-01'), dayNumber('2026-06-11'))
    expect(long.min[i]).toBeCloseTo(series.min[i]!, 0)
    expect(long.filled[i]).toBe(1)
  })
  test('a long gap stays open where fewer than three other years can stand in', () => {
    const young = years(2025, '2026-06-11')
    const filled = fillDays(without(young, '2026-05-02', '2026-05-20'), dayNumber('2026-01-01'), dayNumber('2026-06-11'))
    expect(hasDay(filled, dayNumber('2026-05-10'))).toBe(false)
  })
})

interface Season extends Omit<Parameters<typeof seasonWeather>[0], 'rule'> {
  rule: HeatRule
  startDay: number
}
const heatOf = ({ rule, startDay, ...season }: Season) => seasonHeat(seasonWeather(season), rule, startDay)

describe('heat of a season', () => {
  const rule = { method: 'double-sine', lower: 10, upper: 31 } as const
  const place = { rule, firstDay: dayNumber('2026-01-01'), startDay: dayNumber('2026-05-04'), today: dayNumber('2026-06-12') }

  test('is what was observed, then each past year by itself, with the seam in one piece', () => {
    const series = years(2021, '2026-06-11', (year) => (year === 2023 ? 3 : 0))
    const heat = heatOf({ series, ...place })
    expect(heat.seasons).toBe(5)
    // Each is drawn once for each of the twelve strata of a figure's error.
    expect(heat.members).toHaveLength(12 * 5)
    expect(heat.members[7]).toBe(heat.members[2])
    expect(heat.members.slice(0, 5).map(({ pastSeason }) => civilDate(pastSeason))).toEqual([
      '2021-01-01',
      '2022-01-01',
      '2023-01-01',
      '2024-01-01',
      '2025-01-01',
    ])
    const days = []
    for (let d = place.startDay; d < place.firstDay + 365; d++) {
      const source = d < place.today ? d : sameDayInYear(d, -3)
      days.push({ min: series.min[source - series.firstDay]!, max: series.max[source - series.firstDay]! })
    }
    const wanted = dailyHeat(days, rule).reduce((a, b) => a + b, 0)
    expect(heat.members[2]?.cumulative.at(-1)).toBeCloseTo(wanted, 9)
    expect(heat.median.at(-1)).toBeLessThan(wanted)
    expect(heat.knownDays).toBe(365)
  })

  test('is summed per year: averaging temperatures first would lose the warm years’ heat', () => {
    const autumn = { ...place, startDay: dayNumber('2026-10-20'), today: dayNumber('2026-10-20') }
    const heat = heatOf({ series: years(2020, '2026-10-19', (year) => (year % 2 === 0 ? 6 : -6)), ...autumn })
    const averaged = heatOf({ series: years(2020, '2026-10-19'), ...autumn })
    expect(heat.median.at(-1)).toBeGreaterThan(1.2 * averaged.median.at(-1)!)
  })

  test('ends with today where there is no past year, and says which days are missing', () => {
    const young = years(2026, '2026-06-11')
    expect(heatOf({ series: young, ...place }).knownDays).toBe(dayNumber('2026-06-12') - place.firstDay)
    const gap = heatOf({ series: without(young, '2026-05-10', '2026-05-16'), ...place })
    expect(gap.members).toEqual([])
    expect(gap.missingDays.map(civilDate)).toEqual([
      '2026-05-10',
      '2026-05-11',
      '2026-05-12',
      '2026-05-13',
      '2026-05-14',
      '2026-05-15',
      '2026-05-16',
    ])
  })

  test('says how much of it was filled', () => {
    const heat = heatOf({ series: without(years(2020, '2026-06-11'), '2026-05-10', '2026-05-12'), ...place })
    expect(heat.filledShare).toBeCloseTo(3 / 39)
  })
})

describe('a forecast joined to the past', () => {
  const rule = { method: 'double-sine', lower: 10, upper: 31 } as const
  const place = { rule, firstDay: dayNumber('2026-01-01'), startDay: dayNumber('2026-05-04'), today: dayNumber('2026-06-12') }
  const series = years(2021, '2026-06-11', (year) => (year === 2023 ? 3 : 0))
  const forecast = [4, -4, 0].map((warmer) => Array.from({ length: 10 }, (_, i) => ({ min: 9 + warmer + i / 5, max: 23 + warmer })))

  test('is the full cross, forecast-major, and each member is exactly the sum over its own joined days', () => {
    const heat = heatOf({ series, ...place, forecast })
    expect(heat.members).toHaveLength(12 * 5)
    expect(heat.members[15]).toBe(heat.members[0])
    expect(
      heat.members
        .slice(0, 15)
        .map(({ pastSeason }) => civilDate(pastSeason).slice(0, 4))
        .join(' '),
    ).toBe(Array(3).fill('2021 2022 2023 2024 2025').join(' '))
    expect(heat.forecastDays).toBe(10)
    const read = (day: number) => ({ min: series.min[day - series.firstDay]!, max: series.max[day - series.firstDay]! })
    for (const [f, y] of [
      [0, 1],
      [2, 3],
    ] as const) {
      const days = []
      for (let d = place.startDay; d < place.today; d++) days.push(read(d))
      days.push(...forecast[f]!)
      for (let d = place.today + 10; d < place.firstDay + 365; d++) days.push(read(sameDayInYear(d, y - 5)))
      const whole = dailyHeat(days, rule)
      const member = heat.members[f * 5 + y]!
      for (const i of [37, 38, 39, 47, 48, 49, 100]) {
        const sum = whole.slice(0, i + 1).reduce((a, b) => a + b, 0)
        expect(member.cumulative[place.startDay - place.firstDay + i], `day ${i} of member ${f}, ${y}`).toBeCloseTo(sum, 9)
      }
    }
  })

  test('before the biofix counts only what comes after it', () => {
    const late = heatOf({ series, ...place, startDay: place.today + 4, forecast })
    const index = place.today - place.firstDay
    expect(late.members[0]!.cumulative[index + 3]).toBe(0)
    expect(late.members[0]!.cumulative[index + 4]).toBeGreaterThan(0)
  })

  test('ends with its last day where no past year goes on', () => {
    const young = years(2026, '2026-06-11')
    const heat = heatOf({ series: young, ...place, forecast })
    expect(heat.knownDays).toBe(place.today - place.firstDay + 10)
    expect(heat.seasons).toBe(1)
    expect(new Set(heat.members).size).toBe(3)
    expect(heat.members[0]!.cumulative.at(-1)).toBe(heat.members[0]!.cumulative[heat.knownDays - 1])
  })
})
