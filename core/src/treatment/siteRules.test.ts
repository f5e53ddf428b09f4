import { describe, expect, test } from 'vitest'
import { hourLimits, withRules } from './hourLimits.js'
import { rateFor } from './labelRate.js'
import { actsOf, closedBy, holdsOn, rulesFor, type SiteRule } from './siteRules.js'

const RULE: SiteRule = {
  name: 'school hours',
  kind: 'closed-hours',
  act: 'spraying',
  whose: 'own',
  fromDay: null,
  untilDay: null,
  fromHour: 8,
  untilHour: 16,
  amount: null,
}
const NESTING: SiteRule = {
  ...RULE,
  name: 'nesting',
  kind: 'closed-days',
  act: 'cutting',
  whose: 'law',
  fromDay: '03-01',
  untilDay: '08-31',
  fromHour: null,
  untilHour: null,
}
const VIRUS = { ways: ['spray'], methods: ['granulosis-virus'], chemical: false }

describe('rules of a place', () => {
  test('bind the work that they name: spraying is no chemical by itself, mowing is cutting, and everything binds all', () => {
    expect(actsOf(VIRUS)).toEqual(['everything', 'spraying'])
    expect(actsOf({ ways: ['dispensers'], methods: ['mating-disruption'], chemical: false })).toEqual(['everything'])
    // Where nobody has said how it is applied it is taken to be sprayed.
    expect(actsOf({ ways: [], methods: ['spinosyn'], chemical: true })).toEqual(['everything', 'spraying', 'chemicals'])
    expect(actsOf({ ways: null, methods: ['flaming'], chemical: false })).toContain('burning')
    expect(rulesFor([RULE, NESTING], { ways: null, methods: ['repeated-mowing'], chemical: false })).toEqual([NESTING])
  })

  test('hold between their days, also over the turn of the year, both days among them', () => {
    expect(['2026-02-28', '2026-03-01', '2026-08-31', '2026-09-01'].map((day) => holdsOn(NESTING, day))).toEqual([false, true, true, false])
    const winter = { fromDay: '11-15', untilDay: '02-10' }
    expect(['2026-11-14', '2026-12-31', '2027-02-10', '2027-02-11'].map((day) => holdsOn(winter, day))).toEqual([false, true, true, false])
  })

  test('close hours, over midnight too, and whole days', () => {
    expect(closedBy(RULE, '2026-06-12')).toEqual([[8, 16]])
    expect(closedBy({ ...RULE, fromHour: 22, untilHour: 6 }, '2026-06-12')).toEqual([
      [0, 6],
      [22, 24],
    ])
    expect(closedBy(NESTING, '2026-06-12')).toEqual([[0, 24]])
    expect(closedBy(NESTING, '2026-10-12')).toEqual([])
    expect(() => closedBy({ ...RULE, fromHour: -1 }, '2026-06-12')).toThrow(RangeError)
  })

  test('lower the wind of a label and never raise it; of two that close a day law is named', () => {
    const product = { ways: ['spray'], bees: 'none-stated' as const, maxWindMs: 4, minTempC: null, maxTempC: null, rainFastHours: null }
    const label = hourLimits({ product, methods: ['spinosyn'], systemic: false }, false)
    const wind = (amount: number): SiteRule => ({ ...RULE, kind: 'wind', fromHour: null, untilHour: null, amount })
    expect(withRules(label, [wind(3)], '2026-06-12')).toMatchObject({ limits: { maxWind: 3 }, from: { wind: 'own' } })
    expect(withRules(label, [wind(6)], '2026-06-12')).toMatchObject({ limits: { maxWind: 4 }, from: { wind: 'label' } })
    const both = withRules(label, [{ ...NESTING, act: 'everything' }, RULE], '2026-06-12')
    expect(both.from.rule).toBe('law')
    expect(both.limits.closed).toHaveLength(2)
    // What it was given stays as it was.
    expect(label.limits.closed).toBeUndefined()
  })
})

test('the rate of a label is that for the crop and the target, else for the crop, else for the target, else the highest', () => {
  const label = {
    labelRate: 10,
    rates: [
      { crop: 'apple', target: null, rate: 8 },
      { crop: '', target: 'codling-moth', rate: 7 },
      { crop: 'apple', target: 'codling-moth', rate: 5 },
    ],
  }
  expect(rateFor(label, 'codling-moth', 'apple, 1988')).toBe(5)
  expect(rateFor(label, 'oriental-fruit-moth', 'apples')).toBe(8)
  expect(rateFor(label, 'codling-moth', 'pear')).toBe(7)
  expect(rateFor(label, 'pear-psylla', 'pear')).toBe(10)
})
