import { describe, expect, test } from 'vitest'
import { drawNormal, seededRandom } from '../statistics/random.js'
import {
  dayOfHeat,
  heatAtShare,
  resolveEvents,
  shareReached,
  spreadThrough,
  stageShares,
  stratifiedScores,
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
  test('is never, where the season ends before', () => expect(dayOfHeat(cumulative, 20.1)).toBe(Infinity))
})

test('scores are spread evenly, balance out and come in the seed’s order', () => {
  const scores = stratifiedScores(11, seededRandom(1))
  expect(scores.reduce((a, b) => a + b, 0)).toBeCloseTo(0, 9)
  expect([...scores].sort((a, b) => a - b)[5]).toBeCloseTo(0, 9)
  expect(stratifiedScores(11, seededRandom(1))).toEqual(scores)
  expect(stratifiedScores(1, seededRandom(1))[0]).toBeCloseTo(0, 9)
})
