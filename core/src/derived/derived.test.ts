import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { seededRandom } from '../statistics/index.js'
import { withDailyExtremes } from '../weather/index.js'
import { dayNumber } from '../time/index.js'
import {
  countWet,
  dewPoint,
  extraterrestrialRadiation,
  frostsOf,
  hoursFromExtremes,
  moisture,
  monthlyNormals,
  normalRange,
  plausibleSeasons,
  referenceEvapotranspiration,
  saturationPressure,
  soilTemperature,
  springFrostRisk,
  sunTimes,
  vapourPressureDeficit,
  waterCapacity,
  wetHours,
  windAtTwoMetres,
  withWetEvents,
} from './index.js'

const bench = { latitude: 46.2, longitude: -119.3 }
const PST = -480

describe('the sun', () => {
  test('rises early and sets late in June, in standard time, with civil dawn half an hour before', () => {
    const sun = sunTimes(dayNumber('2026-06-12'), bench, PST)
    expect(sun.dayLength).toBeGreaterThan(15.6)
    expect(sun.dayLength).toBeLessThan(15.9)
    expect(sun.sunrise! + sun.sunset!).toBeCloseTo(24 - 2 * (8 - 119.3 / 15), 0)
    expect(sun.sunrise! - sun.dawn!).toBeGreaterThan(0.5)
    expect(sun.dusk! - sun.sunset!).toBeLessThan(0.75)
  })
  test('belongs to the civil day of the place, also on the other side of the Earth', () => {
    const sun = sunTimes(dayNumber('2026-12-21'), { latitude: -37, longitude: 175 }, 720)
    expect(sun.sunrise).toBeGreaterThan(4)
    expect(sun.sunset).toBeLessThan(21)
  })
  test('does not set in the far north in June and does not rise in December', () => {
    const north = { latitude: 71, longitude: 25 }
    expect(sunTimes(dayNumber('2026-06-21'), north, 60)).toMatchObject({ dayLength: 24, sunrise: null })
    expect(sunTimes(dayNumber('2026-12-21'), north, 60)).toMatchObject({ dayLength: 0, sunset: null })
  })
})

describe('the air', () => {
  test('dew point and deficit by the Magnus form', () => {
    expect(dewPoint(20, 50)).toBeCloseTo(9.26, 1)
    expect(saturationPressure(0)).toBeCloseTo(6.1094, 4)
    expect(vapourPressureDeficit(25, 50)).toBeCloseTo(31.63 / 2, 1)
    expect(Number.isFinite(dewPoint(20, 0))).toBe(true)
    expect(() => dewPoint(20, 104)).toThrow('rhPct')
  })
  test('the dew point never lies above the air and rises with humidity', () =>
    fc.assert(
      fc.property(fc.double({ min: -30, max: 45, noNaN: true }), fc.double({ min: 1, max: 99, noNaN: true }), (t, rh) => {
        expect(dewPoint(t, rh)).toBeLessThanOrEqual(t)
        expect(dewPoint(t, rh)).toBeLessThan(dewPoint(t, rh + 1))
      }),
    ))
  test('wind of a mast at 10 m is 2.4 m/s at 2 m where it reads 3.2 (Allen et al. 1998, example 14)', () => {
    expect(windAtTwoMetres(3.2, 10)).toBeCloseTo(2.4, 1)
    expect(windAtTwoMetres(3.2, 2)).toBe(3.2)
    expect(() => windAtTwoMetres(3, 0.05)).toThrow('heightM')
  })
})

describe('wet hours', () => {
  const unknown = NaN
  test('need rain or 90 % humidity; without humidity an hour is unknown unless it rained', () => {
    const wet = wetHours({ rain: [0, 0, 0.2, 0, 0.2, unknown, unknown], humidity: [89, 90, 50, unknown, unknown, 95, 60] })
    expect([...wet]).toEqual([0, 1, 1, NaN, 1, 1, NaN])
    expect(countWet(wet, 0, 8)).toEqual({ wet: 4, unknown: 3 })
  })
  test('are told by a sensor where there is one', () =>
    expect([...wetHours({ rain: [0.4, 0, 0], humidity: [95, 40, 95], sensor: [0.2, 0.6, unknown] })]).toEqual([0, 1, 1]))
  test('take up watering hour by hour, and leave the readings as they were', () => {
    const read = wetHours({ rain: [0, 0, 0, 0], humidity: [50, 50, unknown, 50] })
    expect([...withWetEvents(read, 100, [{ from: 101.5, until: 102.25 }])]).toEqual([0, 1, 1, 0])
    expect([...withWetEvents(read, 100, [{ from: 90, until: 95 }])]).toEqual([...read])
  })
})

