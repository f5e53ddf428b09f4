import fc from 'fast-check'
import { expect, test } from 'vitest'
import { harvestFrom, keepingWaiting } from './preHarvest.js'

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
