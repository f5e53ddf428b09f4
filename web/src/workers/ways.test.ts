import { describe, expect, test } from 'vitest'
import { sortedWays } from '../windows/WaysToAct.js'
import { windowsOfWays, type WaysOf, type WayWindow } from './ways.js'

/** A season in which heat rises by ten a day from its first day on, in every year. */
const DAYS = 120
const observed = Array.from({ length: 40 }, () => 10)
const watch = (shares: [number, number] = [1, 1]): WaysOf =>
  ({
    generations: [
      { id: 'first', name: 'first', reachableStages: ['egg'], share: shares[0] },
      { id: 'second', name: 'second', reachableStages: ['egg'], share: shares[1] },
    ],
    events: ['first', 'second'].flatMap((generation, g) =>
      ['adult', 'egg', 'larva', 'pupa'].map((stage, s) => ({
        id: `${stage}-${generation}`,
        stage,
        generation,
        heat: 100 + 500 * g + 100 * s,
        weight: 1,
        spread: { kind: 'normal', median: 100 + 500 * g + 100 * s, sd: 12 },
        heatSe: 1,
      })),
    ),
    heat: {
      todayIndex: 40,
      knownDays: DAYS,
      openIndex: 40,
      scores: [0, 0, 0, 0, 0],
      segments: {
        startIndex: 0,
        length: DAYS,
        observed,
        forecast: [[]],
        seam: [[10, 10, 10, 10, 10]],
        tails: [2021, 2022, 2023, 2024, 2025].map((year) => ({
          pastSeason: `${year}-01-01`,
          made: false,
          heat: Array.from({ length: DAYS - 41 }, () => 10),
        })),
      },
    },
  }) as unknown as WaysOf

describe('windows of ways to act', () => {
  test('are those of the stages that each reaches, in every generation that has one', () => {
    const ways = windowsOfWays(watch(), [
      { method: 'parasitoids', stages: ['egg'], residualDays: 0 },
      { method: 'fallen-fruit', stages: ['larva'], residualDays: 0 },
      { method: 'flaming', stages: ['seedling'], residualDays: 0 },
    ])
    expect(ways.map((windows) => windows.map(({ generation }) => generation))).toEqual([['first', 'second'], ['first', 'second'], []])
    const [[eggs], [larvae]] = ways as [[(typeof ways)[0][0]], [(typeof ways)[0][0]]]
    expect(eggs.state).toBe('past')
    expect(larvae.opens.p50!).toBeGreaterThan(eggs.closes.p50! - 3)
  })

  test('open earlier where what was put on goes on acting, and reach more', () => {
    const [once, lasting] = windowsOfWays(watch(), [
      { method: 'water-jet', stages: ['egg'], residualDays: 0 },
      { method: 'granulosis-virus', stages: ['egg'], residualDays: 7 },
    ]).map(([, second]) => second!) as [WayWindow, WayWindow]
    expect(lasting.opens.p50!).toBeLessThan(once.opens.p50!)
    expect(lasting.best.p50!).toBeGreaterThanOrEqual(once.best.p50!)
    expect(lasting.begins).toEqual(once.begins)
    expect(once.begins.p50!).toBeLessThanOrEqual(once.opens.p50!)
  })

  test('a generation that hardly anybody makes has none', () => {
    const [windows] = windowsOfWays(watch([1, 0.01]), [{ method: 'parasitoids', stages: ['egg'], residualDays: 0 }])
    expect(windows!.map(({ generation }) => generation)).toEqual(['first'])
  })
})

test('what still reaches comes before what is past, and prevention before chemical', () => {
  const way = (id: string, kind: string, ...states: string[]) => ({ id, method: { kind }, windows: states.map((state) => ({ state })) })
  const ways = [
    way('spray', 'chemical', 'open'),
    way('net', 'prevention', 'past'),
    way('pick', 'mechanical', 'past', 'coming'),
    way('wasps', 'biological', 'open'),
    way('rotate', 'prevention'),
  ]
  expect(sortedWays(ways as unknown as (Parameters<typeof sortedWays>[0][number] & { id: string })[]).map(({ id }) => id)).toEqual([
    'pick',
    'wasps',
    'spray',
    'rotate',
    'net',
  ])
})
