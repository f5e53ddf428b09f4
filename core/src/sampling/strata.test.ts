import { describe, expect, test } from 'vitest'
import { seededRandom } from '../statistics/index.js'
import type { CountedAgainst } from './countingPlan.js'
import { drawFinds } from './operatingCharacteristic.js'
import { byHeightOf, placeOf, spotTreatment, strataOf, upperPer100 } from './strata.js'

const THRIPS: CountedAgainst = { per100: 500, measure: 'density', itemsPerUnit: 1, suggestedUnits: 25, weights: [1] }
const FRUIT: CountedAgainst = { per100: 2, measure: 'incidence', itemsPerUnit: 20, suggestedUnits: 24, weights: [1] }
const PLACES = [
  { from: 0, edge: true },
  { from: 12, edge: false },
  { from: 18, edge: false },
]

describe('an upper bound', () => {
  test.each([
    ['animals', THRIPS, 300],
    ['infested fruit', FRUIT, 3],
  ])('of %s lies below what is there in one count of ten', (_, against, per100) => {
    const random = seededRandom(5)
    const below = Array.from({ length: 2000 }, () =>
      upperPer100(
        Array.from({ length: 25 }, () => drawFinds(against, per100, random)),
        against,
      ),
    ).filter((upper) => upper < per100)
    expect(below.length / 2000).toBeLessThan(0.12)
  })

  test('is above nothing where nothing was found, and lower the more was looked at', () => {
    const of = (n: number) =>
      upperPer100(
        Array.from({ length: n }, () => 0),
        THRIPS,
      )
    expect(of(10)).toBeGreaterThan(0)
    expect(of(40)).toBeLessThan(of(10))
    expect(() => upperPer100([], THRIPS)).toThrow('units')
  })
})

describe('edge and inside', () => {
  const found = [...Array.from({ length: 12 }, () => 9), ...Array.from({ length: 12 }, (_, i) => i % 2)]
  test('answer each by itself', () => {
    expect(placeOf(PLACES, 13)).toBe(PLACES[1])
    expect(strataOf(found, PLACES, THRIPS)).toMatchObject([
      { edge: true, units: 12, places: 1, per100: 900 },
      { edge: false, units: 12, places: 2, per100: 50, verdict: 'stop' },
    ])
    expect(strataOf(found, PLACES.slice(0, 1), THRIPS)).toEqual([])
    expect(strataOf(found, [{ from: 0, edge: null }], THRIPS)).toEqual([])
    expect(strataOf(found, PLACES, null)).toEqual([])
  })

  test('let one treat the one that is over while the other surely is not', () => {
    const spot = (inside: number) =>
      spotTreatment(
        strataOf(
          found.map((n, i) => (i < 12 ? n : inside)),
          PLACES,
          THRIPS,
        ),
        500,
      )
    expect(spot(0)).toMatchObject({ treat: { edge: true }, rest: { edge: false } })
    expect(spot(9)).toBeNull()
    // Nearly as much as the threshold is not surely under it.
    expect(spot(4)).toBeNull()
  })
})

describe('where on the plant', () => {
  const against = { measure: 'incidence' as const, itemsPerUnit: 5 }
  test('each height tells its own share, from the ground up; what was not said counts in none', () => {
    const heights = ['top', 'low', 'low', 'middle', null] as const
    expect(byHeightOf([1, 4, 3, 2, 5], heights, against)).toEqual([
      { height: 'low', units: 2, per100: 70 },
      { height: 'middle', units: 1, per100: 40 },
      { height: 'top', units: 1, per100: 20 },
    ])
  })

  test('one height alone tells nothing', () => {
    expect(byHeightOf([1, 4], ['low', 'low'], against)).toEqual([])
    expect(byHeightOf([1, 4], ['low', null], against)).toEqual([])
    expect(byHeightOf([1, 4], [], against)).toEqual([])
  })
})
