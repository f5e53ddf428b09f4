import { describe, expect, test } from 'vitest'
import { drawNormal, seededRandom } from '../statistics/index.js'
import { betaRate, curvedHeat, dailyHeat } from '../heat/index.js'
import {
  checkDrift,
  correctedDay,
  correctionsOf,
  dailyFromHours,
  offsetHours,
  offsetSeries,
  scoreForecasts,
  seasonHeat,
  seasonWeather,
  type DailySeries,
  type ForecastPair,
} from './index.js'
import { civilDate, dayNumber } from '../time/index.js'

const firstHour = dayNumber('2025-06-01') * 24

describe('a place that differs from its station', () => {
  const tempsC = Float64Array.from({ length: 72 }, (_, h) => 12 + 8 * Math.sin((h * Math.PI) / 12))
  const hollow = { min: -3, max: 0.5 }
  test('has the same extremes whether hours or days are shifted', () => {
    const days = offsetSeries(dailyFromHours({ firstHour, tempsC }), hollow)
    const hours = dailyFromHours({ firstHour, tempsC: offsetHours(firstHour, tempsC, hollow) })
    days.min.forEach((min, d) => expect(hours.min[d]).toBeCloseTo(min, 9))
    days.max.forEach((max, d) => expect(hours.max[d]).toBeCloseTo(max, 9))
    expect(days.min[0]).toBeCloseTo(Math.min(...tempsC.subarray(0, 24)) - 3, 9)
  })
  test('keeps what is not known, and extremes in their order', () => {
    const gap = tempsC.slice()
    gap[5] = NaN
    expect(offsetHours(firstHour, gap, hollow)[5]).toBeNaN()
    const flat = { firstDay: 0, min: Float64Array.of(4), max: Float64Array.of(6), filled: new Float64Array(1) }
    expect(offsetSeries(flat, { min: 5, max: 0 }).min[0]).toBe(7.5)
    expect(() => offsetSeries(flat, { min: 40, max: 0 })).toThrow('offset.min')
  })
})

/** Two stations with the same weather, one colder by night; `extra` is laid on the first. */
function stations(days: number, extra: (day: number) => number) {
  const random = seededRandom(3)
  let anomaly = 0
  const own = new Float64Array(days * 24)
  const other = new Float64Array(days * 24)
  for (let h = 0; h < own.length; h++) {
    anomaly = 0.98 * anomaly + drawNormal(random, 0, 0.5)
    const shape = Math.sin(((h % 24) * Math.PI) / 12)
    own[h] = 12 + 6 * shape + anomaly + drawNormal(random, 0, 0.3) + extra(Math.floor(h / 24))
    other[h] = 11 + 7 * shape + anomaly + drawNormal(random, 0, 0.3)
  }
  return { own: { firstHour, values: own }, other: { firstHour, values: other } }
}

describe('a drifting sensor', () => {
  test('is found some days after it began, and not before', () => {
    const { own, other } = stations(120, (day) => (day < 80 ? 0 : (day - 79) * 0.25))
    const drift = checkDrift(own, [other], 'temperature')!
    const first = drift.days[0]! - firstHour / 24
    expect(first).toBeGreaterThanOrEqual(82)
    expect(first).toBeLessThan(92)
    expect(drift.days.at(-1)).toBe(firstHour / 24 + 119)
    expect(drift.departure).toBeGreaterThan(6)
  })
  test('is not seen in stations that differ steadily, nor where neighbours disagree about it', () => {
    const steady = stations(200, () => 1.8)
    expect(checkDrift(steady.own, [steady.other], 'temperature')).toBeUndefined()
    const { own, other } = stations(120, (day) => (day < 80 ? 0 : 5))
    expect(checkDrift(own, [other, own], 'temperature')).toBeUndefined()
    expect(checkDrift(own, [], 'temperature')).toBeUndefined()
  })
  test('ends when the sensor is put right, and a day that somebody believes is left alone', () => {
    const { own, other } = stations(150, (day) => (day >= 80 && day < 100 ? 6 : 0))
    const drift = checkDrift(own, [other], 'temperature')!
    expect(drift.days.at(-1)! - firstHour / 24).toBe(99)
    const trusted = new Set([firstHour / 24 + 90])
    expect(checkDrift(own, [other], 'temperature', trusted)!.days).not.toContain(firstHour / 24 + 90)
  })
})

