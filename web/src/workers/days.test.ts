import { expect, test } from 'vitest'
import { bestByNumber } from './days.js'

/** Forty draws of a generation that comes over a month, each draw a little later than the one before. */
const cohorts = Array.from({ length: 40 }, (_, m) =>
  Array.from({ length: 30 }, (__, q) => ({ enter: 20 + q + m / 8, exit: 28 + q + m / 8 })),
)
const asked = { cohorts, from: 10, to: 70, effect: 0.8, residualDays: 3, minInterval: 7, without: [] }

test('one, two and three days are offered, each of them in its season and far enough from the others', () => {
  const found = bestByNumber(asked)
  expect(found.map(({ days }) => days.length)).toEqual([1, 2, 3])
  expect(found[1]!.mean).toBeGreaterThan(found[0]!.mean)
  expect(found[2]!.mean).toBeGreaterThan(found[1]!.mean)
  for (const { days } of found) {
    expect(days.every((day) => Number.isInteger(day) && day >= asked.from && day <= asked.to)).toBe(true)
    expect(days.slice(1).every((day, i) => day - days[i]! >= asked.minInterval)).toBe(true)
  }
})

test('days on which nobody can or may treat are never among them, and fewer days never reach more', () => {
  const [one] = bestByNumber(asked)
  const [best] = one!.days
  const without = [best! - 1, best!, best! + 1]
  const others = bestByNumber({ ...asked, without })
  for (const { days } of others) expect(days.some((day) => without.includes(day))).toBe(false)
  others.forEach(({ mean }, i) => expect(mean).toBeLessThanOrEqual(bestByNumber(asked)[i]!.mean + 1e-12))
  expect(bestByNumber({ ...asked, from: 30, to: 32, without: [30, 31, 32] })).toEqual([])
})

test('what more days add nothing to is not offered, nor anything where nothing is there any more', () => {
  const short = [[{ enter: 20, exit: 25 }]]
  expect(bestByNumber({ ...asked, cohorts: short, effect: 1 })).toEqual([{ days: [17], mean: 1 }])
  expect(bestByNumber({ ...asked, from: 80, to: 90 })).toEqual([])
  expect(bestByNumber({ ...asked, from: 90, to: 80 })).toEqual([])
})

test('is found well within a second', () => {
  const times = Array.from({ length: 3 }, () => {
    const began = performance.now()
    bestByNumber({ ...asked, from: 0, to: 119 })
    return performance.now() - began
  })
  expect(Math.min(...times)).toBeLessThan(1000)
})
