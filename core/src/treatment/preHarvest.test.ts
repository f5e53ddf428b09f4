import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { harvestFrom, harvestInTheWay, keepingWaiting } from './preHarvest.js'

test('harvest waits for whole days, and not on the day on which they are over', () => {
  const treatment = { treatedOn: 100, preHarvestDays: 7 }
  expect(harvestFrom(100, 7)).toBe(107)
  expect(keepingWaiting([treatment], 106)).toEqual([treatment])
  expect(keepingWaiting([treatment], 107)).toEqual([])
  expect(keepingWaiting([treatment], 99)).toEqual([])
  expect(keepingWaiting([{ treatedOn: 100, preHarvestDays: 0 }], 100)).toEqual([])
})

test('a longer interval never lets harvest be sooner', () => {
  fc.assert(
    fc.property(fc.nat(400), fc.nat(400), fc.nat(60), fc.nat(60), (treatedOn, day, days, more) => {
      const waits = (preHarvestDays: number): boolean => keepingWaiting([{ treatedOn, preHarvestDays }], day).length > 0
      expect(waits(days) && !waits(days + more)).toBe(false)
    }),
  )
})

describe('a harvest in the way of a treatment', () => {
  const none = { begunOn: null, endedOn: null, expected: null }
  test.each([
    ['nothing is known of it', none, 14, null],
    ['the label has no days to harvest', { ...none, begunOn: 160 }, 0, null],
    ['it may begin on the last day that waits', { ...none, expected: { from: 183, until: 200 } }, 14, 'may-begin'],
    ['it begins, at the earliest, on the first day that may be picked', { ...none, expected: { from: 184, until: 200 } }, 14, null],
    ['it was to have begun before, and nobody wrote it down', { ...none, expected: { from: 120, until: 169 } }, 14, null],
    ['it is under way', { ...none, begunOn: 160 }, 3, 'under-way'],
    ['it begins within the days that wait, as a plan of the past is looked at', { ...none, begunOn: 172 }, 3, 'under-way'],
    ['it began later than they last', { ...none, begunOn: 173 }, 3, null],
    ['it is over', { ...none, begunOn: 150, endedOn: 169 }, 14, null],
    ['its last is picked on that day', { ...none, begunOn: 150, endedOn: 170 }, 14, 'under-way'],
  ] as const)('%s', (_, harvest, days, said) => {
    expect(harvestInTheWay(170, days, harvest)).toBe(said)
  })
})
