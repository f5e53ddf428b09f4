import { describe, expect, test } from 'vitest'
import { heightsOf, nextHeight, placeAt, placesWithin, togglePlace, unitsAPlace, withNext } from './places.js'

const FIRST = [{ from: 0, edge: true }]

describe('places of a count', () => {
  test('change by themselves once each has had its sample units, and keep lying as they did', () => {
    let places = FIRST
    for (let units = 1; units <= 10; units++) places = withNext(places, units, 2) as typeof FIRST
    expect(places.map(({ from }) => from)).toEqual([0, 2, 4, 6, 8, 10])
    expect(places.every(({ edge }) => edge)).toBe(true)
    expect(unitsAPlace({ leastUnits: 10, leastPlaces: 5 })).toBe(2)
    expect([unitsAPlace({ leastUnits: 12, leastPlaces: 5 }), unitsAPlace({ leastUnits: 3, leastPlaces: 5 }), unitsAPlace(null)]).toEqual([
      3, 1, 2,
    ])
  })

  test('are told of each sample unit, where they were kept', () => {
    const places = [...FIRST, { from: 3, edge: null }]
    expect([0, 2, 3, 9].map((unit) => placeAt(places, unit)?.number)).toEqual([1, 1, 2, 2])
    expect(placeAt(null, 4)).toBeNull()
    expect(placesWithin(places, 3)).toEqual(FIRST)
    expect(placesWithin(null, 3)).toBeNull()
  })

  test('leave sample units at the height at which they are, and go on from low to top as somebody began to', () => {
    expect(nextHeight([null])).toBeNull()
    expect(nextHeight(['middle'])).toBe('middle')
    expect(nextHeight(['low', 'middle', 'top'])).toBe('top')
    let heights: ReturnType<typeof nextHeight>[] = ['low', 'middle', 'top', 'low']
    for (let i = 0; i < 5; i++) heights = [...heights, nextHeight(heights)]
    expect(heights.slice(4)).toEqual(['middle', 'top', 'low', 'middle', 'top'])
    expect(heightsOf(['low'], 3)).toEqual(['low', null, null])
    expect(heightsOf(['low', 'top'], 1)).toEqual(['low'])
    expect(heightsOf(null, 2)).toBeNull()
  })

  test('begin where somebody says, and are taken back', () => {
    const begun = togglePlace(FIRST, 1)
    expect(begun).toEqual([...FIRST, { from: 1, edge: true }])
    expect(togglePlace(begun, 1)).toEqual(FIRST)
    expect(togglePlace(FIRST, 0)).toEqual(FIRST)
  })
})
