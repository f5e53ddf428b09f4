import { describe, expect, test } from 'vitest'
import { probabilityAbsent } from './absence.js'
import { detectability } from './detectability.js'
import { detectionsOf } from './lookedAgain.js'

describe('how much one look finds', () => {
  test('is told by what the other one found too, and its lower bound is taken', () => {
    const told = detectability([{ first: 40, second: 40, both: 32 }])!
    expect(told.share).toBeCloseTo(0.8, 9)
    expect(told.lower).toBeLessThan(0.8)
    // More looks that say the same say it more surely.
    expect(detectability(Array.from({ length: 9 }, () => ({ first: 40, second: 40, both: 32 })))!.lower).toBeGreaterThan(told.lower)
  })
  test('is not told by a handful, and not by what cannot be', () => {
    expect(detectability([])).toBeNull()
    expect(detectability([{ first: 4, second: 4, both: 4 }])).toBeNull()
    expect(() => detectability([{ first: 4, second: 9, both: 5 }])).toThrow('both')
  })
})

describe('looks that found nothing', () => {
  const look = (day: number, by: string, covered = 1) => ({ day, by, covered })
  test('of the same eyes within a fortnight count once, by the one that saw most', () => {
    expect(detectionsOf([look(100, 'a', 0.5), look(110, 'a'), look(114, 'a', 0.25), look(101, 'b')], 0.8)).toEqual([0.8, 0.8, 0.2])
  })
  test('make it likelier that nothing is there, look by look', () => {
    const after = (looks: number) =>
      probabilityAbsent({
        prior: 0.2,
        detection: detectionsOf(
          Array.from({ length: looks }, (_, i) => look(100 + 20 * i, 'a')),
          0.8,
        ),
      })
    expect([after(0), after(1), after(2), after(3)].map((p) => p.toFixed(3))).toEqual(['0.200', '0.556', '0.862', '0.969'])
  })
})
