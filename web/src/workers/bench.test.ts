import type { BenchData } from '@bocado/contract'
import { calendarBiofix, dayNumber, type OrganismModel } from '@bocado/core'
import { describe, expect, test } from 'vitest'
import { Bench, changedModel, valuesOf, type BenchChange } from './bench.js'

const model: OrganismModel = {
  heat: { method: 'single-sine', lower: 10 },
  biofix: { kind: 'date', month: 1, day: 1 },
  generations: [
    {
      id: 'first',
      reachableStages: ['egg'],
      events: [
        { id: 'eggs', stage: 'egg', heat: 100, atShare: 0.5, spread: 20, heatSe: 6, distribution: 'normal' },
        { id: 'hatch', stage: 'larva', heat: 60, atShare: 0.5, spread: 15, heatSe: 5, distribution: 'normal', countedFrom: 'eggs' },
      ],
    },
  ],
}
const firstDay = dayNumber('2026-01-01')
/** Days of which each is a little warmer than the one before until July. */
const day = (i: number, warmer = 0): [number, number] => {
  const mean = 10 - 12 * Math.cos((2 * Math.PI * (i - 20)) / 365) + warmer
  return [mean - 6, mean + 6]
}
const year = (from: number, warmer = 0) => Array.from({ length: 365 - from }, (_, k) => day(from + k, warmer))
const start = { day: calendarBiofix({ month: 1, day: 1 }, firstDay, 'north'), expected: null, daySd: null }
const data: BenchData = {
  model,
  season: '2026-01-01',
  weather: {
    firstDay,
    length: 365,
    todayIndex: 100,
    observed: Array.from({ length: 220 }, (_, k) => day(k - 120)),
    forecast: [Array.from({ length: 10 }, (_, k) => day(100 + k)), Array.from({ length: 10 }, (_, k) => day(100 + k, 2))],
    tails: [-2, -1, 0, 1, 2].map((warmer, k) => ({ pastSeason: firstDay - 365 * (k + 1), made: false, days: year(110, warmer) })),
  },
  start,
  past: [
    {
      season: '2025-01-01',
      firstDay: firstDay - 365,
      days: Array.from({ length: 485 }, (_, k) => day(k - 120)),
      start: { ...start, day: start.day - 365 },
      seen: [{ event: 'hatch', day: 170, kind: 'half' }],
    },
  ],
}
const change = (figures: BenchChange['figures'] = {}, more: Partial<BenchChange> = {}): BenchChange => ({
  figures,
  method: null,
  startIndex: null,
  ...more,
})
const bench = new Bench(data)
const run = (c: BenchChange) => bench.run(c, 'hatch', { 'eggs.heat': 6, 'hatch.heat': 5 })
const half = (c: BenchChange, id = 'hatch') => run(c).events.find((e) => e.id === id)!.half.p50

describe('the bench', () => {
  test('moves the season with its numbers, and not with those that were changed elsewhere', () => {
    expect(half(change({ 'hatch.heat': 90 }))).toBeGreaterThan(half(change()))
    expect(half(change({ 'hatch.heat': 90 }), 'eggs')).toBe(half(change(), 'eggs'))
    expect(half(change({ 'heat.lower': 8 }))).toBeLessThan(half(change()))
    expect(half(change({}, { startIndex: 130 }))).toBeGreaterThan(half(change()))
    expect(half(change({}, { method: 'average' }))).not.toBe(half(change()))
    expect(changedModel(model, change({ 'eggs.spread': 30 })).generations[0]!.events[0]!.spread).toBe(30)
    expect(model.generations[0]!.events[0]!.spread).toBe(20)
  })

  test('says in days what each number is worth, largest first, and agrees with trying it', () => {
    const { sensitivity } = run(change())
    const lower = sensitivity.find(({ path }) => path === 'heat.lower')!
    expect(sensitivity[0]).toEqual(lower)
    const begins = (c: BenchChange) => run(c).events[1]!.begins.p50
    expect(lower.days).toBeCloseTo(begins(change({ 'heat.lower': 11 })) - begins(change()), 6)
    expect(sensitivity.find(({ path }) => path === 'eggs.heat')).toMatchObject({ step: 6 })
  })

  test('holds a past season against what was seen in it', () => {
    const [past] = run(change()).past
    expect(past).toMatchObject({ season: '2025-01-01', event: 'hatch', seen: 170 })
    expect(run(change({ 'hatch.heat': 90 })).past[0]!.predicted).toBeGreaterThan(past!.predicted)
  })

  test('knows its numbers by the paths of the library, and refuses what makes no model', () => {
    expect(valuesOf(model)).toMatchObject({ 'heat.lower': 10, 'eggs.heat': 100, 'hatch.spread': 15 })
    expect(() => run(change({ 'eggs.spread': 0 }))).toThrow(RangeError)
  })

  test('computes a change well within a tenth of a second', () => {
    // The fastest of nine: what it costs, not what else the machine was doing.
    const taken = Array.from({ length: 9 }, (_, i) => {
      const began = performance.now()
      run(change({ 'heat.lower': 9 + i / 50, 'hatch.heat': 60 + i }))
      return performance.now() - began
    })
    expect(Math.min(...taken)).toBeLessThan(100)
  })
})
