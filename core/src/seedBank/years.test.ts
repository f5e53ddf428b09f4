import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { annualYear, biennialYear } from './index.js'

const life = { germination: 0.3, seedMortality: 0.2, seedlingSurvival: 0.2, crowding: 0.01, fecundity: 400, ripensAfterPulling: 0.5 }
const none = { seedlingsTaken: 0, floweringTaken: 0, leftLying: 0 }

describe('a year of a weed', () => {
  test('a bank from which nothing flowers loses what comes up and what dies', () => {
    const { seeds, shed } = annualYear({ seeds: 1000 }, life, { ...none, floweringTaken: 1 })
    expect(shed).toBe(0)
    expect(seeds).toBeCloseTo(1000 * 0.7 * 0.8, 9)
  })

  test('what is taken in flower and left lying still sheds; taken away it does not', () => {
    const of = (leftLying: number) => annualYear({ seeds: 1000 }, life, { ...none, floweringTaken: 1, leftLying }).shed
    expect(of(0)).toBe(0)
    expect(of(1)).toBeCloseTo(0.5 * annualYear({ seeds: 1000 }, life, none).shed, 9)
  })

  test('a biennial flowers from the rosettes of the year before, and makes those of the next', () => {
    const p = { ...life, winterSurvival: 0.6 }
    const year = biennialYear({ seeds: 100, rosettes: 10 }, p, { ...none, rosettesTaken: 0.5 })
    expect(year.flowering).toBeCloseTo(6, 9)
    expect(year.rosettes).toBeCloseTo((0.5 * 0.2 * 30) / (1 + 0.01 * 30), 9)
    expect(() => biennialYear({ seeds: -1, rosettes: 0 }, p, { ...none, rosettesTaken: 0 })).toThrow('seeds')
    expect(() => biennialYear({ seeds: 1, rosettes: 0 }, { ...p, winterSurvival: 1.1 }, { ...none, rosettesTaken: 0 })).toThrow(
      'winterSurvival',
    )
  })

  test('more work in flower never leaves more seeds', () => {
    const share = fc.double({ min: 0, max: 1, noNaN: true })
    fc.assert(
      fc.property(share, share, share, fc.integer({ min: 0, max: 5000 }), (a, b, leftLying, seeds) => {
        const of = (floweringTaken: number) => annualYear({ seeds }, life, { ...none, floweringTaken, leftLying }).seeds
        expect(of(Math.max(a, b))).toBeLessThanOrEqual(of(Math.min(a, b)) + 1e-9)
      }),
    )
  })

  test('taking most of the seedlings may leave more in flower than taking some, where they hinder each other: never more than they were worth', () => {
    const dense = { ...life, crowding: 1 }
    const of = (seedlingsTaken: number) => annualYear({ seeds: 5000 }, dense, { ...none, seedlingsTaken }).flowering
    expect(of(0.9)).toBeLessThanOrEqual(of(0))
    expect(of(0.5) / of(0)).toBeGreaterThan(0.95)
  })
})
