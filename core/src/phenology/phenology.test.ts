import { describe, expect, test } from 'vitest'
import { predictiveBounds } from '../statistics/predictive.js'
import { drawNormal, seededRandom } from '../statistics/random.js'
import { civilDate, dayNumber } from '../time/civilDays.js'
import { drawn, drawScores, drawsPerSeason, seasonBySeason } from '../weather/draws.js'
import {
  boundsOfDates,
  calendarBiofix,
  chillBiofix,
  datesOf,
  dayOfHeat,
  ensembleOf,
  eventBounds,
  generationsByDiapause,
  heatAtShare,
  probabilityBy,
  resolveEvents,
  sdOf,
  shareReached,
  spreadThrough,
  stageShareBounds,
  stageShares,
  type OrganismModel,
} from './index.js'

describe('a published figure refers to a share, not to the median', () => {
  test.each(['normal', 'lognormal', 'logistic'] as const)('%s', (kind) => {
    const spread = spreadThrough({ kind, heat: 139, atShare: 0.03, sd: 80 })
    expect(shareReached(139, spread)).toBeCloseTo(0.03, 9)
    expect(heatAtShare(0.5, spread)).toBeCloseTo(spread.median, 6)
    expect(spread.median).toBeGreaterThan(139)
  })

  test('the sd of a lognormal is its actual one', () => {
    const spread = { kind: 'lognormal', median: 240, sd: 85 } as const
    const quantiles = Array.from({ length: 40_000 }, (_, i) => heatAtShare((i + 0.5) / 40_000, spread))
    const mean = quantiles.reduce((a, b) => a + b, 0) / quantiles.length
    const sd = Math.sqrt(quantiles.reduce((a, b) => a + (b - mean) ** 2, 0) / quantiles.length)
    expect(sd).toBeGreaterThan(84)
    expect(sd).toBeLessThan(85.5)
  })
})

const MODEL: OrganismModel = {
  heat: { method: 'single-sine', lower: 10 },
  generations: [
    {
      id: 'first',
      reachableStages: ['egg'],
      events: [
        { id: 'eggs', stage: 'egg', heat: 100, atShare: 0.5, spread: 30, heatSe: 12, distribution: 'normal' },
        { id: 'hatch', stage: 'larva', heat: 80, atShare: 0.5, spread: 40, heatSe: 5, distribution: 'normal', countedFrom: 'eggs' },
      ],
    },
  ],
}

describe('a model resolved', () => {
  test('a figure counted from an earlier event adds its median and both variances', () => {
    const [, hatch] = resolveEvents(MODEL)
    expect(hatch?.spread).toMatchObject({ median: 180, sd: 50 })
    expect(hatch?.heatSe).toBe(13)
  })

  test('counting from an event that does not come before is refused', () => {
    const [first] = MODEL.generations
    const events = first!.events.map((e) => ({ ...e, countedFrom: 'pupation' }))
    expect(() => resolveEvents({ ...MODEL, generations: [{ ...first!, events }] })).toThrow(
      'must name an earlier event, got pupation in eggs',
    )
  })

  test('stage shares match a population of individuals drawn one by one', () => {
    const random = seededRandom(99)
    const heat = 170
    const found = [0, 0, 0]
    const individuals = 40_000
    for (let i = 0; i < individuals; i++) {
      const laid = drawNormal(random, 100, 30)
      const hatched = laid + Math.max(0, drawNormal(random, 80, 40))
      found[heat < laid ? 0 : heat < hatched ? 1 : 2]!++
    }
    const shares = stageShares(
      heat,
      resolveEvents(MODEL).map(({ spread }) => spread),
    )
    shares.forEach((share, i) => expect(share).toBeCloseTo(found[i]! / individuals, 1.7))
  })
})

describe('when a heat is reached', () => {
  const cumulative = [0, 0, 4, 10, 10, 20]
  test('lies within the day that brings it, in proportion', () => {
    expect(dayOfHeat(cumulative, 2)).toBeCloseTo(2.5)
    expect(dayOfHeat(cumulative, 10)).toBe(4)
    expect(dayOfHeat(cumulative, 15)).toBeCloseTo(5.5)
  })
  test('is the first day that brings any, for heat at or below 0', () => {
    expect(dayOfHeat(cumulative, 0)).toBe(2)
    expect(dayOfHeat(cumulative, -30)).toBe(2)
    expect(dayOfHeat([5, 9], 0)).toBe(0)
  })
  test('is never, where the season ends before', () => expect(dayOfHeat(cumulative, 20.1)).toBe(Infinity))
})

