import { expect, test } from 'vitest'
import { wayTo } from './wayTo.js'

const HERE = { latitude: 46.2, longitude: -119.3 }

test('a thousandth of a degree north is 111 m, and east as much less as the circle is smaller there', () => {
  const north = wayTo(HERE, { latitude: 46.201, longitude: -119.3 })
  expect([Math.round(north.metres), north.compass]).toEqual([111, 'n'])
  const east = wayTo(HERE, { latitude: 46.2, longitude: -119.299 })
  expect([Math.round(east.metres), east.compass, Math.round(east.degrees)]).toEqual([77, 'e', 90])
})

test('every direction has its name, and north has it from both sides', () => {
  const at = (north: number, east: number) =>
    wayTo(HERE, { latitude: HERE.latitude + north / 1000, longitude: HERE.longitude + east / 1000 / 0.692 }).compass
  expect([at(1, 1), at(-1, 1), at(-1, 0), at(-1, -1), at(0, -1), at(1, -1), at(1, 0.1), at(1, -0.1)]).toEqual([
    'ne',
    'se',
    's',
    'sw',
    'w',
    'nw',
    'n',
    'n',
  ])
})

test('the way is the shorter one where longitudes begin anew', () => {
  const { metres, compass } = wayTo({ latitude: 0, longitude: 179.999 }, { latitude: 0, longitude: -179.999 })
  expect([Math.round(metres), compass]).toEqual([222, 'e'])
})
