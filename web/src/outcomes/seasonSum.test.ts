import { expect, test } from 'vitest'
import { seasonSum } from './seasonSum.js'

const deed = (p90: number | null, minutes: number | null = null, productName = 'Granule C') => ({
  coverage: p90 === null ? null : { p10: 0, p50: p90 / 2, p90 },
  minutes,
  productName,
})

test('deeds are told by what they met, with the work of those that met nothing; what nobody measured is not made up', () => {
  expect(seasonSum([deed(0.4, 60), deed(0.004, 90), deed(0, null, 'Summer oil Lind'), deed(null, 30)])).toEqual({
    deeds: 4,
    met: 1,
    nothing: 2,
    unknown: 1,
    minutesForNothing: 90,
    names: ['Granule C', 'Summer oil Lind'],
  })
  expect(seasonSum([deed(0)]).minutesForNothing).toBeNull()
  expect(seasonSum([])).toMatchObject({ deeds: 0, met: 0, nothing: 0, unknown: 0 })
})