describe('draws of a season', () => {
  test('give every season the same twelve scores, each season in an order of its own, and the same for the same seed', () => {
    const scores = drawScores(drawsPerSeason(1), 5, seededRandom(1))
    const seasons = seasonBySeason(scores, 5)
    for (const season of seasons) {
      expect(season).toHaveLength(12)
      expect(season.reduce((a, b) => a + b, 0)).toBeCloseTo(0, 9)
      expect(new Set(season)).toEqual(new Set(seasons[0]))
    }
    expect(seasons[1]).not.toEqual(seasons[0])
    expect(drawScores(12, 5, seededRandom(1))).toEqual(scores)
  })

  test('repeat what there is until every stratum has been met, and otherwise take each member of the forecast once', () => {
    const names = ['f0 y0', 'f0 y1', 'f1 y0', 'f1 y1']
    const few = drawn(names, 2, 2)
    expect(few).toHaveLength(24)
    expect(
      seasonBySeason(
        few.map((name) => names.indexOf(name)),
        2,
      ).map((season) => season.filter((i) => i < 2).length),
    ).toEqual([6, 6])
    expect(
      drawn(
        Array.from({ length: 30 }, (_, i) => i),
        15,
        2,
      ),
    ).toEqual(Array.from({ length: 30 }, (_, i) => i))
    expect(drawn([], 0, 3)).toEqual([])
  })
})

describe('an event spread as a Weibull', () => {
  const weibull = {
    id: 'up',
    stage: 'seedling',
    heat: 90,
    atShare: 0.25,
    heatSe: 5,
    distribution: 'weibull',
    shape: 1.6,
    onset: 30,
  } as const
  const model: OrganismModel = {
    heat: { method: 'single-sine', lower: 3 },
    generations: [
      {
        id: 'first',
        reachableStages: ['seedling'],
        events: [
          weibull,
          { id: 'grown', stage: 'rosette', heat: 200, atShare: 0.5, spread: 40, heatSe: 12, distribution: 'lognormal', countedFrom: 'up' },
        ],
      },
    ],
  }

  test('has reached its share at its heat and nothing before its onset', () => {
    const [up] = resolveEvents(model)
    expect(shareReached(90, up!.spread)).toBeCloseTo(0.25, 9)
    expect(shareReached(30, up!.spread)).toBe(0)
  })

  test('hands its own spread on to what is counted from it', () => {
    const [up, grown] = resolveEvents(model)
    // Standard deviation of a Weibull by its gamma functions: Γ(1.625) = 0.8966, Γ(2.25) = 1.1330.
    const scale = (up!.spread.median - 30) / Math.LN2 ** (1 / 1.6)
    const exact = scale * Math.sqrt(1.133 - 0.8966 ** 2)
    expect(sdOf(up!.spread) / exact).toBeCloseTo(1, 1)
    expect(grown!.spread).toMatchObject({ kind: 'lognormal', median: up!.spread.median + 200 })
    expect((grown!.spread as { sd: number }).sd).toBeCloseTo(Math.hypot(sdOf(up!.spread), 40), 9)
  })
})

