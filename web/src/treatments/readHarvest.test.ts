import { expect, test } from 'vitest'
import { readHarvest } from './readHarvest.js'

const places = ['Old Apples', 'Bay 1', 'Bay 12', 'Long Corn'].map((name) => ({ id: name, name }))
const organisms = ['Codling moth', 'Oriental fruit moth', 'Apple scab', 'Onion thrips'].map((name) => ({ id: name, name }))
const read = (text: string) => readHarvest(text, places, organisms)
const NOTHING = { kg: null, pieces: null, spoilt: null, spoiltBy: null, placeId: null, note: '' }

test.each([
  [
    '3.2 kg, 14 fruit, Old Apples, 3 spoilt by codling moth',
    { kg: 3.2, pieces: 14, placeId: 'Old Apples', spoilt: 3, spoiltBy: 'Codling moth' },
  ],
  ['picked 3,2 kg from old apples', { kg: 3.2, placeId: 'Old Apples' }],
  ['Bay 12: 40 heads', { pieces: 40, placeId: 'Bay 12' }],
  ['40 heads in bay 1, none spoilt', { pieces: 40, placeId: 'Bay 1', spoilt: 0 }],
  ['850 g', { kg: 0.85 }],
  ['1,250 kg', { kg: 1250 }],
  ['12 ears Long Corn; for the school', { pieces: 12, placeId: 'Long Corn', note: 'for the school' }],
  ['20 bulbs, 4 of them rotten from thrips', { pieces: 20, spoilt: 4, spoiltBy: 'Onion thrips' }],
  ['20 bulbs, 4 eaten by moth', { pieces: 20, spoilt: 4, note: 'spoilt by moth' }],
  ['a basket', { note: 'a basket' }],
  ['', {}],
])('%s', (text, expected) => expect(read(text)).toEqual({ ...NOTHING, ...expected }))

test('pounds and ounces are weights as well', () => {
  expect(read('7 lb').kg).toBeCloseTo(3.175, 3)
  expect(read('8 oz, 3 bunches')).toMatchObject({ kg: expect.closeTo(0.2268, 4) as number, pieces: 3 })
})
