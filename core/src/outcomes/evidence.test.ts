import { describe, expect, test } from 'vitest'
import { drawNormal, seededRandom, yearlyTrend } from '../statistics/index.js'
import { calendarSkill, daysOver, evidenceOf, forecastSkill, logSdOf, tellableFall, unitsToTell } from './index.js'

const deed = (areaId: string, logLeft: number, sd = 0.5) => ({ areaId, logLeft, sd })

describe('what several deeds say together', () => {
  test('deeds in one area are no replicates: however many, they say no more than lower here', () => {
    const many = evidenceOf(Array.from({ length: 12 }, () => deed('old', -1.5)))
    expect(many).toMatchObject({ verdict: 'lower-here', areas: 1, deeds: 12 })
    expect(many.effect).toEqual(evidenceOf([deed('old', -1.5)]).effect)
  })

  test('three areas that agree say that it worked, three that do not say nothing', () => {
    expect(evidenceOf([deed('a', -1.6), deed('b', -1.5), deed('c', -1.7)]).verdict).toBe('worked')
    expect(evidenceOf([deed('a', -3), deed('b', 1), deed('c', -0.5)]).verdict).toBe('cannot-tell')
    expect(evidenceOf([deed('a', 1.6, 0.2), deed('b', 1.5, 0.2), deed('c', 1.7, 0.2)]).verdict).toBe('worse')
  })

  test('areas that happen to agree count as scattered as their counts leave them', () => {
    const alike = evidenceOf([deed('a', -0.3, 1), deed('b', -0.3, 1), deed('c', -0.3, 1)])
    expect(alike.verdict).toBe('cannot-tell')
  })

  test.each([3, 5, 8])('where nothing was done, %d areas say that it worked in at most a twentieth', (areas) => {
    const random = seededRandom(100 + areas)
    const runs = 5000
    let claimed = 0
    let covered = 0
    for (let run = 0; run < runs; run++) {
      const deeds = Array.from({ length: areas }, (_, i) => {
        const drift = drawNormal(random, 0, 0.3 * Math.SQRT2)
        // Two rounds in the same area share its drift.
        return [1, 2].map(() => deed(String(i), drift + drawNormal(random, 0, 0.3), Math.hypot(0.3, 0.3 * Math.SQRT2)))
      }).flat()
      const { verdict, effect } = evidenceOf(deeds)
      if (verdict === 'worked') claimed++
      if (effect.low <= 0 && effect.high >= 0) covered++
    }
    expect(claimed / runs).toBeLessThan(0.05 + 2 * Math.sqrt((0.05 * 0.95) / runs))
    expect(covered / runs).toBeGreaterThan(0.87)
  })

  test('the spread that an interval stands for is found again', () => {
    expect(logSdOf({ low: 1 - Math.exp(-1 + 1.644854 * 0.4), high: 1 - Math.exp(-1 - 1.644854 * 0.4) })).toBeCloseTo(0.4, 5)
  })
})

