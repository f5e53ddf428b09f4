import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { cropCalendar, type CropStageRule } from './cropCalendar.js'

const TOMATO: CropStageRule[] = [
  { id: 'sown', after: [] },
  { id: 'emerged', after: [{ stage: 'sown', days: [4, 21] }] },
  { id: 'planted', after: [{ stage: 'sown', days: [21, 70] }] },
  {
    id: 'first-flower',
    after: [
      { stage: 'planted', days: [15, 45] },
      { stage: 'emerged', days: [30, 70] },
    ],
  },
  { id: 'first-harvest', after: [{ stage: 'first-flower', days: [40, 80] }] },
]
const calendar = (seen: Record<string, number>) => new Map(cropCalendar(TOMATO, new Map(Object.entries(seen))).map((one) => [one.id, one]))

describe('the calendar of a planting', () => {
  test('nothing is expected of which nothing is known', () => {
    expect([...calendar({}).values()].every(({ expected, seen }) => expected === null && seen === null)).toBe(true)
  })

  test('bounds add up ahead of what was seen', () => {
    const of = calendar({ planted: 100 })
    expect(of.get('first-flower')!.expected).toEqual({ from: 115, until: 145 })
    expect(of.get('first-harvest')!.expected).toEqual({ from: 155, until: 225 })
    expect(of.get('sown')).toEqual({ id: 'sown', seen: null, expected: null, isPast: true })
  })

  test('what was seen counts before what is expected', () => {
    const of = calendar({ emerged: 90, planted: 100 })
    expect(of.get('first-flower')!.expected).toEqual({ from: 115, until: 145 })
    // Planted is only expected here: it is counted from the emergence that was seen.
    expect(calendar({ sown: 80, emerged: 90 }).get('first-flower')!.expected).toEqual({ from: 120, until: 160 })
  })

  test('a later stage that was seen leaves nothing expected before it', () => {
    const of = calendar({ planted: 100, 'first-harvest': 170 })
    expect(of.get('first-flower')).toEqual({ id: 'first-flower', seen: null, expected: null, isPast: true })
  })

  test('a stage that nobody wrote down is bounded by what was seen after it, and so is what follows it', () => {
    const stages = [
      { id: 'bud-break', after: [] },
      { id: 'first-flower', after: [{ stage: 'bud-break', days: [10, 45] as const }] },
      { id: 'petal-fall', after: [{ stage: 'first-flower', days: [7, 21] as const }] },
      { id: 'fruit-set', after: [{ stage: 'petal-fall', days: [3, 20] as const }] },
      { id: 'first-harvest', after: [{ stage: 'first-flower', days: [85, 180] as const }] },
    ]
    const of = (seen: Record<string, number>) =>
      new Map(cropCalendar(stages, new Map(Object.entries(seen))).map((one) => [one.id, one.expected]))
    // First flower came 7 to 21 days before petal fall: 109 to 123.
    expect(of({ 'petal-fall': 130 }).get('first-harvest')).toEqual({ from: 194, until: 303 })
    expect(of({ 'petal-fall': 130 }).get('first-flower')).toBeNull()
    // Two steps back: petal fall 120 to 137, first flower 99 to 130.
    expect(of({ 'fruit-set': 140 }).get('first-harvest')).toEqual({ from: 184, until: 310 })
    // What was seen is nearer than what is inferred.
    expect(of({ 'first-flower': 120, 'petal-fall': 130 }).get('first-harvest')).toEqual({ from: 205, until: 300 })
  })

  test('is never expected the wrong way round, nor before what it follows', () => {
    fc.assert(
      fc.property(fc.record({ sown: fc.integer({ min: 1, max: 200 }), planted: fc.integer({ min: 201, max: 300 }) }), (seen) => {
        const of = calendar(seen)
        for (const { expected } of of.values()) if (expected) expect(expected.from).toBeLessThanOrEqual(expected.until)
        expect(of.get('first-flower')!.expected!.from).toBeGreaterThanOrEqual(seen.planted)
      }),
    )
  })
})
