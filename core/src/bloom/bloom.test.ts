import { describe, expect, test } from 'vitest'
import { drawNormal, seededRandom } from '../statistics/index.js'
import type { SeasonHeat } from '../weather/seasonHeat.js'
import {
  flowerSpan,
  learntBlooms,
  mayFlowerOn,
  moveByShift,
  rankIndicator,
  seasonShift,
  sharedShiftSd,
  type IndicatorYear,
  type PlacedBloom,
} from './index.js'

describe('the shift of a season', () => {
  test('worked by hand: one bloom as uncertain as the prior moves it half way', () => {
    const { heat, sd, held } = seasonShift([{ heat: 80, expected: 100, sd: 15 }], [], 15)
    expect(heat).toBeCloseTo(-10, 9)
    expect(sd).toBeCloseTo(15 / Math.SQRT2, 9)
    expect(held).toBe(false)
  })

  test('is held within twice the prior, and says so', () => {
    const far = Array.from({ length: 12 }, () => ({ heat: 20, expected: 100, sd: 6 }))
    expect(seasonShift(far, [], 15)).toMatchObject({ heat: -30, held: true })
  })

  test('what has not come yet moves it later only as far as it should have come', () => {
    const late = seasonShift([], [{ heat: 120, expected: 100, sd: 8 }], 15)
    const early = seasonShift([], [{ heat: 60, expected: 100, sd: 8 }], 15)
    expect(late.heat).toBeGreaterThan(10)
    expect(early.heat).toBeLessThan(0.5)
    expect(late.sd).toBeLessThan(15)
    // Far overdue it is held, not forgotten.
    expect(seasonShift([], [{ heat: 400, expected: 100, sd: 8 }], 15)).toMatchObject({ heat: 30, held: true })
  })

  test('covers a hidden shift as often as its interval says, with blooms seen and blooms not yet come', () => {
    const random = seededRandom(45)
    let within = 0
    const runs = 400
    for (let run = 0; run < runs; run++) {
      const truth = drawNormal(random, 0, 12)
      const bloom = (expected: number) => ({ heat: expected + truth + drawNormal(random, 0, 8), expected, sd: 8 })
      const now = 150
      const all = [40, 60, 80, 100, 120, 140, 160].map(bloom)
      const seen = all.filter(({ heat }) => heat <= now)
      const notYet = all.filter(({ heat }) => heat > now).map((b) => ({ ...b, heat: now }))
      const shift = seasonShift(seen, notYet, 12)
      if (Math.abs(shift.heat - truth) < 1.645 * shift.sd) within++
    }
    const rate = within / runs
    // 90 %, with three binomial standard errors; the truncated moments are close, not exact.
    expect(rate).toBeGreaterThan(0.9 - 3 * Math.sqrt((0.9 * 0.1) / runs) - 0.01)
    expect(rate).toBeLessThan(0.9 + 3 * Math.sqrt((0.9 * 0.1) / runs) + 0.02)
  })

  test('its size between years is found where blooms of a year move together', () => {
    const random = seededRandom(9)
    const years = Array.from({ length: 200 }, () => {
      const shared = drawNormal(random, 0, 12)
      return Array.from({ length: 6 }, () => shared + drawNormal(random, 0, 6))
    })
    expect(Math.abs(sharedShiftSd(years)! - 12)).toBeLessThan(2)
    expect(sharedShiftSd([[1, 2], [3]])).toBeUndefined()
  })

  test('moves events and narrows what they share, never their spread', () => {
    const event = { generation: 'first', id: 'hatch', stage: 'larva', spread: { kind: 'normal' as const, median: 140, sd: 40 }, heatSe: 18 }
    const [moved] = moveByShift([event], { heat: -12, sd: 4, prior: 15 })
    expect(moved!.spread).toEqual({ kind: 'normal', median: 128, sd: 40 })
    expect(moved!.heatSe).toBeCloseTo(Math.hypot(Math.sqrt(18 ** 2 - 15 ** 2), 4), 9)
    const [surer] = moveByShift([{ ...event, heatSe: 10 }], { heat: 0, sd: 1, prior: 15 })
    expect(surer!.heatSe).toBeCloseTo(Math.hypot(5, 1), 9)
  })

  test('names what is wrong', () => {
    expect(() => seasonShift([{ heat: NaN, expected: 1, sd: 1 }], [])).toThrow(/seen\[0\]\.heat/)
    expect(() => seasonShift([], [{ heat: 1, expected: 1, sd: 0 }])).toThrow(/notYet\[0\]\.sd/)
  })
})