describe('what a comparison would have found', () => {
  const plan = { mean: 1.2, k: 1, units: 24, pairs: 1, areaSdLog: 0.3 }
  test('more units, more that is counted and areas that differ less tell smaller falls', () => {
    const here = tellableFall(plan)
    expect(tellableFall({ ...plan, mean: 0.05, units: 10 })).toBeUndefined()
    for (const better of [{ units: 96 }, { mean: 6 }, { k: 4 }, { areaSdLog: 0.1 }])
      expect(tellableFall({ ...plan, ...better })).toBeLessThan(here as number)
  })
  test('of more units alone there is an end: two areas differ by themselves', () => {
    expect(tellableFall({ ...plan, units: 1e6 })).toBeGreaterThan(0.6)
    expect(tellableFall({ ...plan, units: 1e6, pairs: 8 })).toBeLessThan(0.4)
  })
  test('the fewest units that tell a fall do, and one less does not', () => {
    const of = { mean: 4, k: 1, areaSdLog: 0.3 }
    for (const [fall, pairs] of [
      [0.8, 1],
      [0.7, 3],
      [0.5, 6],
    ] as const) {
      const units = unitsToTell(fall, { ...of, pairs }) as number
      expect(tellableFall({ ...of, pairs, units })).toBeLessThanOrEqual(fall)
      expect(tellableFall({ ...of, pairs, units: units - 1 }) ?? 1).toBeGreaterThan(fall)
    }
    expect(unitsToTell(0.4, { ...of, pairs: 1 })).toBeUndefined()
  })
  test('so much is found four times in five', () => {
    const fall = tellableFall({ ...plan, mean: 4, units: 40 }) as number
    const random = seededRandom(7)
    const variance = 3 * (1 / 160 + 1 / 40) + 1 / (160 * (1 - fall)) + 1 / 40 + 2 * 0.09
    let found = 0
    for (let i = 0; i < 4000; i++)
      if (
        evidenceOf([deed('a', Math.log(1 - fall) + drawNormal(random, 0, Math.sqrt(variance)), Math.sqrt(variance))]).verdict ===
        'lower-here'
      )
        found++
    expect(found / 4000).toBeCloseTo(0.8, 1)
  })
})

describe('how good forecasts were', () => {
  test('late ones are told from early ones, and days outside the bounds from those inside', () => {
    const skill = forecastSkill([
      { p10: 100, p50: 104, p90: 108, seen: 101 },
      { p10: 100, p50: 104, p90: 108, seen: 112 },
    ])
    expect(skill).toEqual({ forecasts: 2, bias: -2.5, error: 5.5, inside: 0.5 })
    expect(forecastSkill([])).toBeUndefined()
  })
  test('the calendar tells each year by the others', () => {
    expect(calendarSkill([140, 150])).toEqual({ forecasts: 2, bias: 0, error: 10 })
    expect(calendarSkill([140])).toBeUndefined()
  })
})

describe('from year to year', () => {
  test('a rate that holds is found, with hardly any interval', () => {
    const trend = yearlyTrend([2021, 2022, 2023, 2024, 2025].map((year, i) => ({ year, value: 100 * 0.7 ** i })))
    expect(trend?.yearly).toBeCloseTo(-0.3, 10)
    expect(trend!.high - trend!.low).toBeLessThan(1e-6)
  })
  test('years that are missing are not taken as years without', () => {
    const trend = yearlyTrend([
      { year: 2020, value: 80 },
      { year: 2022, value: 20 },
      { year: 2024, value: 5 },
    ])
    expect(trend?.yearly).toBeCloseTo(-0.5, 10)
  })
  test('years that scatter leave both ways open; two years say nothing', () => {
    const trend = yearlyTrend([9, 2, 11, 4].map((value, i) => ({ year: 2020 + i, value })))
    expect(trend!.low).toBeLessThan(0)
    expect(trend!.high).toBeGreaterThan(0)
    expect(
      yearlyTrend([
        { year: 2020, value: 8 },
        { year: 2021, value: 1 },
      ]),
    ).toBeUndefined()
  })
  test('a year without any stands as half of the least that was found', () => {
    expect(yearlyTrend([8, 4, 0].map((value, i) => ({ year: 2020 + i, value })))?.yearly).toBeCloseTo(-0.5, 10)
  })
})

describe('days over a threshold', () => {
  const at = (...values: number[]) => values.map((value, i) => ({ day: 7 * i, value }))
  test('are taken along the line from count to count', () => {
    expect(daysOver(at(0, 4, 4, 0), 2)).toBeCloseTo(14, 10)
    expect(daysOver(at(3, 3, 3), 2)).toBe(14)
    expect(daysOver(at(2, 2), 2)).toBe(7)
    expect(daysOver(at(1, 0.5), 2)).toBe(0)
  })
  test('one count spans no days', () => expect(daysOver(at(9), 2)).toBe(0))
})
