import { rateUnits } from '@bocado/contract'
import { describe, expect, test } from 'vitest'
import { amountOn, rateUnitsFor, usualUnit } from './rates.js'

describe('what a rate comes to', () => {
  test.each([
    [0.1, 'L/ha', 4.2, 0.42, 'L'],
    // 4.2 ha are 10.38 acres.
    [6, 'fl oz/acre', 4.2, 62.27, 'fl oz'],
    [2, 'lb/acre', 0.404_685_642, 2, 'lb'],
    [3, 'g/m²', 0.004, 120, 'g'],
  ] as const)('%d %s on %d ha is %d %s', (rate, unit, ha, amount, of) => {
    const all = amountOn(rate, unit, ha)
    expect(all.amount).toBeCloseTo(amount, 1)
    expect(all.unit).toBe(of)
  })
})

test('the units of the place come first, and none is left out', () => {
  expect(rateUnitsFor({ units: 'us', kind: 'farm' })[0]).toBe('fl oz/acre')
  expect(rateUnitsFor({ units: 'metric', kind: 'farm' })[0]).toBe('L/ha')
  expect(rateUnitsFor({ units: 'metric', kind: 'garden' })[0]).toBe('mL/m²')
  for (const units of ['us', 'metric'] as const) expect(new Set(rateUnitsFor({ units, kind: 'land' }))).toEqual(new Set(rateUnits))
})

test('the unit of most labels on the shelf is the usual one', () => {
  expect(usualUnit([])).toBeNull()
  expect(usualUnit(['kg/ha', 'L/ha', 'L/ha'].map((rateUnit) => ({ rateUnit: rateUnit as 'L/ha' })))).toBe('L/ha')
})
