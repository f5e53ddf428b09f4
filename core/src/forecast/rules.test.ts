import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  byUrgency,
  countsAround,
  currentWindow,
  dayNumber,
  depositLeft,
  winterVerdict,
  firstDayOffered,
  forecastGrade,
  heatOfBegin,
  infectionState,
  shareReached,
  tellingCheck,
  treatedCounts,
  URGENCIES,
  urgencyOf,
  weatherBasis,
  type Stated,
  type StatedWindow,
  type WindowState,
} from '../index.js'

/* Rules of the field that server and page share, each by itself. */

describe('the grade of a forecast', () => {
  const known = { heat: { members: [{ pastSeason: 0, cumulative: new Float64Array(1) }] }, start: { how: 'calendar' as const } }
  test.each([
    ['dates where everything is known', { ...known, basis: 'station' as const, confidence: 'approximate' as const }, 'dates'],
    [
      'months where a number of the model only stands in',
      { ...known, basis: 'station' as const, confidence: 'placeholder' as const },
      'months',
    ],
    [
      'months while a biofix is awaited whose heat only stands in',
      {
        ...known,
        basis: 'station' as const,
        start: { how: 'expected' as const },
        confidence: 'established' as const,
        expectedConfidence: 'placeholder' as const,
      },
      'months',
    ],
    [
      'dates once that biofix was entered',
      {
        ...known,
        basis: 'station' as const,
        start: { how: 'entered' as const },
        confidence: 'established' as const,
        expectedConfidence: 'placeholder' as const,
      },
      'dates',
    ],
    ['nothing without weather', { ...known, basis: 'station' as const, heat: { members: [] }, confidence: 'established' as const }, 'none'],
    [
      'nothing without a start',
      { ...known, basis: 'station' as const, start: { how: 'none' as const }, confidence: 'established' as const },
      'none',
    ],
    [
      'the calendar where the site has no weather at all',
      { ...known, basis: 'none' as const, heat: { members: [] }, confidence: 'established' as const },
      'calendar',
    ],
  ])('is %s', (_, given, grade) => {
    expect(forecastGrade(given)).toBe(grade)
  })
})

test('an event has begun when three in a hundred have reached it', () => {
  for (const spread of [
    { kind: 'normal', median: 200, sd: 40 },
    { kind: 'lognormal', median: 200, sd: 40 },
    { kind: 'weibull', median: 200, shape: 2.2, onset: 90 },
  ] as const)
    expect(shareReached(heatOfBegin({ spread }), spread)).toBeCloseTo(0.03, 6)
})

describe('what weather rests on', () => {
  const tail = (made: boolean) => ({ pastSeason: 0, made, days: [] })
  const day = { min: 1, max: 9, rain: 0 }
  test.each([
    ['station', [day, undefined], [tail(false)]],
    ['station-and-normals', [day], [tail(false), tail(true)]],
    ['past-seasons', [undefined], [tail(false), tail(true)]],
    ['normals', [], [tail(true)]],
    ['none', [undefined], []],
  ] as const)('%s', (basis, observed, tails) => {
    expect(weatherBasis({ observed: [...observed], tails: [...tails] })).toBe(basis)
  })
})

describe('what a disease asks for', () => {
  const asked = (more: Partial<Parameters<typeof infectionState>[0]> = {}) =>
    infectionState({ days: [], todayIndex: 160, from: 120, until: 240, pressing: false, unknownShare: 0, ...more })
  const on = (day: number, probability = 1, curativeUntil: number | null = null) => ({ day, probability, curativeUntil })

  test('nothing before host and source are there, nor after', () => {
    expect([asked({ todayIndex: 119 }), asked({ todayIndex: 120 }), asked({ todayIndex: 239 }), asked({ todayIndex: 240 })]).toEqual([
      'coming',
      'quiet',
      'quiet',
      'over',
    ])
  })
  test('a cure as long as an infection that has passed can be reached, before any protection', () => {
    expect(asked({ days: [on(157, 1, 160), on(162)] })).toBe('cure')
    expect(asked({ days: [on(157, 1, 159), on(162)] })).toBe('protect')
  })
  test('protection where an infection is as likely as not, or the pressure is high', () => {
    expect([asked({ days: [on(163, 0.5)] }), asked({ days: [on(163, 0.49)] }), asked({ pressing: true })]).toEqual([
      'protect',
      'quiet',
      'protect',
    ])
  })
  test('that it is quiet is only said where most hours are known', () => {
    expect([asked({ unknownShare: 0.5 }), asked({ unknownShare: 0.51 })]).toEqual(['quiet', 'unknown'])
    expect(asked({ unknownShare: 0.9, days: [on(163, 0.8)] })).toBe('protect')
  })
})

