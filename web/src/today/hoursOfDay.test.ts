import { expect, test } from 'vitest'
import { runsOfReasons } from './HoursOfDay.js'

test('hours in a row with one reason are one run; what has none ends it', () => {
  expect(runsOfReasons(['wind', 'wind', null, 'wind', 'rain'])).toEqual([
    { from: 0, until: 2, reason: 'wind' },
    { from: 3, until: 4, reason: 'wind' },
    { from: 4, until: 5, reason: 'rain' },
  ])
  expect(runsOfReasons([])).toEqual([])
})
