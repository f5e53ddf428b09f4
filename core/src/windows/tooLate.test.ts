import { describe, expect, test } from 'vitest'
import { firstFrost, lateHelpsBy, ownWeight, ripens } from './tooLate.js'

describe('once nothing reaches it any more', () => {
  test('what still helps is what its entry names, in its order; a spray is none of it', () => {
    expect(lateHelpsBy(['spinosyn', 'crop-rotation', 'prune-out', 'early-harvest', 'leaf-removal'])).toEqual([
      { help: 'harvest-early', methods: ['early-harvest'] },
      { help: 'cut-out', methods: ['prune-out', 'leaf-removal'] },
      { help: 'break-its-year', methods: ['crop-rotation'] },
    ])
    expect(lateHelpsBy(['spinosyn', 'granulosis-virus'])).toEqual([])
  })

  test('a weight of one’s own is told from two records at least, by all that was picked', () => {
    expect(ownWeight([{ kg: 10, pieces: 80 }])).toBeNull()
    expect(
      ownWeight([
        { kg: 10, pieces: 80 },
        { kg: 3, pieces: null },
        { kg: null, pieces: 4 },
      ]),
    ).toBeNull()
    // By weight of all, not the mean of two means.
    expect(
      ownWeight([
        { kg: 10, pieces: 100 },
        { kg: 3, pieces: 10 },
      ]),
    ).toBeCloseTo(13 / 110)
    expect(() =>
      ownWeight([
        { kg: 10, pieces: 0 },
        { kg: 3, pieces: 10 },
      ]),
    ).toThrow(RangeError)
  })

  test('frost is told from five seasons at least; one without frost counts by its last day', () => {
    expect(firstFrost([270, 280, 290, 300])).toBeNull()
    expect(firstFrost([270, 280, 290, 364, 364])).toEqual({ early: 274, usual: 290, seasons: 5 })
    expect(() => firstFrost([270, 280, 290, 300, Infinity])).toThrow(RangeError)
  })

  test('what is sown anew ripens surely, perhaps or not, and never surely where nobody knows the frost', () => {
    const frost = { early: 270, usual: 285 }
    expect(ripens({ from: 240, until: 269 }, frost)).toBe('surely')
    expect(ripens({ from: 240, until: 270 }, frost)).toBe('perhaps')
    expect(ripens({ from: 285, until: 300 }, frost)).toBe('no')
    expect(ripens({ from: 200, until: 210 }, null)).toBe('perhaps')
  })
})
