import { describe, expect, test } from 'vitest'
import { degreeDays } from '../heat/index.js'
import { drawNormal, seededRandom, type Random } from '../statistics/index.js'
import { dayOfHeat } from './eventDates.js'
import { ownClock, scoresOfFew, type ClockSeason } from './ownClock.js'

type Climate = (lower: number) => Float64Array

/** A year of a temperate place: a cold or warm spring as a whole, and weather that lasts for days. */
function year(random: Random): Climate {
  const spring = drawNormal(random, 0, 1.8)
  let lasting = 0
  const days = Array.from({ length: 365 }, (_, i) => {
    lasting = 0.75 * lasting + drawNormal(random, 0, 2.2)
    const mean = 10 + 11 * Math.sin((2 * Math.PI * (i - 108)) / 365) + spring * Math.exp(-(((i - 110) / 60) ** 2)) + lasting
    return { min: mean - 6, max: mean + 6 }
  })
  const made = new Map<number, Float64Array>()
  return (lower) => {
    const known = made.get(lower)
    if (known) return known
    let sum = 0
    const sums = Float64Array.from(days, (day) => (sum += degreeDays(day, { method: 'single-sine', lower })))
    made.set(lower, sums)
    return sums
  }
}

/** An event that keeps its own heat, with years and looks that scatter. */
const byHeat = (random: Random, heat: number, lower: number): ClockSeason => {
  const heatAbove = year(random)
  return { day: dayOfHeat(heatAbove(lower), heat + drawNormal(random, 0, 12)) + drawNormal(random, 0, 0.8), heatAbove }
}
/** One that keeps its date, whatever the weather. */
const byCalendar = (random: Random): ClockSeason => ({ day: 150 + drawNormal(random, 0, 5), heatAbove: year(random) })
const several = (n: number, one: () => ClockSeason): ClockSeason[] => Array.from({ length: n }, one)

describe('a clock of one’s own records', () => {
  test('is not made of fewer than three seasons, is shown from three on, and offered from five', () => {
    const random = seededRandom(3)
    const seasons = several(5, () => byHeat(random, 260, 8))
    expect(ownClock(seasons.slice(0, 2))).toBeUndefined()
    expect(ownClock(seasons.slice(0, 4))).toMatchObject({ seasons: 4, lower: 10, offered: false, df: 3 })
    expect(ownClock(seasons)!.seasons).toBe(5)
  })

  test('says its error as it is: five seasons foretell a sixth by about what leaving one out said', { timeout: 20_000 }, () => {
    const random = seededRandom(41)
    let said = 0
    let met = 0
    let calendar = 0
    let offered = 0
    let inside = 0
    const runs = 100
    for (let run = 0; run < runs; run++) {
      const clock = ownClock(several(5, () => byHeat(random, 260, 8)))!
      const next = byHeat(random, 260, 8)
      const sums = next.heatAbove(clock.lower)
      said += clock.error.clock / runs
      met += Math.abs(dayOfHeat(sums, clock.heat) - next.day) / runs
      calendar += Math.abs(clock.calendarDay - next.day) / runs
      if (clock.offered) offered++
      const [low, high] = scoresOfFew([-1.2816, 1.2816], clock.df).map((t) => dayOfHeat(sums, clock.heat + t * clock.heatSe)) as [
        number,
        number,
      ]
      if (next.day >= low && next.day <= high) inside++
    }
    expect(Math.abs(said - met)).toBeLessThan(0.5)
    expect(met).toBeLessThan(calendar / 2)
    expect(offered / runs).toBeGreaterThan(0.8)
    // Four of five, though the threshold was chosen by the same seasons.
    expect(inside / runs).toBeGreaterThan(0.72)
  })

  test('is offered to hardly any organism that follows the calendar', { timeout: 20_000 }, () => {
    const random = seededRandom(97)
    const runs = 100
    let offered = 0
    for (let run = 0; run < runs; run++) if (ownClock(several(5, () => byCalendar(random)))!.offered) offered++
    expect(offered / runs).toBeLessThanOrEqual(0.05)
  })
})

test('scores of few seasons are drawn out, the middle stays', () => {
  const [low, middle, high] = scoresOfFew([-1.2816, 0, 1.2816], 4) as [number, number, number]
  expect(middle).toBeCloseTo(0, 9)
  expect(high).toBeCloseTo(1.533, 2)
  expect(low).toBeCloseTo(-high, 6)
})
