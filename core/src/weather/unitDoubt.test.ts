import { describe, expect, test } from 'vitest'
import { doubtedTemperatureUnit, type MonthOfReadings } from './unitDoubt.js'

/** Means of a temperate year by month, °C. */
const YEAR = [0, 2, 6, 10, 15, 19, 23, 22, 17, 11, 5, 1]
const asRead = (turn: (mean: number) => number, months = YEAR.map((_, i) => i + 1)): MonthOfReadings[] =>
  months.map((month) => ({ month, mean: turn(YEAR[month - 1]!), count: 30 }))
const nothing = (): undefined => undefined
const stored = (month: number): number => YEAR[month - 1]! + 2
const north = { latitude: 46, hemisphere: 'north' as const }
const fAsC = (c: number): number => c * 1.8 + 32
const cAsF = (c: number): number => (c - 32) / 1.8

describe('the unit of a file of temperatures', () => {
  test.each([
    ['°F read as °C, a whole year', asRead(fAsC), 'C', nothing, 'F'],
    ['°F read as °C, a January of 109 °F alone', asRead(fAsC, [1]), 'C', nothing, 'F'],
    ['°C read as °F, a summer', asRead(cAsF, [6, 7, 8]), 'F', nothing, 'C'],
    ['°C read as °F, an April, where other Aprils are stored', asRead(cAsF, [4]), 'F', stored, 'C'],
    ['tenths read as °C, a whole year', asRead((c) => c * 10), 'C', stored, 'C/10'],
    ['tenths read as °F, a spring, where others are stored', asRead((c) => cAsF(c * 10), [3, 4, 5]), 'F', stored, 'C/10'],
    ['°C read as tenths, a summer', asRead((c) => c / 10, [6, 7, 8]), 'C/10', nothing, 'C'],
  ] as const)('%s: the other is offered', (_, months, readAs, usual, better) => {
    expect(doubtedTemperatureUnit(months, readAs, usual, north)).toMatchObject({ better })
  })

  test.each([
    ['°C', 'C'],
    ['°F', 'F'],
    ['tenths', 'C/10'],
  ] as const)('read rightly as %s is not doubted, with what is stored or without', (_, readAs) => {
    const months = asRead((c) => c)
    expect(doubtedTemperatureUnit(months, readAs, nothing, north)).toBeUndefined()
    expect(doubtedTemperatureUnit(months, readAs, stored, north)).toBeUndefined()
  })

  test('a year is turned round in the south, and the tropics have no winter to tell by', () => {
    const south = { latitude: -38, hemisphere: 'south' as const }
    const summer = [{ month: 1, mean: 24, count: 30 }]
    expect(doubtedTemperatureUnit(summer, 'C', nothing, south)).toBeUndefined()
    expect(doubtedTemperatureUnit([{ month: 1, mean: cAsF(24), count: 30 }], 'F', nothing, south)).toMatchObject({
      better: 'C',
      months: [1],
    })
    expect(doubtedTemperatureUnit([{ month: 1, mean: 28, count: 30 }], 'C', nothing, { latitude: 5, hemisphere: 'north' })).toBeUndefined()
  })

  test('one strange month of a year does not stop it, and where no unit fits nothing is offered', () => {
    expect(doubtedTemperatureUnit([...asRead((c) => c), { month: 1, mean: 40, count: 30 }], 'C', nothing, north)).toBeUndefined()
    expect(doubtedTemperatureUnit([{ month: 7, mean: 3000, count: 30 }], 'C', nothing, north)).toBeUndefined()
  })
})
