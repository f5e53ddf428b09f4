import { expect, test } from 'vitest'
import { mixHere, NOTHING_SIZED, outputOff, sizesOf, sprayForCanopy } from './mix.js'

const sprayer = { sprayLPerHa: 500, tankL: 1000, concentrate: 1 }
const sized = { ...NOTHING_SIZED, areaHa: 4.2 }
type Unit = Parameters<typeof mixHere>[0]['rateUnit']
const mixed = (rateUnit: Unit, change: object = {}) =>
  mixHere({ rateUnit, leastVolume: null }, { sized, rate: 1, most: 1e6, sprayer, ...change })

test('amounts are in the unit of the label, whatever area that is of', () => {
  expect(mixed('L/ha', { rate: 0.1 })).toMatchObject({ unit: 'L', tanks: { fullTanks: 2, lastTankL: 100 } })
  expect(mixed('L/ha', { rate: 0.1 })!.product).toBeCloseTo(0.42, 9)
  // 4.2 ha are 10.378 acres.
  expect(mixed('fl oz/acre', { rate: 2 })).toMatchObject({ unit: 'fl oz' })
  expect(mixed('fl oz/acre', { rate: 2 })!.product).toBeCloseTo(20.757, 2)
  expect(mixed('g/m²', { rate: 3 })!.product).toBeCloseTo(126_000, 6)
})

test('a dilution goes by the spray, and is made stronger where less water is used', () => {
  // 2100 L in all.
  expect(mixed('mL/L', { rate: 2 })!.product).toBeCloseTo(4200, 9)
  expect(mixed('% v/v', { rate: 2 })).toMatchObject({ product: 42, unit: 'L' })
  const half = { ...sprayer, sprayLPerHa: 250, concentrate: 2 }
  expect(mixed('mL/L', { rate: 2, sprayer: half })!.product).toBeCloseTo(4200, 9)
  expect(mixed('L/ha', { rate: 2, sprayer: half })!.product).toBeCloseTo(8.4, 9)
  // A knapsack of 15 L at 2 %, with nobody knowing the ground.
  const knapsack = { sized: { ...NOTHING_SIZED, sprayL: 15 }, rate: 2, sprayer: { sprayLPerHa: null, tankL: 15, concentrate: null } }
  expect(mixed('% v/v', knapsack)).toMatchObject({ product: 0.3, tanks: { fullTanks: 1, lastTankL: 0 } })
})

test('by plants, rows, leaf wall and canopy', () => {
  const of = (change: object) => ({ sized: { ...sized, ...change } })
  expect(mixed('mL/plant', of({ plants: 120 }))!.product).toBe(120)
  expect(mixed('mL/m row', of({ rowM: 300 }))!.product).toBe(300)
  // 2 m high, 2.5 m apart: 16,000 m² on each of 4.2 ha.
  expect(mixed('L/10 000 m² wall', of({ heightM: 2, rowSpacingM: 2.5 }))!.product).toBeCloseTo(6.72, 9)
  expect(mixed('L/10 000 m³ canopy', of({ heightM: 3, widthM: 1.5, rowSpacingM: 4.5 }))!.product).toBeCloseTo(4.2, 9)
  for (const unit of ['mL/plant', 'mL/m row', 'L/10 000 m² wall', 'L/10 000 m³ canopy'] as const) expect(mixed(unit)).toBeNull()
  expect(sizesOf('wall')).toEqual(['areaHa', 'heightM', 'rowSpacingM'])
  expect(sprayForCanopy({ ...NOTHING_SIZED, heightM: 3, widthM: 1.5, rowSpacingM: 4.5 }, 7)).toBeCloseTo(700, 9)
  expect(sprayForCanopy(NOTHING_SIZED, 7)).toBeNull()
})

test('pieces are spread evenly, and need no tank', () => {
  const hung = { rate: 25, sprayer: { sprayLPerHa: null, tankL: null, concentrate: null } }
  expect(mixed('pieces/ha', hung)).toMatchObject({ product: 105, apartM: 20, tanks: null })
  expect(mixed('pieces/acre', hung)!.apartM).toBeCloseTo(12.72, 2)
  expect(mixed('L/ha')!.apartM).toBeNull()
})

test('nothing is mixed above the label, nor of what is missing; too little water is told', () => {
  const of = (change: object) => mixed('L/ha', { rate: 1, most: 1, ...change })
  expect(of({})).not.toBeNull()
  expect(of({ rate: 1.01 })).toBeNull()
  for (const missing of [{ sized: NOTHING_SIZED }, { rate: NaN }, { rate: null }]) expect(of(missing)).toBeNull()
  // Without a tank the amount is known all the same.
  expect(of({ sprayer: { ...sprayer, tankL: null } })).toMatchObject({ product: 4.2, tanks: null })
  expect(mixHere({ rateUnit: 'L/ha', leastVolume: 600 }, { sized, rate: 1, most: 1, sprayer })!.tooLittle).toBe(600)
})

test('what a boom delivers is held against what is wanted', () => {
  const found = outputOff(150, { nozzleLitresPerMinute: 0.8, speedKmH: 6, spacingM: 0.5 })!
  expect(found.output).toBeCloseTo(160, 9)
  expect(found.off).toBeCloseTo(1 / 15, 9)
  expect(outputOff(150, { nozzleLitresPerMinute: 0.8, speedKmH: null, spacingM: 0.5 })).toBeNull()
})
