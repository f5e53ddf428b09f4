import { describe, expect, test } from 'vitest'
import { checkTells, startOf } from './leaveCheck.js'

const round = (countedOn: string, per100: number, checkAreaId: string | null = null) => ({ countedOn, per100, checkAreaId })

describe('what a comparison starts from', () => {
  test('is the last count in the block that found any, in its sample units', () => {
    const rounds = [round('2026-06-01', 80), round('2026-05-20', 10), round('2026-06-08', 300, 'check'), round('2026-06-10', 0)]
    expect(startOf(rounds, null, { itemsPerUnit: 5 })).toEqual({ mean: 4, from: { kind: 'count', countedOn: '2026-06-01' } })
  })
  test('is the threshold where nothing was counted, and a number to be typed where none is known', () => {
    expect(startOf([], { per100: 50 } as never, { itemsPerUnit: 2 })).toEqual({ mean: 1, from: { kind: 'threshold' } })
    expect(startOf([], null, { itemsPerUnit: 2 }).from.kind).toBe('typed')
  })
})

describe('what checks would tell', () => {
  test('more blocks with a check tell smaller falls, with fewer units', () => {
    const [, three, four, six] = checkTells(4, 25, null)
    expect(four!.least).toBeLessThan(three!.least!)
    expect(six!.least).toBeLessThan(four!.least!)
    expect(six!.needs[1]!.units).toBeLessThan(four!.needs[1]!.units!)
  })
  test('half of it no number of units in one block tells: two areas differ by themselves', () => {
    const [one] = checkTells(4, 25, null)
    expect(one!.needs[0]).toEqual({ fall: 0.5, units: undefined })
    expect(one!.needs[1]!.units).toBeGreaterThan(20)
  })
  test('what was measured here to sit close together needs more than what sits as by chance', () => {
    const least = (k: number | null) => checkTells(4, 25, { k })[2]!.least!
    expect(least(0.4)).toBeGreaterThan(least(null))
  })
})
