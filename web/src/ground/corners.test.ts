import type { Geometry } from '@bocado/contract'
import { expect, test } from 'vitest'
import { cornersOf, readCorners, textOf } from './corners.js'

const square: Geometry = {
  type: 'Polygon',
  coordinates: [
    [
      [-119.3, 46.2],
      [-119.299, 46.2],
      [-119.299, 46.201],
      [-119.3, 46.2],
    ],
  ],
}

test('corners are read in the forms that maps and receivers give, and close by themselves', () => {
  const text = '46.2, −119.3\n\n46° 12\' 0" N 119° 17\' 56.4" W\n46.201; -119.299\n'
  expect(readCorners(text, 'surface')).toEqual({ geometry: square })
  expect(readCorners(`${text}46.2, -119.3`, 'surface')).toEqual({ geometry: square })
})

test('what cannot be read is named by its line, and too little by what is wanted', () => {
  expect(readCorners('46.2, -119.3\nby the gate', 'surface')).toEqual({ wrongLine: 2, text: 'by the gate' })
  expect(readCorners('46.2, -119.3\n46.3', 'line')).toEqual({ wrongLine: 2, text: '46.3' })
  expect(readCorners('46.2, -119.3\n46.2, -119.2', 'surface')).toEqual({ tooFew: true })
  expect(readCorners('46.2, -119.3', 'line')).toEqual({ tooFew: true })
  expect(readCorners('', 'point')).toEqual({ tooFew: true })
})

test('a shape is written as it is read; one of several pieces has no corners to take hold of', () => {
  for (const form of ['surface', 'line', 'point'] as const) {
    const read = readCorners('46.2, -119.3\n46.2, -119.299\n46.201, -119.299', form)
    const geometry = 'geometry' in read ? read.geometry : null
    expect(readCorners(textOf(geometry!), form)).toEqual({ geometry })
  }
  expect(cornersOf({ type: 'MultiPolygon', coordinates: [(square as Extract<Geometry, { type: 'Polygon' }>).coordinates] })).toBeNull()
})
