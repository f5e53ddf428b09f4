import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { momentOf } from './moments.js'
import { measuresOf, type Measure } from './units.js'

describe('a day and a time of the site’s clock as a moment', () => {
  const HOME = 'America/Los_Angeles'
  test.each([
    ['2026-06-14', '22:05', '2026-06-15T05:05:00Z'],
    ['2026-06-14', '7.30', '2026-06-14T14:30:00Z'],
    ['2026-06-14', ' 0730 ', '2026-06-14T14:30:00Z'],
    ['2026-01-14', '07:30', '2026-01-14T15:30:00Z'],
    ['2026-06-14', '10:05 PM', '2026-06-15T05:05:00Z'],
    ['2026-06-14', '7 a.m.', '2026-06-14T14:00:00Z'],
    ['2026-06-14', '12:30 am', '2026-06-14T07:30:00Z'],
    // The clock goes back: of the two half past ones the first.
    ['2026-11-01', '01:30', '2026-11-01T08:30:00Z'],
  ])('%s %s is %s', (day, time, moment) => expect(momentOf(day, time, HOME)).toBe(moment))

  test.each([
    [null, '07:30'],
    ['2026-06-14', ''],
    ['2026-06-14', 'noon'],
    ['2026-06-14', '7'],
    ['2026-06-14', '25:00'],
    ['2026-06-14', '13:00 pm'],
    ['2026-06-14', '0 am'],
    ['2026-06-14', '24:00'],
    ['2026-06-14', '07:75'],
    ['2026-02-30', '07:30'],
    // The clock goes forward: there is no half past two that night.
    ['2026-03-08', '02:30'],
  ])('%s %s is none', (day, time) => expect(momentOf(day, time, HOME)).toBeNull())
})

describe('what is shown in a site’s units is stored as it was', () => {
  const all = (['metric', 'us'] as const).flatMap((units) =>
    Object.entries(measuresOf(units)).map(([name, measure]) => [units, name, measure as Measure] as const),
  )
  test.each(all)('%s %s', (_, __, { shown, stored }) => {
    fc.assert(
      fc.property(fc.double({ min: -60, max: 4000, noNaN: true }), (si) => {
        expect(stored(shown(si))).toBeCloseTo(si, 6)
        // More is more, in every unit.
        expect(shown(si + 1)).toBeGreaterThan(shown(si))
      }),
    )
  })

  test.each([
    ['temperature', 0, 32],
    ['temperature', 31.1, 88],
    ['heat', 139, 250],
    ['rain', 25.4, 1],
    ['wind', 4.4704, 10],
    ['area', 4.2, 10.4],
  ] as const)('%s of %d is %d as people there say it', (name, si, us) => {
    const { shown, digits } = measuresOf('us')[name]
    expect(Math.abs(shown(si) - us)).toBeLessThan(0.5 * 10 ** -Math.min(1, digits) + 0.01)
  })
})