describe('hours from daily extremes (Linvill 1990)', () => {
  const days = [
    { min: 8, max: 24 },
    { min: 10, max: 26 },
    { min: 6, max: 20 },
  ]
  const hours = hoursFromExtremes(days, dayNumber('2026-06-12'), bench, PST)
  test('reach the maximum in the afternoon and the next minimum at sunrise', () => {
    const second = hours.subarray(24, 48)
    expect(Math.max(...second)).toBeCloseTo(26, 0)
    const warmest = second.indexOf(Math.max(...second))
    expect(warmest).toBeGreaterThanOrEqual(12)
    expect(warmest).toBeLessThanOrEqual(15)
    expect(Math.min(...hours.subarray(48, 53))).toBeCloseTo(6, 0)
  })
  test('follow the formula at dusk and in the night', () => {
    const sun = sunTimes(dayNumber('2026-06-12'), bench, PST)
    const sunset = (24 - 8) * Math.sin((Math.PI * sun.dayLength) / (sun.dayLength + 4)) + 8
    const at = 23.5 - sun.sunrise! - sun.dayLength
    expect(hours[23]).toBeCloseTo(sunset - ((sunset - 10) / Math.log(24 - sun.dayLength)) * Math.log(at), 6)
  })
  test('stay between the extremes around them', () =>
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.double({ min: -20, max: 20, noNaN: true }), fc.double({ min: 0, max: 20, noNaN: true })), {
          minLength: 2,
          maxLength: 6,
        }),
        fc.integer({ min: -66, max: 66 }),
        (drawn, latitude) => {
          const extremes = drawn.map(([min, range]) => ({ min, max: min + range }))
          const made = hoursFromExtremes(extremes, dayNumber('2026-03-01'), { latitude, longitude: 0 }, 0)
          const low = Math.min(...extremes.map(({ min }) => min))
          const high = Math.max(...extremes.map(({ max }) => max))
          for (const t of made) expect(t >= low - 1e-9 && t <= high + 1e-9).toBe(true)
        },
      ),
    ))
  test('a minimum above the maximum names the day', () =>
    expect(() => hoursFromExtremes([{ min: 9, max: 3 }], 0, bench, PST)).toThrow('days[0].min'))
})

describe('soil', () => {
  test('follows the air with a lag, slower under cover', () => {
    const air = [...Array<number>(10).fill(0), 10, 10]
    expect([...soilTemperature(air, 'bare').slice(9)]).toEqual([0, 2.5, 4.375])
    expect(soilTemperature(air, 'covered')[11]).toBeLessThan(soilTemperature(air, 'bare')[11]!)
  })
  test('keeps its warmth over a day that is not known', () => {
    const soil = soilTemperature([8, 8, NaN, 8], 'bare')
    expect(soil[2]).toBeNaN()
    expect(soil[3]).toBe(8)
  })
  test('is filled by rain to its capacity and emptied in proportion to what is left', () => {
    const { fill, unknownRain } = moisture([0, 30, 100, NaN, 0], [4, 0, 0, 5, NaN], 50, 0.5)
    expect(fill[0]).toBeCloseTo((25 - 4 * 0.5) / 50)
    expect(fill[1]).toBe(1)
    expect(fill[2]).toBe(1)
    expect(fill[3]).toBeCloseTo(0.9)
    expect(fill[4]).toBeCloseTo(0.9)
    expect([...unknownRain]).toEqual([0, 0, 0, 1, 1])
    expect(waterCapacity('sand', 0.5)).toBeLessThan(waterCapacity('loam', 0.5))
  })
  test('radiation and evapotranspiration as in Allen et al. 1998, examples 8 and 20', () => {
    expect(extraterrestrialRadiation(-20, 246)).toBeCloseTo(32.2, 1)
    expect(referenceEvapotranspiration({ min: 14.8, max: 26.6 }, 45.72, 196)).toBeCloseTo(5, 0)
    expect(extraterrestrialRadiation(80, 355)).toBe(0)
  })
})

/** Days of several years whose minimum is given by a function of the date. */
const series = (from: string, to: string, min: (date: string) => number) =>
  withDailyExtremes(
    { firstDay: 0, min: new Float64Array(), max: new Float64Array(), filled: new Float64Array() },
    Array.from({ length: dayNumber(to) - dayNumber(from) + 1 }, (_, i) => {
      const day = dayNumber(from) + i
      const low = min(new Date(day * 86_400_000).toISOString().slice(0, 10))
      return { day, min: low, max: low + 10 }
    }),
  )

