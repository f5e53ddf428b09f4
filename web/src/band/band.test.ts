import type { WatchForecast } from '@bocado/contract'
import { describe, expect, test } from 'vitest'
import { dayScale, evenInDays } from './axis.js'
import { continuations, membersOf, stageSharesAt, streamsOf } from './streams.js'
import { cohortsFor, coverageOn } from './treatmentCoverage.js'
import { byUrgency, currentWindow } from './words.js'

const spread = (median: number, sd: number) => ({ kind: 'normal', median, sd }) as const
/** A season of 100 days with 5 °C·d a day from day 10 on, today on day 40, and a past year that was warmer. */
const cumulative = (perDay: number) => Array.from({ length: 100 }, (_, i) => (i < 10 ? 0 : i < 40 ? 5 * (i - 9) : 150 + perDay * (i - 39)))
const stage = (id: string, reachable: boolean) => ({ id, name: id, silhouette: id, reachable, where: '' })

const forecast = {
  watch: { id: 'w', season: '2026-01-01' },
  stages: [stage('egg', true), stage('larva', false)],
  generations: [{ id: 'first', name: 'first generation', reachableStages: ['egg'] }],
  events: [
    { generation: 'first', id: 'eggs', name: '', stage: 'egg', spread: spread(100, 25), heatSe: 0, begins: 53 },
    { generation: 'first', id: 'hatch', name: '', stage: 'larva', spread: spread(180, 25), heatSe: 0, begins: 133 },
  ],
  heat: {
    todayIndex: 40,
    biofixIndex: 10,
    knownDays: 100,
    median: cumulative(6),
    segments: {
      startIndex: 10,
      length: 100,
      observed: Array<number>(29).fill(5),
      forecast: [[]],
      seam: [[5, 5]],
      tails: [4, 8].map((perDay, y) => ({ pastSeason: y, heat: Array<number>(60).fill(perDay) })),
    },
    scores: [0, 0],
    pastSeasons: 2,
    forecast: null,
    filledShare: 0,
    now: 150,
    missing: [],
  },
  windows: [],
} as unknown as WatchForecast

describe('the axis', () => {
  test('finds back the day from its place, even where days are of very different width', () => {
    const heat = Array.from({ length: 101 }, (_, i) => (i / 100) ** 3)
    for (const positions of [evenInDays(100), heat]) {
      const scale = dayScale(positions, [5, 95], [300, 1200])
      expect(scale.x(5)).toBeCloseTo(300)
      expect(scale.x(95)).toBeCloseTo(1200)
      for (const day of [6.5, 30.25, 94]) expect(scale.day(scale.x(day))).toBeCloseTo(day, 4)
    }
  })
})

describe('the streams of a watch', () => {
  const streams = streamsOf(forecast)

  test('lie on each other without gaps; the line above a stage is the share that has reached it', () => {
    const [eggs, larvae] = streams
    for (let day = 10; day < 100; day++) {
      expect(larvae!.bottom[day]).toBeCloseTo(0, 9)
      expect(eggs!.bottom[day]).toBeCloseTo(larvae!.top[day]!, 9)
      expect(eggs!.top[day]).toBeLessThanOrEqual(1 + 1e-9)
    }
    const line = continuations(forecast, 'hatch')
    expect(line.map(({ season }) => season)).toEqual([0, 1])
    expect(line[1]!.reached[10]).toBeGreaterThan(line[0]!.reached[10]!)
    expect(line[0]!.from).toBe(39)
    expect(line[0]!.reached[0]).toBeCloseTo(larvae!.top[39]!, 9)
  })

  test('members are the pieces put together', () => {
    const [cool, warm] = membersOf(forecast)
    expect([cool!.cumulative[9], cool!.cumulative[39], cool!.cumulative[99]]).toEqual([0, 150, 150 + 60 * 4])
    expect(warm!.cumulative[99]).toBe(150 + 60 * 8)
  })

  test('are nothing before the biofix', () => expect(streams[0]!.top[5]).toBe(0))

  test('agree with the shares that are read out', () => {
    const shares = stageSharesAt(forecast, 150)
    expect(shares.find(({ stage: s }) => s === 'egg')!.share).toBeCloseTo(streams[0]!.top[39]! - streams[0]!.bottom[39]!, 9)
  })
})

describe('coverage', () => {
  test('is highest between laying and hatch, and a product that only reaches what is inside reaches nothing', () => {
    const ovicide = { stages: ['egg'], effect: 1, residualDays: 0 }
    const cohorts = cohortsFor(forecast, ovicide)
    expect(coverageOn(cohorts, ovicide, 37)!.bounds.p50).toBeGreaterThan(0.8)
    expect(coverageOn(cohorts, ovicide, 12)!.bounds.p50).toBeLessThan(0.05)
    const drench = { stages: ['larva'], effect: 1, residualDays: 0 }
    expect(coverageOn(cohortsFor(forecast, drench), drench, 37)).toBeUndefined()
  })
})

test('watches are ordered by what presses most', () => {
  const at = (state: string, closes: number) =>
    ({ windows: [{ state, opens: { p50: closes - 10 }, closes: { p50: closes } }] }) as unknown as WatchForecast
  const rows = [at('past', 100), at('coming', 190), at('open', 170), at('closing', 163), at('open', 165)]
  expect(rows.sort(byUrgency).map((row) => [currentWindow(row)?.state, currentWindow(row)?.closes.p50])).toEqual([
    ['closing', 163],
    ['open', 165],
    ['open', 170],
    ['coming', 190],
    ['past', 100],
  ])
})
