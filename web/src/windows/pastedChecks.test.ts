import { expect, test } from 'vitest'
import { checksOf } from './pastedChecks.js'

test('checks are read from lines as a notebook or a sheet has them; blank lines are none', () => {
  expect(checksOf('2026-05-14 12\n\n2026-05-18,3\n2026-05-22;\t0\r\n')).toEqual({
    checks: [
      { day: '2026-05-14', caught: 12 },
      { day: '2026-05-18', caught: 3 },
      { day: '2026-05-22', caught: 0 },
    ],
  })
})

test.each(['14 May 12', '2026-05-14', '2026-05-14 -3', '2026-05-14 2.5'])('%s is named with its line, and nothing is taken', (wrong) => {
  expect(checksOf(`2026-05-10 1\n${wrong}`)).toEqual({ checks: [], wrong: { line: 2, text: wrong } })
})

test('days are read as people write them; what can be read in two ways is asked about, and taken as it was said', () => {
  expect(checksOf('5/14/2026 12\n5/3/2026: 2\n20 May 2026, 4\n22.5.2026; 0').checks.map(({ day }) => day)).toEqual([
    '2026-05-14',
    '2026-05-03',
    '2026-05-20',
    '2026-05-22',
  ])
  const text = '5/3/2026 12\n5/7/2026 3'
  expect(checksOf(text)).toEqual({ checks: [], unclear: '5/3/2026' })
  expect(checksOf(text, 'mdy').checks.map(({ day }) => day)).toEqual(['2026-05-03', '2026-05-07'])
  expect(checksOf(text, 'dmy').checks.map(({ day }) => day)).toEqual(['2026-03-05', '2026-07-05'])
})
