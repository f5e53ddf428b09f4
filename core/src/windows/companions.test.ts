import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { asleepSpans, awakeNow, awakeWith, type Awake } from './companions.js'

const START = Date.UTC(2025, 0, 1)
const dayAt = (i: number): string => new Date(START + i * 86_400_000).toISOString().slice(5, 10)
const day = fc.integer({ min: 0, max: 364 }).map(dayAt)
const awake = fc.record({ from: day, until: day })
/** By going through the days one after the other. */
const isIn = ({ from, until }: Awake, at: string): boolean => (from <= until ? at >= from && at <= until : at >= from || at <= until)
const everyDay = Array.from({ length: 365 }, (_, i) => dayAt(i))

describe('when companions sleep', () => {
  test('the last to sleep opens the window, and the first to wake closes it', () => {
    const bulb = { from: '02-20', until: '06-10' }
    const fern = { from: '04-15', until: '10-31' }
    expect(asleepSpans([bulb, fern])).toEqual([{ from: '11-01', until: '02-19' }])
    expect(asleepSpans([bulb])).toEqual([{ from: '06-11', until: '02-19' }])
    // What is green in winter leaves summer.
    expect(asleepSpans([bulb, { from: '09-20', until: '05-01' }])).toEqual([{ from: '06-11', until: '09-19' }])
  })

  test('between two of them a second window may open', () => {
    expect(
      asleepSpans([
        { from: '03-01', until: '05-31' },
        { from: '09-01', until: '11-30' },
      ]),
    ).toEqual([
      { from: '06-01', until: '08-31' },
      { from: '12-01', until: '02-28' },
    ])
  })

  test('none where something is always awake; nothing is said without a plant', () => {
    expect(asleepSpans([{ from: '01-01', until: '12-31' }])).toEqual([])
    expect(
      asleepSpans([
        { from: '11-01', until: '05-01' },
        { from: '04-01', until: '11-15' },
      ]),
    ).toEqual([])
    expect(asleepSpans([])).toBeUndefined()
  })

  test('every day is in a window or has something awake, and never both', () => {
    fc.assert(
      fc.property(fc.array(awake, { minLength: 1, maxLength: 5 }), (all) => {
        const spans = asleepSpans(all)!
        for (const at of everyDay) expect(spans.some((span) => isIn(span, at))).toBe(!all.some((one) => isIn(one, at)))
      }),
    )
  })
})

describe('days on which one was seen awake', () => {
  test('move the end that lies nearer', () => {
    expect(awakeWith({ from: '03-10', until: '06-20' }, ['02-26'])).toEqual({ from: '02-26', until: '06-20' })
    expect(awakeWith({ from: '03-10', until: '06-20' }, ['07-02', '05-05'])).toEqual({ from: '03-10', until: '07-02' })
    expect(awakeWith({ from: '11-20', until: '04-01' }, ['11-02'])).toEqual({ from: '11-02', until: '04-01' })
    // A leap day stands for the day before it.
    expect(awakeWith({ from: '03-10', until: '06-20' }, ['02-29'])).toEqual({ from: '02-28', until: '06-20' })
  })

  test('are awake afterwards, and what was awake stays so', () => {
    fc.assert(
      fc.property(awake, fc.array(day, { maxLength: 4 }), (said, seen) => {
        const known = awakeWith(said, seen)
        for (const at of seen) expect(isIn(known, at)).toBe(true)
        for (const at of everyDay) if (isIn(said, at)) expect(isIn(known, at)).toBe(true)
      }),
    )
  })

  test('what is no day is refused', () => {
    expect(() => awakeWith({ from: '13-01', until: '06-20' }, [])).toThrow('month must be from 1 to 12')
  })
})

test.each([
  ['it was seen asleep, and sleeps on', '2026-06-02', '2026-11-01', '06-01'],
  ['it has woken since', '2026-06-02', '2027-03-01', '06-10'],
  ['it sleeps anyway', '2026-08-01', '2026-11-01', '06-10'],
  ['that was years ago', '2024-06-02', '2026-11-01', '06-10'],
  ['that is yet to come', '2026-06-02', '2026-06-01', '06-10'],
])('of what was seen asleep: %s', (_, asleepOn, today, until) => {
  expect(awakeNow({ from: '02-20', until: '06-10' }, asleepOn, today)).toEqual({ from: '02-20', until })
})
