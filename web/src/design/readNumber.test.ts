import { describe, expect, test } from 'vitest'
import { readCoordinate } from './readCoordinate.js'
import { readNumber } from './readNumber.js'

describe('a number as people type it', () => {
  test.each([
    ['2,5', 2.5],
    ['2.5', 2.5],
    [' 2,5 ', 2.5],
    ['.5', 0.5],
    [',5', 0.5],
    ['5.', 5],
    ['0,125', 0.125],
    ['12,250,000', 12_250_000],
    ['1,234.5', 1234.5],
    ['1.234,5', 1234.5],
    ['1 234,5', 1234.5],
    ['1’234.5', 1234.5],
    ['1.250', 1.25],
    ['−3', -3],
    ['-3,5', -3.5],
    ['+4', 4],
    ['40 m²', 40],
    ['', null],
  ])('%j is %j', (text, value) => expect(readNumber(text, 'm²')).toEqual({ value }))

  test.each([
    ['1/4', 'fraction'],
    ['1 1/2', 'fraction'],
    ['½', 'fraction'],
    ['1,250', 'either'],
    ['12,500', 'either'],
    ['1.2.3', 'not-a-number'],
    ['1,2,3', 'not-a-number'],
    ['1,23.4,5', 'not-a-number'],
    ['about 5', 'not-a-number'],
    ['5-6', 'not-a-number'],
    ['-', 'not-a-number'],
    ['.', 'not-a-number'],
    ['1e3', 'not-a-number'],
  ])('%j is asked about: %s', (text, problem) => expect(readNumber(text)).toEqual({ problem }))
})

describe('coordinates as people paste them', () => {
  test.each([
    ["42° 27' N", { latitude: 42.45 }],
    ['42°27′36″N', { latitude: 42.46 }],
    ['N 42 27.6', { latitude: 42.46 }],
    ['42.46', { latitude: 42.46 }],
    ['42,46', { latitude: 42.46 }],
    ['−33.5', { latitude: -33.5 }],
    ["33° 30' S", { latitude: -33.5 }],
    ['119.3 W', { longitude: -119.3 }],
    ['46.2, -119.3', { latitude: 46.2, longitude: -119.3 }],
    ['46.2,-119.3', { latitude: 46.2, longitude: -119.3 }],
    ['46,2; -119,3', { latitude: 46.2, longitude: -119.3 }],
    ['46.2 -119.3', { latitude: 46.2, longitude: -119.3 }],
    ['46°12\'00"N 119°18\'00"W', { latitude: 46.2, longitude: -119.3 }],
    ['W 119.3, N 46.2', { latitude: 46.2, longitude: -119.3 }],
  ])('%s', (text, found) => expect(readCoordinate(text, 'latitude')).toEqual(found))

  test.each(['', 'somewhere', '95', '46 75 N', '46.2 N, 119.3 N', '-46 S', '1 2 3 4', '46.5 30 N'])('%j is not read', (text) =>
    expect(readCoordinate(text, 'latitude')).toBeUndefined(),
  )
  test('a longitude is held to its own range', () => {
    expect(readCoordinate('119.3', 'longitude')).toEqual({ longitude: 119.3 })
    expect(readCoordinate('119.3', 'latitude')).toBeUndefined()
  })
})
