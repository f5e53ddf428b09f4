import { describe, expect, test } from 'vitest'
import { drawTrial, fairTrial, playedTrial, seededRandom, survivalTrial, trialPower, type TrialPair } from '../index.js'

const pair = (treatedBefore: number, treatedAfter: number, checkBefore: number, checkAfter: number): TrialPair => ({
  treatedBefore,
  treatedAfter,
  checkBefore,
  checkAfter,
})

describe('pairs that were drawn by lot', () => {
  test('say that it worked, with the effect of the sums', () => {
    const pairs = [
      pair(20, 4, 18, 20),
      pair(30, 8, 25, 24),
      pair(12, 2, 16, 17),
      pair(22, 6, 20, 26),
      pair(15, 3, 14, 12),
      pair(25, 7, 27, 30),
    ]
    const found = fairTrial(pairs)
    expect(found).toMatchObject({ verdict: 'worked', used: 6, leftOut: 0, shown: { atLeast: false } })
    // 30 of 124 are left, where 129 of 120 are in the check.
    expect(found.shown!.effect).toBeCloseTo(1 - (30 * 120) / (124 * 129), 12)
    expect(found.shown!.low).toBeLessThan(found.shown!.effect)
  })
  test('where nothing was found before tell nothing, and counts of nothing hide how much it was', () => {
    const pairs = [pair(5, 0, 6, 7), pair(8, 0, 7, 9), pair(0, 0, 0, 2), pair(6, 1, 9, 11), pair(7, 0, 5, 6)]
    expect(fairTrial(pairs)).toMatchObject({ used: 4, leftOut: 1, shown: { atLeast: true } })
    expect(fairTrial(pairs.slice(0, 3))).toMatchObject({ verdict: 'too-few', decided: null, shown: null })
    expect(() => fairTrial([pair(-1, 0, 0, 0)])).toThrow('treatedBefore')
  })
  test('of which nothing was treated say "worked" in at most one of twenty', () => {
    const random = seededRandom(11)
    const runs = 1500
    let worked = 0
    for (let run = 0; run < runs; run++) {
      if (fairTrial(playedTrial({ pairs: 10, mean: 10, effect: 0, random })).verdict === 'worked') worked++
    }
    expect(worked / runs).toBeLessThanOrEqual(0.05 + 2 * Math.sqrt((0.05 * 0.95) / runs))
  })
  test('show an effect whose interval holds the true one in 85 to 95 of a hundred', () => {
    const random = seededRandom(23)
    const runs = 1500
    let held = 0
    for (let run = 0; run < runs; run++) {
      const { shown } = fairTrial(playedTrial({ pairs: 12, mean: 10, effect: 0.7, random }))
      if (shown && shown.low <= 0.7 && 0.7 <= shown.high) held++
    }
    const spare = 2 * Math.sqrt((0.1 * 0.9) / runs)
    expect(held / runs).toBeGreaterThanOrEqual(0.85 - spare)
    expect(held / runs).toBeLessThanOrEqual(0.95 + spare)
  })
  test('find seven tenths on twelve pairs nearly always, and a tenth seldom', () => {
    const power = (effect: number, pairs = 12) => trialPower({ pairs, mean: 10, effect, random: seededRandom(5) })
    expect(power(0.7)).toBeGreaterThanOrEqual(0.9)
    expect(power(0.1)).toBeLessThan(0.3)
    expect(power(0.5, 20)).toBeGreaterThan(power(0.5, 4))
    expect(() => trialPower({ pairs: 2, mean: 10, effect: 0.5, random: seededRandom(1) })).toThrow('pairs')
    expect(() => trialPower({ pairs: 6, mean: 0, effect: 0.5, random: seededRandom(1) })).toThrow('mean')
  })
})

describe('dead or alive', () => {
  const of = (onlyTreated: number, onlyCheck: number, both = 0) =>
    survivalTrial([
      ...Array.from({ length: onlyTreated }, () => ({ treatedAlive: true, checkAlive: false })),
      ...Array.from({ length: onlyCheck }, () => ({ treatedAlive: false, checkAlive: true })),
      ...Array.from({ length: both }, () => ({ treatedAlive: true, checkAlive: true })),
    ])
  test('only pairs that differ tell anything, by the exact chance of so many on one side', () => {
    expect(of(5, 0, 7)).toMatchObject({ verdict: 'worked', p: 1 / 32 })
    expect(of(4, 0)).toMatchObject({ verdict: 'cannot-tell', p: 1 / 16 })
    expect(of(1, 7).verdict).toBe('worse')
    expect(of(1, 7).p).toBeCloseTo(9 / 256, 12)
    expect(of(0, 0, 6)).toMatchObject({ verdict: 'cannot-tell', p: 1 })
  })
})

test('neighbours are drawn by lot, either of them as often, and none twice', () => {
  const units = Array.from({ length: 12 }, (_, i) => `${i + 1}`)
  const random = seededRandom(3)
  let first = 0
  for (let run = 0; run < 400; run++) {
    const pairs = drawTrial(units, random)
    expect(pairs.flatMap(({ treated, check }) => [treated, check]).sort()).toEqual([...units].sort())
    for (const { treated, check } of pairs) expect(Math.abs(Number(treated) - Number(check))).toBe(1)
    if (pairs[0]!.treated === '1') first++
  }
  expect(first).toBeGreaterThan(160)
  expect(first).toBeLessThan(240)
  expect(() => drawTrial(units.slice(0, 7), random)).toThrow('units')
  expect(() => drawTrial(units.slice(0, 4), random)).toThrow('units')
})
