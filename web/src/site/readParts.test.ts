import { expect, test } from 'vitest'
import { readParts } from './readParts.js'

const read = (text: string, taken: string[] = []) => readParts(text, taken)?.map(({ level, name, plants }) => `${level} ${name} ${plants}`)

test.each([
  ['24 plants in 4 rows', ['row Row 1 6', 'row Row 2 6', 'row Row 3 6', 'row Row 4 6']],
  ['10 trees in 3 rows', ['row Row 1 4', 'row Row 2 3', 'row Row 3 3']],
  ['2 beds', ['bed Bed 1 null', 'bed Bed 2 null']],
  ['2 patches', ['patch Patch 1 null', 'patch Patch 2 null']],
  ['2 rows of 30 vines', ['row Row 1 30', 'row Row 2 30']],
  ['12 pots', ['pots Pots 12']],
  ['7 tomatoes.', ['plants Tomatoes 7']],
])('%s', (text, parts) => expect(read(text)).toEqual(parts))

test('numbers go on behind those that are there', () => {
  expect(read('2 rows', ['Row 1', 'Row 7', 'Rowan'])).toEqual(['row Row 8 null', 'row Row 9 null'])
  expect(read('3 pots', ['Pots'])).toEqual(['pots Pot 1 3'])
})

test.each(['', 'a few', '0 rows', '3 plants in 4 rows', '24 plants in 0 rows', '24 plants in 4 crates', '9000 rows', '4 rows of 0'])(
  'nothing is made of “%s”',
  (text) => expect(read(text)).toBeUndefined(),
)
