import fc from 'fast-check'
import { expect, test } from 'vitest'
import { mixForArea } from './index.js'

test('full tanks and a last partial one, of full counts as full', () => {
  expect(mixForArea({ areaHa: 4.2, ratePerHa: 0.1, sprayLPerHa: 500, tankL: 1000 })).toMatchObject({ fullTanks: 2, lastTankL: 100 })
  expect(mixForArea({ areaHa: 4, ratePerHa: 0.1, sprayLPerHa: 500, tankL: 1000 })).toMatchObject({
    fullTanks: 2,
    lastTankL: 0,
    productInLastTank: 0,
  })
  expect(mixForArea({ areaHa: 0.3, ratePerHa: 1, sprayLPerHa: 100, tankL: 10 })).toMatchObject({ fullTanks: 3, lastTankL: 0 })
  expect(mixForArea({ areaHa: 0.01, ratePerHa: 1, sprayLPerHa: 100, tankL: 10 })).toMatchObject({ fullTanks: 0, lastTankL: 1 })
  expect(() => mixForArea({ areaHa: 0, ratePerHa: 1, sprayLPerHa: 100, tankL: 10 })).toThrow('areaHa')
})

test('what goes into the tanks is what the area needs, and the last one is smaller than a full one', () => {
  const some = (max: number) => fc.double({ min: 0.01, max, noNaN: true })
  fc.assert(
    fc.property(some(50), some(20), some(2000), some(3000), (areaHa, ratePerHa, sprayLPerHa, tankL) => {
      const mix = mixForArea({ areaHa, ratePerHa, sprayLPerHa, tankL })
      expect(mix.fullTanks * mix.productPerFullTank + mix.productInLastTank).toBeCloseTo(mix.product, 6)
      expect(mix.fullTanks * tankL + mix.lastTankL).toBeCloseTo(mix.sprayL, 5)
      expect(mix.lastTankL).toBeLessThan(tankL)
    }),
  )
})