describe('what presses', () => {
  const window = (state: WindowState, opens: number | null, closes: number | null = null): StatedWindow => ({
    state,
    opens: { p50: opens },
    closes: { p50: closes },
    bestDay: { p50: opens },
  })
  const stated = (windows: StatedWindow[], more: Partial<Stated> = {}): Stated => ({
    grade: 'dates',
    windows,
    infection: null,
    heat: { todayIndex: 160 },
    ...more,
  })

  test('is the window that is open, else the next one, else the last', () => {
    const [past, open, next] = [window('past', 120, 130), window('open', 155, 165), window('coming', 200, 220)]
    expect(currentWindow(stated([past, open, next]))).toBe(open)
    expect(currentWindow(stated([past, next]))).toBe(next)
    expect(currentWindow(stated([past, window('past', 140, 150)]))).toMatchObject({ closes: { p50: 150 } })
    expect(currentWindow(stated([]))).toBeUndefined()
  })

  test('nothing presses that rests on a number that only stands in', () => {
    expect(urgencyOf(stated([window('closing', 150, 161)], { grade: 'months' }))).toBe('unknown')
    expect(urgencyOf(stated([], { grade: 'months', infection: { state: 'cure', from: 120, days: [] } }))).toBe('unknown')
  })

  test('an infection that can be cured presses as a window that closes, and stands before one that is open', () => {
    const cure = stated([], { infection: { state: 'cure', from: 120, days: [] } })
    const order = [stated([window('coming', 180)]), stated([window('open', 150, 170)]), cure, stated([window('past', 100, 120)])].sort(
      byUrgency,
    )
    expect(order.map(urgencyOf)).toEqual(['closing', 'open', 'coming', 'past'])
  })

  test('of two that are open the one that closes first stands first', () => {
    const [early, late] = [stated([window('open', 150, 163)]), stated([window('open', 150, 180)])]
    expect([late, early].sort(byUrgency)).toEqual([early, late])
  })

  test('the order is one order, whatever there is', () => {
    const any = fc.record({
      grade: fc.constantFrom('dates' as const, 'months' as const, 'none' as const),
      windows: fc.array(
        fc
          .record({
            state: fc.constantFrom('coming', 'open', 'closing', 'past', 'poorly-reachable', 'not-this-season'),
            opens: fc.option(fc.nat(364)),
          })
          .map(({ state, opens }) => window(state as WindowState, opens, opens)),
        { maxLength: 3 },
      ),
      infection: fc.constant(null),
      heat: fc.constant({ todayIndex: 160 }),
    })
    fc.assert(
      fc.property(any, any, any, (a, b, c) => {
        expect(URGENCIES).toContain(urgencyOf(a))
        expect(Math.sign(byUrgency(a, b))).toBe(-Math.sign(byUrgency(b, a)) + 0)
        if (byUrgency(a, b) <= 0 && byUrgency(b, c) <= 0) expect(byUrgency(a, c)).toBeLessThanOrEqual(0)
      }),
    )
  })

  test('a treatment is offered on the day that reaches most, the day before a likely infection, and never before today', () => {
    expect(firstDayOffered(stated([window('coming', 171.6, 180)]), 160)).toBe(171)
    expect(firstDayOffered(stated([window('open', 150, 170)]), 160)).toBe(160)
    const infection = {
      state: 'protect' as const,
      from: 120,
      days: [
        { day: 162, probability: 0.2 },
        { day: 165, probability: 0.7 },
      ],
    }
    expect(firstDayOffered(stated([], { infection }), 160)).toBe(164)
    expect(firstDayOffered(stated([], { infection: { ...infection, days: [{ day: 160, probability: 0.9 }] } }), 160)).toBe(160)
  })
})