describe('a biofix that nobody has entered', () => {
  test('moves every event by the heat at which it is expected and widens its bounds, not its spread', () => {
    const seen = resolveEvents(MODEL)
    const expected = resolveEvents(MODEL, { heat: 95, heatSe: 16 })
    seen.forEach((event, i) => {
      expect(expected[i]!.spread.median).toBeCloseTo(event.spread.median + 95, 9)
      expect(sdOf(expected[i]!.spread)).toBeCloseTo(sdOf(event.spread), 9)
      expect(expected[i]!.heatSe).toBeCloseTo(Math.hypot(event.heatSe, 16), 9)
    })
  })

  const at = (month: number, day: number, season: string, hemisphere: 'north' | 'south'): string =>
    civilDate(calendarBiofix({ month, day }, dayNumber(season), hemisphere))

  test('by the calendar lies half a year later in the south, and in autumn before the season for what winters green', () => {
    expect(at(3, 1, '2026-01-01', 'north')).toBe('2026-03-01')
    expect(at(3, 1, '2026-07-01', 'south')).toBe('2026-09-01')
    expect(at(1, 1, '2026-07-01', 'south')).toBe('2026-07-01')
    expect(at(9, 15, '2026-01-01', 'north')).toBe('2025-09-15')
    expect(at(9, 15, '2026-07-01', 'south')).toBe('2026-03-15')
    expect(at(8, 20, '2026-01-01', 'north')).toBe('2026-08-20')
  })

  test('by chill is the day it was met, or the middle of the past seasons with how far those lay apart', () => {
    const firstHour = dayNumber('2019-08-01') * 24
    const until = dayNumber('2026-01-20') * 24
    // Six degrees all winter long: chill comes at a steady rate, later each year that started warm.
    const values = Float64Array.from({ length: until - firstHour }, (_, i) => {
      const day = Math.floor((firstHour + i) / 24)
      const winter = Number(civilDate(day + 120).slice(0, 4))
      const warmUntil = dayNumber(`${winter - 1}-10-01`) + (winter % 3) * 10
      return day < warmUntil ? 22 : 6
    })
    const seen = (season: string, today: string) => chillBiofix(40, { firstHour, values }, dayNumber(season), dayNumber(today))!
    const met = seen('2025-01-01', '2025-06-01')
    expect(met.met).toBe(true)
    expect(met.sd).toBe(0)
    const open = seen('2026-01-01', '2025-10-20')
    expect(open.met).toBe(false)
    expect(open.sd).toBeGreaterThan(2)
    expect(Math.abs(open.day - seen('2026-01-01', '2026-01-20').day)).toBeLessThan(25)
    expect(
      chillBiofix(40, { firstHour, values: values.subarray(0, 2000) }, dayNumber('2026-01-01'), dayNumber('2026-02-01')),
    ).toBeUndefined()
  })
})

describe('generations', () => {
  const generation = (id: string, after?: string) => ({
    id,
    reachableStages: ['egg'],
    diapause: { at: `${id}-egg`, criticalHours: 14, slope: 0.6 },
    events: [
      {
        id: `${id}-egg`,
        stage: 'egg',
        heat: 100,
        atShare: 0.5,
        spread: 15,
        heatSe: 5,
        distribution: 'normal' as const,
        ...(after ? { countedFrom: after } : {}),
      },
      {
        id: `${id}-larva`,
        stage: 'larva',
        heat: 60,
        atShare: 0.5,
        spread: 12,
        heatSe: 4,
        distribution: 'normal' as const,
        countedFrom: `${id}-egg`,
      },
    ],
  })
  const model: OrganismModel = {
    heat: { method: 'single-sine', lower: 10 },
    generations: [generation('a'), generation('b', 'a-larva'), generation('c', 'b-larva')],
  }
  const events = resolveEvents(model)
  /** Two °C·d a day: the first eggs on day 50, the second on day 130, the third on day 210. */
  const steady = Float64Array.from({ length: 365 }, (_, i) => 2 * (i + 1))

  test('lose what goes into diapause as days shorten, and each sums to its share', () => {
    const [first, second, third] = generationsByDiapause(model, events, steady, (day) => (day < 100 ? 15.5 : day < 160 ? 14 : 12)).shares
    expect(first).toBe(1)
    expect(second).toBeGreaterThan(0.99)
    expect(third! / second!).toBeCloseTo(0.5, 1)
    const weights = events.map(({ generation: g }) => [first!, second!, third!][['a', 'b', 'c'].indexOf(g)]!)
    const shares = stageShares(
      5000,
      events.map(({ spread }) => spread),
      weights,
    )
    expect(shares.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 9)
    // What is in diapause stays in the last stage of its generation.
    expect(shares[4]).toBeCloseTo(second! - third!, 6)
    expect(shares[6]).toBeCloseTo(third!, 6)
  })

  test('are brought by the early ones, which go on: earlier, and nearer together', () => {
    const at = events.find(({ id }) => id === model.generations[1]!.diapause!.at)!
    const middle = at.spread.median / 2
    const { events: placed, shares } = generationsByDiapause(model, events, steady, (day) => (day < middle ? 16 : 10))
    expect(shares[2]! / shares[1]!).toBeCloseTo(0.5, 1)
    const of = (list: typeof events, last: boolean) =>
      list.filter(({ generation }) => (generation === 'c') === last).map(({ spread }) => spread)
    for (const [i, { median }] of of(placed, false).entries()) expect(median).toBeCloseTo(of(events, false)[i]!.median, 0)
    for (const [i, spread] of of(placed, true).entries()) {
      const whole = of(events, true)[i]!
      // Half a normal lies 0.8 of its width before the middle.
      expect(whole.median - spread.median).toBeCloseTo(0.8 * sdOf(at.spread), -0.7)
      expect(sdOf(spread)).toBeLessThan(sdOf(whole))
    }
  })

  test('that the season does not bring to their sensitive stage winter as they are', () => {
    const short = steady.subarray(0, 60)
    expect(generationsByDiapause(model, events, short, () => 16).shares[2]).toBe(0)
  })
})