describe('indicators', () => {
  const random = seededRandom(21)
  /** Years whose plants and pests share a shift: a bloom that moves with the pest foretells it better than heat. */
  const years = (own: number, count = 8): IndicatorYear[] =>
    Array.from({ length: count }, (_, y) => {
      const cumulative = Float64Array.from({ length: 300 }, (__, i) => (i < 60 ? 0 : (i - 59) * (2.4 + y * 0.5)))
      const shared = drawNormal(random, 0, 16)
      const eventHeat = 260 + shared + drawNormal(random, 0, 4)
      const bloomHeat = 150 + shared + drawNormal(random, 0, own)
      const on = (heat: number): number => 60 + heat / (2.4 + y * 0.5) - 1
      return { eventHeat, bloomHeat, eventDay: on(eventHeat), bloomDay: on(bloomHeat), cumulative }
    })
  const steady = years(3)
  const loose = years(30)

  test('the one that moves with the pest is ranked first, beats heat, and heat beats the calendar', () => {
    const best = rankIndicator(steady)!
    const other = rankIndicator(loose)!
    expect(best.error).toBeLessThan(other.error)
    expect(best.better).toBe(true)
    expect(best.byHeat.error).toBeLessThan(best.byCalendar.error)
    expect(best.leadHeat).toBeGreaterThan(100)
    expect(best.leadHeat).toBeLessThan(120)
    expect(best.leadDays).toBeGreaterThan(20)
    expect(best.spread).toBeLessThan(12)
  })

  test('one year written down wrongly does not change which is best, nor the lead', () => {
    const spoilt = steady.map((year, i) => (i === 3 ? { ...year, bloomHeat: year.bloomHeat - 120, bloomDay: year.bloomDay - 40 } : year))
    const rank = rankIndicator(spoilt)!
    expect(rank.leadHeat).toBeCloseTo(rankIndicator(steady)!.leadHeat, -1)
    expect(rank.error).toBeLessThan(rankIndicator(loose)!.error)
  })

  test('a year of which the bloom is missing is left out, and the others still tell', () => {
    const gap = rankIndicator(steady.filter((_, i) => i !== 4))!
    expect(gap.years).toBe(7)
    expect(gap.leadHeat).toBeCloseTo(rankIndicator(steady)!.leadHeat, -1)
    expect(gap.better).toBe(true)
  })

  test('says nothing with fewer than three years', () => {
    expect(rankIndicator(steady.slice(0, 2))).toBeUndefined()
    expect(rankIndicator(steady.slice(0, 3))!.years).toBe(3)
  })
})

describe('when a plant is in flower, for bees', () => {
  const expected = { from: 100, until: 125 }
  test('is from where it was seen to open to its end, held long while nobody saw that', () => {
    expect(flowerSpan({ opened: 110, ended: null }, expected)).toEqual({ from: 110, until: 125, how: 'seen' })
    expect(flowerSpan({ opened: 110, ended: 118 }, expected)).toEqual({ from: 110, until: 118, how: 'seen' })
    expect(flowerSpan({ opened: 130, ended: null }, expected)).toEqual({ from: 130, until: 190, how: 'seen' })
    expect(flowerSpan({ opened: null, ended: 118 }, expected)).toEqual({ from: 100, until: 118, how: 'seen' })
  })
  test('is what is expected where nothing was seen, at its widest, and unknown where nothing tells', () => {
    expect(flowerSpan({ opened: null, ended: null }, expected)).toEqual({ from: 100, until: 125, how: 'expected' })
    const unknown = flowerSpan({ opened: null, ended: null }, { from: null, until: null })
    expect([unknown.how, mayFlowerOn(unknown, 110)]).toEqual(['unknown', undefined])
  })
  test('is told day by day', () => {
    const span = flowerSpan({ opened: 110, ended: 118 }, expected)
    expect([109, 110, 118, 119].map((day) => mayFlowerOn(span, day))).toEqual([false, true, true, false])
  })
})

test('a plant of one’s own learns its heat from three seasons of dates, and not from two', () => {
  const at = (season: number, heat: number, event = 'first-open') =>
    ({
      sighting: { plantId: 'own-1', event, season, seenFrom: season + 120, seenTo: season + 120, notYet: false },
      heat,
      day: 120,
      datingSd: 5,
      season: {} as SeasonHeat,
    }) satisfies PlacedBloom
  const three = [at(0, 180), at(365, 200), at(730, 230), at(730, 300)]
  expect(learntBlooms(three, 'own-1')).toEqual([{ event: 'first-open', heat: 200, heatSe: expect.any(Number) as number, seasons: 3 }])
  expect(learntBlooms(three.slice(0, 2), 'own-1')).toEqual([])
  expect(learntBlooms(three, 'own-2')).toEqual([])
})
