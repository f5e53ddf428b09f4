import { expect, test } from 'vitest'
import { catchPerDay, tellingCatches, type TrapCatch } from './traps.js'

const caught = (trap: string | null, count: number, change: Partial<TrapCatch> = {}): TrapCatch => ({
  event: 'flight',
  season: 20_000,
  trap,
  inDisruption: false,
  caught: count,
  ...change,
})

test('of several traps the one tells that caught most; each season and each event for itself', () => {
  const all = [caught('a', 3), caught('b', 5), caught('a', 4), caught('a', 9, { season: 19_635 }), caught('b', 1, { event: 'second' })]
  expect(tellingCatches(all)).toEqual([all[0], all[2], all[3], all[4]])
})

test('where mating is disrupted no catch tells anything, however many there are', () => {
  const hidden = caught('a', 90, { inDisruption: true })
  expect(tellingCatches([hidden])).toEqual([])
  const outside = caught(null, 2)
  expect(tellingCatches([hidden, outside])).toEqual([outside])
})

test('a check that does not lie after the one before has no catch per day', () => {
  expect(catchPerDay({ day: 10, since: 3, caught: 0 })).toBe(0)
  expect(() => catchPerDay({ day: 10, since: 10, caught: 1 })).toThrow(RangeError)
})
