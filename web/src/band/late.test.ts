import { expect, test } from 'vitest'
import { wholeOf } from './late.js'

const fruit = { one: 'fruit', many: 'fruit', items: 1 }
const count = (effective: number[], unit = fruit) => ({ effective, measure: 'density' as const, unit })

test('what is whole is told between bounds, and never as surely all of it', () => {
  const none = wholeOf(200, count(new Array<number>(100).fill(0)))!
  expect(none.high).toBe(200)
  expect(none.low).toBeLessThan(200)
  const some = wholeOf(200, count([...new Array<number>(90).fill(0), ...new Array<number>(10).fill(1)]))!
  expect(some.low).toBeLessThan(180)
  expect(some.high).toBeGreaterThan(180)
  // A fruit with three in it is spoilt once.
  expect(wholeOf(200, count([...new Array<number>(90).fill(0), ...new Array<number>(10).fill(3)]))).toEqual(some)
})

test('a unit of several items counts each of them; a count of presence says nothing of single ones', () => {
  const tree = { one: 'tree', many: 'trees', items: 20 }
  const { low, high } = wholeOf(100, count([2, 0, 0, 2, 0], tree))!
  expect(low).toBeLessThan(96)
  expect(high).toBeGreaterThan(96)
  expect(wholeOf(100, { ...count([1, 0]), measure: 'presence' })).toBeUndefined()
  expect(wholeOf(100, count([]))).toBeUndefined()
})