describe('frost', () => {
  const cold = new Set(['2023-04-28', '2024-05-09', '2024-10-02', '2025-04-10'])
  const days = series('2023-01-01', '2025-12-31', (date) => (cold.has(date) ? -1 : 4))
  test('the last in spring and the first in autumn', () => {
    expect(frostsOf(days, dayNumber('2024-01-01'))).toEqual({
      season: dayNumber('2024-01-01'),
      lastSpring: dayNumber('2024-05-09'),
      firstAutumn: dayNumber('2024-10-02'),
      springKnown: true,
      autumnKnown: true,
    })
    expect(frostsOf(days, dayNumber('2023-01-01')).firstAutumn).toBeNull()
  })
  test('the risk of one after a date is the share of seasons that had it', () => {
    const past = [2023, 2024, 2025].map((year) => frostsOf(days, dayNumber(`${year}-01-01`)))
    expect(springFrostRisk(dayNumber('2026-04-20'), past, dayNumber('2026-01-01'))).toBeCloseTo(2 / 3)
    expect(springFrostRisk(dayNumber('2026-05-20'), past, dayNumber('2026-01-01'))).toBe(0)
    expect(springFrostRisk(dayNumber('2026-05-20'), [], dayNumber('2026-01-01'))).toBeNull()
  })
  test('a spring without frost is one, and a spring of which nothing was read is none', () => {
    // One spring of five had a frost this late; the other four had none at all.
    const mild = series('2019-01-01', '2023-12-31', (date) => (date === '2021-05-02' ? -1 : 4))
    const past = [2019, 2020, 2021, 2022, 2023].map((year) => frostsOf(mild, dayNumber(`${year}-01-01`)))
    expect(springFrostRisk(dayNumber('2026-04-20'), past, dayNumber('2026-01-01'))).toBeCloseTo(0.2)
    const unread = frostsOf(mild, dayNumber('2025-01-01'))
    expect(unread).toMatchObject({ lastSpring: null, springKnown: false })
    expect(springFrostRisk(dayNumber('2026-04-20'), [unread], dayNumber('2026-01-01'))).toBeNull()
    // A season that is under way is judged by the days it has had.
    expect(frostsOf(mild, dayNumber('2023-01-01'), 0, dayNumber('2023-03-01'))).toMatchObject({ springKnown: true, autumnKnown: false })
  })
})

describe('normals', () => {
  const days = series('2022-01-01', '2025-12-31', (date) => Number(date.slice(5, 7)))
  test('are the means of the months that are known', () => {
    const rain = new Map([...Array(31).keys()].map((i) => [dayNumber('2024-07-01') + i, 1]))
    const july = monthlyNormals(days, rain)[6]!
    expect(july).toMatchObject({ years: 4, min: 7, max: 17, rainYears: 1 })
    expect(july.rain).toBeCloseTo(30.4)
    expect(
      monthlyNormals(
        series('2026-01-01', '2026-02-10', () => 3),
        new Map(),
      )[1],
    ).toBeUndefined()
  })
  test('of a day need three years', () => {
    expect(normalRange(days, dayNumber('2026-07-15'), [-1, -2, -3])).toEqual({ low: 7, high: 17 })
    expect(normalRange(days, dayNumber('2026-07-15'), [-1, -2])).toBeUndefined()
  })
})

describe('seasons made from monthly normals', () => {
  const normals = Array.from({ length: 12 }, (_, m) => ({
    min: 5 - 8 * Math.cos((2 * Math.PI * m) / 12),
    max: 17 - 11 * Math.cos((2 * Math.PI * m) / 12),
    rain: 40 + 30 * Math.cos((2 * Math.PI * m) / 12),
  }))
  const from = dayNumber('2026-01-01')
  const made = plausibleSeasons(normals, from, 365, 200, seededRandom(7))
  const meanOf = (month: number, value: (season: (typeof made)[number], day: number) => number): number => {
    const first = dayNumber(`2026-${String(month + 1).padStart(2, '0')}-01`) - from
    return (
      made.reduce(
        (sum, season) => sum + Array.from({ length: 28 }, (_, d) => value(season, first + d)).reduce((a, b) => a + b, 0) / 28,
        0,
      ) / made.length
    )
  }
  test('have the normals as their means in the long run', () => {
    for (const month of [0, 3, 6, 9]) {
      expect(meanOf(month, ({ days }, d) => days[d]!.min)).toBeCloseTo(normals[month]!.min, 0)
      expect(Math.abs(meanOf(month, ({ days }, d) => days[d]!.max) - normals[month]!.max)).toBeLessThan(0.6)
      const rain = meanOf(month, ({ rain: mm }, d) => mm[d]!) * 30.4
      expect(Math.abs(rain - normals[month]!.rain)).toBeLessThan(0.15 * normals[month]!.rain)
    }
  })
  test('differ from each other, and are the same for the same numbers', () => {
    const july = made.map(({ days }) => days.slice(181, 212).reduce((sum, { min, max }) => sum + (min + max) / 62, 0))
    const mean = july.reduce((a, b) => a + b, 0) / july.length
    const sd = Math.sqrt(july.reduce((sum, t) => sum + (t - mean) ** 2, 0) / july.length)
    expect(sd).toBeGreaterThan(0.8)
    expect(sd).toBeLessThan(2.5)
    expect(plausibleSeasons(normals, from, 365, 1, seededRandom(7))[0]!.days).toEqual(made[0]!.days)
  })
  test('need twelve months, each with its minimum below its maximum', () => {
    expect(() => plausibleSeasons(normals.slice(1), from, 365, 1, seededRandom(1))).toThrow('12 months')
    expect(() => plausibleSeasons(normals.with(2, { min: 9, max: 3, rain: 0 }), from, 365, 1, seededRandom(1))).toThrow('normals[2].max')
  })
})
