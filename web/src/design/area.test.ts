import { describe, expect, test } from 'vitest'
import { groundOf, measuresOf } from './units.js'

describe('an area', () => {
  test('that is small is told and typed in the small unit, and stays what it was', () => {
    const metric = measuresOf('metric')
    const bed = groundOf(0.004, metric)
    expect([bed.unit, bed.shown(0.004)]).toEqual(['m²', 40])
    expect(bed.stored(40)).toBeCloseTo(0.004, 12)
    const us = groundOf(0.004, measuresOf('us'))
    expect([us.unit, Math.round(us.shown(0.004))]).toEqual(['ft²', 431])
    expect(us.stored(us.shown(0.004))).toBeCloseTo(0.004, 12)
  })

  test('from a tenth of a hectare on is told in the large one, as is one that is not known', () => {
    expect(groundOf(0.1, measuresOf('metric')).unit).toBe('ha')
    expect(groundOf(4.2, measuresOf('us')).unit).toBe('acres')
    expect(groundOf(null, measuresOf('metric')).isSmall).toBe(false)
  })
})