describe('past forecasts', () => {
  const pairs = (n: number, bias: number, sd: number): ForecastPair[] => {
    const random = seededRandom(5)
    return Array.from({ length: n * 3 }, (_, i) => {
      const lead = i % 3
      const came = { min: 8, max: 20 }
      const shared = drawNormal(random, 0, sd)
      const members = Array.from({ length: 12 }, () => {
        const off = bias * lead + shared + drawNormal(random, 0, 1)
        return { min: came.min + off, max: came.max + off / 2 }
      })
      return { lead, members, came }
    })
  }
  test('show their bias and error by lead day', () => {
    const [today, , later] = scoreForecasts(pairs(200, 1, 0.5))
    expect(today).toMatchObject({ lead: 0, n: 200 })
    expect(today!.biasMin).toBeCloseTo(0, 0)
    expect(later!.biasMin).toBeCloseTo(2, 0)
    expect(later!.biasMax).toBeCloseTo(1, 0)
    expect(later!.errorMin).toBeGreaterThan(today!.errorMin)
    expect(today!.inside).toBeGreaterThan(0.9)
    expect(later!.inside).toBeLessThan(today!.inside)
  })
  test('correct the next one, the less the fewer there are', () => {
    const many = correctionsOf(scoreForecasts(pairs(200, 1, 0.1)))
    const some = correctionsOf(scoreForecasts(pairs(12, 1, 0.1)))
    expect(many[1]!.min).toBeCloseTo(1, 1)
    expect(some[1]!.min).toBeGreaterThan(0.4)
    expect(some[1]!.min).toBeLessThan(0.75)
    expect(correctionsOf(scoreForecasts(pairs(9, 1, 0.1)))[1]!.min).toBe(0)
    expect(correctedDay({ min: 10, max: 20 }, { lead: 1, min: 1, max: -0.5 })).toEqual({ min: 9, max: 20.5 })
    expect(correctedDay({ min: 10, max: 10.5 }, { lead: 1, min: -2, max: 1 })).toEqual({ min: 10.75, max: 10.75 })
  })
})

describe('curved rates', () => {
  const at = (t: number, curve: 'briere' | 'beta') => curvedHeat(Float64Array.of(t), { curve, lower: 10, upper: 30, limit: 36 })[0]! * 24
  test('give the heat of the straight line midway and none outside', () => {
    for (const curve of ['briere', 'beta'] as const) {
      expect(at(20, curve)).toBeCloseTo(10, 9)
      expect([at(10, curve), at(36, curve), at(5, curve)]).toEqual([0, 0, 0])
    }
    expect(at(30, 'beta') / at(20, 'beta')).toBeCloseTo(
      betaRate(30, { rmax: 1, tmin: 10, topt: 30, tmax: 36 }) / betaRate(20, { rmax: 1, tmin: 10, topt: 30, tmax: 36 }),
      9,
    )
    expect(at(30, 'beta')).toBeGreaterThan(at(33, 'beta'))
  })
  test('need thresholds in order, and name a bad hour', () => {
    expect(() => curvedHeat([20], { curve: 'beta', lower: 10, upper: 30, limit: 29 })).toThrow('rule.limit')
    expect(() => curvedHeat([20, NaN], { curve: 'briere', lower: 10, upper: 30, limit: 36 })).toThrow('tempsC[1]')
  })
})

