import { expect, test } from 'vitest'
import { mixHere, outputOff } from './mix.js'

const label = { rateUnit: 'L/ha', leastVolume: null } as const
const sprayer = { sprayLPerHa: 500, tankL: 1000 }

test('amounts are in the unit of the label, whatever area that is of', () => {
  const of = (rateUnit: 'L/ha' | 'fl oz/acre' | 'g/m²', rate: number) =>
    mixHere({ rateUnit, leastVolume: null }, { areaHa: 4.2, rate, most: 1e6, sprayer })!
  expect(of('L/ha', 0.1)).toMatchObject({ unit: 'L', fullTanks: 2, lastTankL: 100 })
  expect(of('L/ha', 0.1).product).toBeCloseTo(0.42, 9)
  // 4.2 ha are 10.378 acres.
  expect(of('fl oz/acre', 2)).toMatchObject({ unit: 'fl oz' })
  expect(of('fl oz/acre', 2).product).toBeCloseTo(20.757, 2)
  expect(of('g/m²', 3).product).toBeCloseTo(126_000, 6)
})

test('nothing is mixed above the label, nor of what is missing; too little water is told', () => {
  const of = (change: object) => mixHere(label, { areaHa: 1, rate: 1, most: 1, sprayer, ...change })
  expect(of({})).not.toBeNull()
  expect(of({ rate: 1.01 })).toBeNull()
  for (const missing of [{ areaHa: null }, { rate: NaN }, { sprayer: { ...sprayer, tankL: null } }]) expect(of(missing)).toBeNull()
  expect(mixHere({ ...label, leastVolume: 600 }, { areaHa: 1, rate: 1, most: 1, sprayer })!.tooLittle).toBe(600)
})

test('what a boom delivers is held against what is wanted', () => {
  const found = outputOff(150, { nozzleLitresPerMinute: 0.8, speedKmH: 6, spacingM: 0.5 })!
  expect(found.output).toBeCloseTo(160, 9)
  expect(found.off).toBeCloseTo(1 / 15, 9)
  expect(outputOff(150, { nozzleLitresPerMinute: 0.8, speedKmH: null, spacingM: 0.5 })).toBeNull()
})
