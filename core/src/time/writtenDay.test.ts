import { describe, expect, test } from 'vitest'
import { dayOrderOf, writtenDay } from './writtenDay.js'

describe('a day as people write it', () => {
  test.each([
    ['2025-05-03', '2025-05-03'],
    ['2025/5/3 lilac', '2025-05-03'],
    ['04.05.2024 lilac', '2024-05-04'],
    ['3 May 2025', '2025-05-03'],
    ['3. May 2025', '2025-05-03'],
    ['3rd of May, 2025', '2025-05-03'],
    ['may 1st 2023', '2023-05-01'],
    ['May 3, 2025 forsythia over', '2025-05-03'],
    ["lilac full bloom 3 May '25", '2025-05-03'],
    ['Sat 3 May 2025', '2025-05-03'],
    ['3-May-2025 08:00', '2025-05-03'],
    ['lilac, 12 June 2026, by the gate', '2026-06-12'],
    ['13/5/2025', '2025-05-13'],
    ['5/13/25', '2025-05-13'],
    ['3/3/2025', '2025-03-03'],
    ['Sept 12 2024 asters', '2024-09-12'],
  ])('"%s" is %s, whatever the order', (text, day) => {
    expect(writtenDay(text)).toMatchObject({ day })
    expect(writtenDay(text)).not.toHaveProperty('orElse')
  })

  test('that can be read in both orders says so, until the order is given', () => {
    expect(writtenDay('5/3/2025 lilac')).toMatchObject({ day: '2025-03-05', orElse: '2025-05-03', start: 0, end: 8 })
    expect(writtenDay('5/3/2025 lilac', 'mdy')).toEqual({ day: '2025-05-03', start: 0, end: 8 })
    expect(writtenDay('5/3/2025 lilac', 'dmy')).toEqual({ day: '2025-03-05', start: 0, end: 8 })
    // Only one order makes a day of it.
    expect(writtenDay('5/23/2025 lilac', 'dmy')?.day).toBe('2025-05-23')
  })

  test('without a year is one only under a year', () => {
    expect(writtenDay('6/1 lilac')).toBeUndefined()
    expect(writtenDay('3 May lilac')).toBeUndefined()
    expect(writtenDay('6/1 lilac', 'mdy', 2025)?.day).toBe('2025-06-01')
    expect(writtenDay('3 May lilac', null, 2025)?.day).toBe('2025-05-03')
    expect(writtenDay('1.6. lilac', null, 2025)?.day).toBe('2025-06-01')
    expect(writtenDay('May 3: lilac', null, 2025)?.day).toBe('2025-05-03')
    expect(writtenDay('6/1 and 6/9', null, 2025)).toMatchObject({ day: '2025-01-06', orElse: '2025-06-01' })
  })

  test.each([
    '',
    'lilac in bloom',
    '2025-02-30',
    '30.2.2025',
    '31 June 2025',
    '12:30',
    '1.5 m',
    '3/4 of the tree',
    'maybe 3 of them',
    '8.5 24 0.4',
  ])('"%s" is none', (text) => expect(writtenDay(text)).toBeUndefined())

  test('that does not exist is not read as a shorter one under a year either', () => {
    expect(writtenDay('30.2.2025', null, 2024)).toBeUndefined()
    expect(writtenDay('2/30/2025', 'mdy', 2024)).toBeUndefined()
  })
})

test('a list tells the order of its days where one of them allows only one', () => {
  expect(dayOrderOf(['5/3/2025 12', '5/17/2025 3'])).toBe('mdy')
  expect(dayOrderOf(['5/3/2025 12', '17/5/2025 3'])).toBe('dmy')
  expect(dayOrderOf(['5/3/2025 12', '6/7/2025 3'])).toBeNull()
  expect(dayOrderOf(['5/17/2025', '17/5/2025'])).toBeNull()
  expect(dayOrderOf(['6/1', '6/14'])).toBe('mdy')
})