describe('the weather of a season', () => {
  const firstDay = dayNumber('2026-01-01')
  const rule = { method: 'single-sine', lower: 10 } as const
  const constant = (from: string, to: string, min: number, max: number): DailySeries => {
    const length = dayNumber(to) - dayNumber(from) + 1
    return {
      firstDay: dayNumber(from),
      min: new Float64Array(length).fill(min),
      max: new Float64Array(length).fill(max),
      filled: new Float64Array(length),
    }
  }
  const made = Array.from({ length: 11 }, (_, y) => Array.from({ length: 120 + 365 }, () => ({ min: 12 + y, max: 22 + y })))

  test('begins 120 days before it: heat may be counted from the autumn before', () => {
    const weather = seasonWeather({ series: constant('2020-01-01', '2026-06-11', 10, 20), firstDay, today: dayNumber('2026-06-12') })
    expect(weather.observed).toHaveLength(120 + 162)
    const heat = seasonHeat(weather, rule, firstDay - 30)
    expect(heat.members[0]!.cumulative[0]).toBeCloseTo(31 * 5)
    expect(heat.members[0]!.cumulative.at(-1)).toBeCloseTo(30 * 5 + 365 * 5)
  })

  test('goes on with the few past seasons there are, and ends with today where there is none', () => {
    const today = dayNumber('2026-06-12')
    const few = seasonWeather({ series: constant('2023-01-01', '2026-06-11', 10, 20), firstDay, today })
    expect(few.tails.map(({ pastSeason }) => civilDate(pastSeason))).toEqual(['2023-01-01', '2024-01-01', '2025-01-01'])
    expect(seasonHeat(few, rule, firstDay)).toMatchObject({ knownDays: 365, seasons: 3 })
    const none = seasonWeather({ series: constant('2026-01-01', '2026-06-11', 10, 20), firstDay, today })
    expect(none.tails).toEqual([])
    expect(seasonHeat(none, rule, dayNumber('2026-03-01')).knownDays).toBe(162)
  })

  test('of a station that has read nothing of this season is that of past ones, where they may stand alone', () => {
    const past = { series: constant('2022-01-01', '2025-12-31', 10, 20), firstDay, today: dayNumber('2026-06-12') }
    // A season without a reading is missing, unless past ones are asked to stand for it.
    expect(seasonHeat(seasonWeather(past), rule, firstDay).members).toEqual([])
    const heat = seasonHeat(seasonWeather({ ...past, alone: true }), rule, dayNumber('2026-03-01'))
    expect(heat).toMatchObject({ knownDays: 365, seasons: 4, missingDays: [] })
    expect(heat.members[0]!.cumulative[58]).toBe(0)
    expect(heat.members[0]!.cumulative.at(-1)).toBeCloseTo((365 - 59) * 5)
    // One reading of this season, and its gaps are gaps again.
    const begun = { ...past, series: constant('2022-01-01', '2026-01-05', 10, 20), alone: true }
    expect(seasonWeather(begun).observed.length).toBeGreaterThan(0)
  })

  test('goes on with seasons made from normals, said to be so, beside the few real ones', () => {
    const weather = seasonWeather({ series: constant('2023-01-01', '2026-06-11', 10, 20), firstDay, today: dayNumber('2026-06-12'), made })
    expect(weather.tails.map((tail) => tail.made)).toEqual([false, false, false, ...Array<boolean>(4).fill(true)])
    const heat = seasonHeat(weather, rule, firstDay)
    expect(heat.knownDays).toBe(365)
    expect(heat.members[3]!.cumulative.at(-1)).toBeCloseTo(162 * 5 + 203 * 7)
  })

  test('of a site that only has normals is made from the season’s start on', () => {
    const empty: DailySeries = { firstDay: 0, min: new Float64Array(), max: new Float64Array(), filled: new Float64Array() }
    const weather = seasonWeather({ series: empty, firstDay, today: dayNumber('2026-06-12'), made })
    const heat = seasonHeat(weather, rule, dayNumber('2026-03-01'))
    expect(heat.missingDays).toEqual([])
    expect(heat.todayIndex).toBe(162)
    expect(heat.members[0]!.cumulative[58]).toBe(0)
    expect(heat.members[0]!.cumulative[59]).toBeCloseTo(7)
    expect(heat.members[2]!.cumulative.at(-1)).toBeCloseTo((365 - 59) * 9)
    expect(seasonHeat(seasonWeather({ series: empty, firstDay, today: dayNumber('2026-06-12') }), rule, firstDay).members).toEqual([])
  })

  test('a season’s sum is that of its days, wherever it is cut into pieces', () => {
    const random = seededRandom(9)
    const series = constant('2020-01-01', '2026-12-31', 0, 0)
    for (let i = 0; i < series.min.length; i++) {
      series.min[i] = drawNormal(random, 8, 5)
      series.max[i] = (series.min[i] as number) + 12 * random()
    }
    const double = { method: 'double-sine', lower: 10, upper: 28 } as const
    const days = Array.from({ length: 365 }, (_, i) => ({
      min: series.min[firstDay + i - series.firstDay]!,
      max: series.max[firstDay + i - series.firstDay]!,
    }))
    const whole = dailyHeat(days, double)
    for (const today of ['2026-02-01', '2026-06-12', '2026-12-31']) {
      const ahead = days.slice(dayNumber(today) - firstDay, dayNumber(today) - firstDay + 10)
      const heat = seasonHeat(seasonWeather({ series, firstDay, today: dayNumber(today), forecast: [ahead] }), double, firstDay)
      const until = dayNumber(today) - firstDay + ahead.length - 2
      const sum = whole.slice(0, until + 1).reduce((a, b) => a + b, 0)
      expect(heat.members[0]!.cumulative[until], civilDate(firstDay + until)).toBeCloseTo(sum, 6)
    }
  })
})
