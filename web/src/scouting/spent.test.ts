import { expect, test } from 'vitest'
import { minutesOf, tapped, type Spent } from './spent.js'

const MINUTE = 60_000
const walk = (...at: number[]): Spent => at.reduce((spent, minute) => tapped(spent, minute * MINUTE), { ms: 0, lastAt: null } as Spent)

test('the time of a walk is that between its taps, in minutes', () => {
  expect(minutesOf(walk(0, 2, 4, 7))).toBe(7)
  expect(minutesOf(walk(0, 0.2))).toBe(1)
})

test('a long pause is none of it, nor a clock that was put back', () => {
  expect(minutesOf(walk(0, 3, 200, 204))).toBe(7)
  expect(minutesOf(walk(10, 12, 4, 6))).toBe(4)
})

test('of what nobody tapped nothing is known', () => {
  expect(minutesOf(walk())).toBeNull()
  expect(minutesOf(walk(5))).toBeNull()
})
