import { expect, test } from 'vitest'
import { readUnits, writeUnits } from './unitLines.js'

const CLASSES = [{ id: 'fresh-entry' }, { id: 'sting' }, { id: 'left' }]

test('a page of paper becomes sample units, and comes back', () => {
  const { units, wrong } = readUnits('2 0 1\n\n0\n1, 3', CLASSES)
  expect(wrong).toBeUndefined()
  expect(units).toEqual([{ 'fresh-entry': 2, sting: 0, left: 1 }, { 'fresh-entry': 0 }, { 'fresh-entry': 1, sting: 3 }])
  expect(readUnits(writeUnits(units, CLASSES), CLASSES).units).toHaveLength(3)
})

test.each([
  ['a word', '1\nmany', 2],
  ['a negative number', '-1', 1],
  ['more numbers than classes', '1 2 3\n1 2 3 4', 2],
])('%s is pointed out by its line', (_, text, line) => expect(readUnits(text, CLASSES).wrong).toBe(line))
