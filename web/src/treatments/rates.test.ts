import { rateUnits } from '@bocado/contract'
import { expect, test } from 'vitest'
import { rateUnitsFor, usualUnit } from './rates.js'

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