describe('the forecast of an event', () => {
  const members = [0.8, 1, 1.25].map((pace, i) => ({
    pastSeason: i,
    cumulative: Float64Array.from({ length: 200 }, (_, d) => 2 * pace * (d + 1)),
  }))
  const [eggs] = resolveEvents(MODEL)

  test('gives each member its date, moved by its score, and the probability by a day', () => {
    const dates = datesOf(eggs!, 0.5, members, [0, 0, 0])
    expect(dates.map((d) => Math.round(d * 10) / 10)).toEqual([62.5, 50, 40])
    expect(datesOf(eggs!, 0.5, members, [1, 1, 1])[1]).toBeCloseTo(56, 6)
    const chances = [20, 45, 55, 85].map((day) => probabilityBy(dates, day, { seasons: 3, openIndex: 0 }))
    expect(chances.every((chance, i) => i === 0 || chance > chances[i - 1]!)).toBe(true)
    expect(chances[0]).toBeLessThan(0.1)
    expect(chances[3]).toBeGreaterThan(0.9)
  })

  test('that lies in observed days is sure but for its figure', () => {
    const past = { seasons: 1, openIndex: 100 }
    const sure = boundsOfDates([50, 50, 50], past)
    for (const date of [sure.p10, sure.p50, sure.p90]) expect(date).toBeCloseTo(50, 6)
    expect(boundsOfDates([50, 50, 50], { ...past, openIndex: 20 }).p90).toBeGreaterThan(57)
  })

  test('comes in its order within a generation, at every percentile', () => {
    const events = resolveEvents(MODEL).map((event, i) => ({ ...event, heatSe: 40 - 38 * i }))
    const ensemble = ensembleOf({ members: drawn(members, 1, 3), seasons: 3, openIndex: 0 })
    const found = eventBounds(events, 0.5, ensemble)
    for (const percentile of ['p10', 'p50', 'p90'] as const)
      found.forEach((b, i) => i > 0 && expect(b[percentile]).toBeGreaterThanOrEqual(found[i - 1]![percentile]))
  })

  test('bounds stage shares by warm and cool members', () => {
    const events = resolveEvents(MODEL)
    const ensemble = ensembleOf({ members: drawn(members, 1, 3), seasons: 3, openIndex: 0 })
    const spread = stageShareBounds(events, [1, 1], ensemble, 49)
    expect(spread.map(({ stage }) => stage)).toEqual(events.map(({ stage }) => stage))
    for (const { share } of spread) {
      expect(share.p10 <= share.p50 && share.p50 <= share.p90).toBe(true)
      expect(share.p10 >= 0 && share.p90 <= 1).toBe(true)
    }
  })

  test('adds the shares of several generations before it takes their bounds, as a plain loop does', () => {
    const event = (generation: string, id: string, stage: string, median: number) => ({
      ...{ generation, id, stage, heatSe: 15 },
      spread: { kind: 'normal' as const, median, sd: 20 },
    })
    const events = [
      event('first', 'a', 'egg', 80),
      event('first', 'b', 'larva', 130),
      event('second', 'c', 'egg', 150),
      event('second', 'd', 'larva', 200),
    ]
    const weights = [1, 1, 1, 1]
    const pace = Array.from({ length: 11 }, (_, i) => 0.7 + i * 0.06)
    const curves = pace.map((p, i) => ({ pastSeason: i, cumulative: Float64Array.from({ length: 200 }, (_, d) => 2 * p * (d + 1)) }))
    const ensemble = ensembleOf({ members: drawn(curves, 1, 11), seasons: 11, openIndex: 0 })
    const day = 70
    const eggs = ensemble.members.map(({ cumulative }, m) => {
      const moved = events.map(({ spread, heatSe }) => ({ ...spread, median: spread.median + ensemble.scores[m]! * heatSe }))
      const shares = stageShares(cumulative[day]!, moved, weights)
      return shares[1]! + shares[3]!
    })
    const plain = predictiveBounds(seasonBySeason(eggs, 11))
    const { share } = stageShareBounds(events, weights, ensemble, day).find(({ stage }) => stage === 'egg')!
    for (const percentile of ['p10', 'p50', 'p90'] as const)
      expect(share[percentile]).toBeCloseTo(Math.min(1, Math.max(0, plain[percentile])), 9)
  })
})
