import { expect, test } from 'vitest'
import { readUnits, writeUnits } from './unitLines.js'

const CLASSES = [{ id: 'fresh-entry' }, { id: 'sting' }, { id: 'left' }]

test('a page of paper becomes sample units, and comes back', () => {
  const { units, places, wrong } = readUnits('2 0 1\n\n0\n1, 3\n\n', CLASSES)
  expect(wrong).toBeUndefined()
  expect(units).toEqual([{ 'fresh-entry': 2, sting: 0, left: 1 }, { 'fresh-entry': 0 }, { 'fresh-entry': 1, sting: 3 }])
  expect(places).toEqual([
    { from: 0, edge: null },
    { from: 1, edge: null },
  ])
  const again = readUnits(writeUnits(units, CLASSES, places), CLASSES)
  expect(again.units).toHaveLength(3)
  expect(again.places).toEqual(places)
  // Where no line is empty nobody kept the places.
  expect(readUnits('1\n2', CLASSES).places).toBeNull()
})

test.each([
  ['a word', '1\nmany', 2],
  ['a negative number', '-1', 1],
  ['more numbers than classes', '1 2 3\n1 2 3 4', 2],
])('%s is pointed out by its line', (_, text, line) => expect(readUnits(text, CLASSES).wrong).toBe(line))
