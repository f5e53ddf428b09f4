import type { WatchForecast } from '@bocado/contract'
import { describe, expect, test } from 'vitest'
import { dayAt, dayScale, evenInDays, evenInHeat, heldRange, positionOf } from './axis.js'
import { chancesBy, continuations, ghosts, membersOf, stageBoundsOn, stageSharesAt, streamsOf } from './streams.js'
import { cohortsFor, coverageOn } from './treatmentCoverage.js'
import { byUrgency, currentWindow, filtered, grouped, urgencyOf } from './urgency.js'

const spread = (median: number, sd: number) => ({ kind: 'normal', median, sd }) as const
/** A season of 100 days with 5 °C·d a day from day 10 on, today on day 40, and a past year that was warmer. */
const cumulative = (perDay: number) => Array.from({ length: 100 }, (_, i) => (i < 10 ? 0 : i < 40 ? 5 * (i - 9) : 150 + perDay * (i - 39)))
const stage = (id: string, reachable: boolean) => ({ id, name: id, silhouette: id, reachable, where: '' })

const forecast = {
  watch: { id: 'w', season: '2026-01-01' },
  stages: [stage('egg', true), stage('larva', false)],
  generations: [{ id: 'first', name: 'first generation', reachableStages: ['egg'] }],
  events: [
    { generation: 'first', id: 'eggs', name: '', stage: 'egg', spread: spread(100, 25), heatSe: 0, begins: 53, weight: 1 },
    { generation: 'first', id: 'hatch', name: '', stage: 'larva', spread: spread(180, 25), heatSe: 0, begins: 133, weight: 1 },
  ],
  heat: {
    todayIndex: 40,
    openIndex: 40,
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
    scores: Array<number>(24).fill(0),
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

describe('the days in view', () => {
  test('a place on the axis and its day find each other, where an axis hardly moves too', () => {
    const flat = [0, 0.001, 0.002, 0.5, 0.998, 1]
    for (const day of [0, 0.5, 1.9, 2.2, 3.99, 5]) expect(dayAt(flat, positionOf(flat, day))).toBeCloseTo(day, 6)
  })

  test('stay within the season and are never fewer than a week', () => {
    expect(heldRange([-20, 40], 365)).toEqual([0, 60])
    expect(heldRange([350, 400], 365)).toEqual([315, 365])
    expect(heldRange([100, 101], 365)).toEqual([97, 104])
    expect(heldRange([-50, 900], 365)).toEqual([0, 365])
  })

  test('are wide in warmth and narrow in cold on an axis even in heat, but always go forward', () => {
    const positions = evenInHeat(forecast.heat.median, 100)!
    expect(positions[0]).toBe(0)
    expect(positions.at(-1)).toBeCloseTo(1, 9)
    expect(positions[5]! - positions[4]!).toBeCloseTo(0.001, 9)
    expect(positions[60]! - positions[59]!).toBeGreaterThan(0.01)
    expect(evenInHeat([0, 0, 0], 3)).toBeUndefined()
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
    const line = continuations(forecast).filter(({ key }) => key.startsWith('hatch'))
    expect(line.map(({ key }) => key)).toEqual(['hatch 0', 'hatch 1'])
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

describe('what stands behind the streams', () => {
  test('bounds of the shares come from the error of the figures before today, and from the weather after it', () => {
    const sure = stageBoundsOn(forecast, 39).find(({ stage: s }) => s === 'egg')!.share
    expect(sure.p10).toBeCloseTo(sure.p90, 9)
    const unsure = {
      ...forecast,
      heat: { ...forecast.heat, scores: Array.from({ length: 24 }, (_, i) => (i < 12 ? -1 : 1)) },
      events: forecast.events.map((event) => ({ ...event, heatSe: 20 })),
    }
    const spreadOut = stageBoundsOn(unsure, 39).find(({ stage: s }) => s === 'larva')!.share
    expect(spreadOut.p90 - spreadOut.p10).toBeGreaterThan(0.02)
    const ahead = stageBoundsOn(forecast, 45).find(({ stage: s }) => s === 'larva')!.share
    expect(ahead.p90 - ahead.p10).toBeGreaterThan(0.02)
  })

  test('the chance that an event has begun by a day counts the ways the season may go', () => {
    // Hatch begins at 133 °C·d, which was reached before today; half of it lies ahead, sooner in the warm year.
    expect(chancesBy(forecast, 30).get('hatch')).toBeLessThan(1e-9)
    expect(chancesBy(forecast, 39).get('hatch')).toBeCloseTo(1, 9)
    // Two seasons alone do not say that it cannot come later than in the later of them.
    const late = { ...forecast, events: forecast.events.map((event) => ({ ...event, spread: spread(330, 25) })) }
    const chances = [50, 62, 80].map((day) => chancesBy(late, day).get('hatch')!)
    expect(chances[0]).toBeLessThan(0.3)
    expect(Math.abs(chances[1]! - 0.5)).toBeLessThan(0.25)
    expect(chances[2]).toBeGreaterThan(0.8)
    expect(chances[2]).toBeLessThan(1)
  })

  test('a past season is drawn from the biofix on by its own heat', () => {
    const lines = ghosts(forecast, [{ season: '2025-01-01', cumulative: cumulative(9) }])
    expect(lines.map(({ key, from }) => [key, from])).toEqual([
      ['eggs 2025-01-01', 10],
      ['hatch 2025-01-01', 10],
    ])
    expect(lines[0]!.reached.at(-1)).toBeCloseTo(1, 6)
  })

  test('what goes into diapause is missing from the generation after it', () => {
    const half = { ...forecast, events: forecast.events.map((event, i) => ({ ...event, weight: i === 0 ? 1 : 0.5 })) }
    const [eggs, larvae] = streamsOf(half)
    expect(larvae!.top[99]).toBeCloseTo(0.5, 2)
    expect(eggs!.top[99]! - eggs!.bottom[99]!).toBeCloseTo(0.5, 2)
  })
})

describe('coverage', () => {
  test('is highest between laying and hatch, and a stage that the generation does not have is never reached', () => {
    const ovicide = { stages: ['egg'], effect: 1, residualDays: 0 }
    const cohorts = cohortsFor(forecast, ovicide)
    expect(coverageOn(cohorts, ovicide, 37)!.bounds.p50).toBeGreaterThan(0.8)
    expect(coverageOn(cohorts, ovicide, 12)!.bounds.p50).toBeLessThan(0.05)
    const drench = { stages: ['rosette'], effect: 1, residualDays: 0 }
    expect(coverageOn(cohortsFor(forecast, drench), drench, 37)).toBeUndefined()
  })
})

test('watches are ordered by what presses most', () => {
  const at = (state: string, closes: number) =>
    ({ grade: 'dates', windows: [{ state, opens: { p50: closes - 10 }, closes: { p50: closes } }] }) as unknown as WatchForecast
  const rows = [at('past', 100), at('coming', 190), at('open', 170), at('closing', 163), at('open', 165)]
  expect(rows.sort(byUrgency).map((row) => [currentWindow(row)?.state, currentWindow(row)?.closes.p50])).toEqual([
    ['closing', 163],
    ['open', 165],
    ['open', 170],
    ['coming', 190],
    ['past', 100],
  ])
})

describe('groups of watches', () => {
  const row = (organism: string, block: string, state: string, infection?: string) =>
    ({
      grade: 'dates',
      organismName: organism,
      watch: { organismId: organism, blockId: block },
      heat: { todayIndex: 160 },
      infection: infection ? { state: infection, days: [], from: 100 } : null,
      windows: infection ? [] : [{ state, opens: { p50: 150 }, closes: { p50: 170 } }],
    }) as unknown as WatchForecast
  const rows = [
    row('Moth', 'a', 'past'),
    row('Scab', 'a', '', 'cure'),
    row('Mildew', 'b', '', 'protect'),
    row('Moth', 'b', 'coming'),
    row('Blight', 'b', '', 'quiet'),
  ]
  const names = new Map([
    ['a', 'Old Apples'],
    ['b', 'Ladder Pears'],
  ])

  test('a disease presses like a window does', () => {
    expect(rows.map(urgencyOf)).toEqual(['past', 'closing', 'open', 'coming', 'quiet'])
    expect(urgencyOf({ ...rows[1]!, grade: 'none' })).toBe('unknown')
  })

  test('by urgency, by block and by organism hold every watch once', () => {
    const of = (by: 'urgency' | 'block' | 'organism') =>
      grouped(rows, by, names).map(({ id, name, rows: held }) => [name ?? id, ...held.map(({ organismName }) => organismName)])
    expect(of('urgency')).toEqual([
      ['now', 'Scab', 'Mildew'],
      ['coming', 'Moth'],
      ['quiet', 'Blight'],
      ['past', 'Moth'],
    ])
    expect(of('block')).toEqual([
      ['Ladder Pears', 'Mildew', 'Moth', 'Blight'],
      ['Old Apples', 'Scab', 'Moth'],
    ])
    expect(of('organism').map(([name]) => name)).toEqual(['Blight', 'Mildew', 'Moth', 'Scab'])
  })

  test('are found by every word, in any order and case', () => {
    const words = (r: WatchForecast) => `${r.organismName} ${names.get(r.watch.blockId)}`
    expect(filtered(rows, 'apples MOTH', words)).toEqual([rows[0]])
    expect(filtered(rows, '  ', words)).toHaveLength(5)
    expect(filtered(rows, 'moth vines', words)).toEqual([])
  })
})