describe('which counts tell of a treatment', () => {
  const count = (day: number, checkAreaId: string | null = null) => ({ day, checkAreaId })

  test('the last on or before its day and the first after it, within four weeks', () => {
    const counts = [count(70), count(95), count(100), count(104), count(110)]
    expect(countsAround(counts, 100)).toEqual({ before: count(100), after: count(104) })
    expect(countsAround(counts, 99)).toEqual({ before: count(95), after: count(100) })
    expect(countsAround([count(71), count(129)], 100)).toEqual({ before: undefined, after: undefined })
    expect(countsAround([count(72), count(128)], 100)).toEqual({ before: count(72), after: count(128) })
  })

  test('what shows late is judged by the first count from then on, whatever was counted meanwhile', () => {
    const counts = [count(95), count(104), count(114), count(120)]
    expect(countsAround(counts, 100, 14)).toEqual({ before: count(95), after: count(114) })
    // Sixty days on it is still looked for, though that is far from the treatment.
    expect(countsAround([count(95), count(165)], 100, 60)).toEqual({ before: count(95), after: count(165) })
    // While there is none, the first after it stands in.
    expect(countsAround(counts.slice(0, 2), 100, 14)).toEqual({ before: count(95), after: count(104) })
    expect(treatedCounts([count(104, 'row 4'), count(115)], 100, 14).after).toEqual(count(115))
    expect(tellingCheck([count(98, 'row 4'), count(104, 'row 4'), count(116, 'row 4')], 100, 14)?.after).toEqual(count(116, 'row 4'))
  })

  test('where it was treated, none of a check area', () => {
    expect(treatedCounts([count(98), count(99, 'row 4'), count(103, 'row 4'), count(105)], 100)).toEqual({
      before: count(98),
      after: count(105),
    })
  })

  test('of the check areas the one that was counted before and after; of equals the first', () => {
    const [once, both, other] = ['once', 'both', 'other']
    const counts = [count(96, once), count(97, both), count(98, other), count(106, both), count(107, other)]
    expect(tellingCheck(counts, 100)).toMatchObject({ checkAreaId: both, before: { day: 97 }, after: { day: 106 } })
    expect(tellingCheck(counts.slice(0, 1), 100)).toMatchObject({ checkAreaId: once, after: undefined })
    expect(tellingCheck([count(97)], 100)).toBeUndefined()
  })

  test('are never on the wrong side, nor too far', () => {
    fc.assert(
      fc.property(fc.array(fc.nat(300)), fc.nat(300), (days, day) => {
        const counts = days.sort((a, b) => a - b).map((d) => count(d))
        const { before, after } = countsAround(counts, day)
        if (before) expect(before.day <= day && day - before.day <= 28).toBe(true)
        if (after) expect(after.day > day && after.day - day <= 28).toBe(true)
        expect(before === undefined).toBe(!days.some((d) => d <= day && day - d <= 28))
      }),
    )
  })
})

describe('what rain leaves of a deposit', () => {
  test('half after 25 mm, all without rain, and nothing is said where a day is not known', () => {
    expect([depositLeft([25]), depositLeft([10, 0, 15]), depositLeft([]), depositLeft([3, null])]).toEqual([0.5, 0.5, 1, null])
  })
})

describe('what a winter did to what carries over', () => {
  const cold = (lowest: number, probe = NaN) => {
    const from = dayNumber('2025-09-01')
    const length = dayNumber('2026-06-01') - from
    const winter = (i: number) => Math.abs(from + i - dayNumber('2026-01-20')) < 15
    const mean = (i: number) => (winter(i) ? lowest + 3 : 8)
    const soil = Float64Array.from({ length: length * 24 }, (_, h) => (winter(Math.floor(h / 24)) ? probe : probe + 6))
    const none = new Float64Array(length * 24).fill(NaN)
    return {
      series: {
        firstDay: from,
        min: Float64Array.from({ length }, (_, i) => mean(i) - 3),
        max: Float64Array.from({ length }, (_, i) => mean(i) + 3),
        filled: new Float64Array(length),
      },
      hours: { firstHour: from * 24, length: length * 24, values: { temperature: none, humidity: none, rain: none, wetness: none, soil } },
    }
  }
  const [season, today] = [dayNumber('2026-01-01'), dayNumber('2026-06-01')]
  const verdict = (place: ReturnType<typeof cold>, medium: 'air' | 'soil' = 'soil', at = today) =>
    winterVerdict({ medium, killedBelow: -2 }, place, 'bare', season, at)

  test('the soil follows the air, and is said to be estimated', () => {
    const found = verdict(cold(-12))!
    expect(found).toMatchObject({ verdict: 'killed', read: false })
    expect(found.lowest).toBeCloseTo(-9, 0)
    expect(verdict(cold(-5))).toMatchObject({ verdict: 'doubtful' })
    expect(verdict(cold(0))).toMatchObject({ verdict: 'alive' })
  })
  test('a probe in the soil decides, and is not doubted', () => {
    expect(verdict(cold(-12, -1.9))).toMatchObject({ verdict: 'alive', read: true })
    expect(verdict(cold(-12, -2.1))).toMatchObject({ verdict: 'killed', read: true })
  })
  test('what winters in the air meets its coldest night', () => {
    expect(verdict(cold(-12), 'air')).toMatchObject({ verdict: 'killed', lowest: -12 })
  })
  test('nothing is said before the winter is over, or where it is not known', () => {
    expect(verdict(cold(-12), 'soil', dayNumber('2026-03-01'))).toBeNull()
    const gap = cold(-12)
    gap.series.min.fill(NaN, 60, 200)
    gap.series.max.fill(NaN, 60, 200)
    expect(verdict(gap)).toBeNull()
  })
})
