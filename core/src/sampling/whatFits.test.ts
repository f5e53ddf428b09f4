import { describe, expect, test } from 'vitest'
import { whatFits, type Fitting } from './whatFits.js'

const one = (id: string, more: Partial<Fitting> = {}): Fitting => ({
  id,
  minutes: 20,
  rank: 2,
  preventsSeed: false,
  spreads: false,
  due: 100,
  ...more,
})

describe('what fits into the hours there are', () => {
  test('goes by rank, then by seed, then by what gets away, then by what is due longest', () => {
    const all = [
      one('late'),
      one('early', { due: 90 }),
      one('spreads', { spreads: true }),
      one('seed', { preventsSeed: true }),
      one('first', { rank: 1 }),
      one('unranked', { rank: null, preventsSeed: true }),
    ]
    expect(whatFits(all, 1000, 15)!.taken).toEqual(['first', 'seed', 'spreads', 'early', 'late', 'unranked'])
    expect(whatFits(all, 60, 15)).toEqual({ taken: ['first', 'seed', 'spreads'], left: ['early', 'late', 'unranked'], minutes: 60 })
  })

  test('takes what still fits, and other minutes for what nobody measured', () => {
    const all = [one('long', { minutes: 50, rank: 1 }), one('short', { minutes: null, rank: 3 })]
    expect(whatFits(all, 30, 25)).toEqual({ taken: ['short'], left: ['long'], minutes: 25 })
    expect(whatFits(all, 20, 25)).toEqual({ taken: [], left: ['long', 'short'], minutes: 0 })
  })

  test('ranks nothing where nobody ranked anything', () => {
    expect(whatFits([one('a', { rank: null })], 30, 15)).toBeNull()
    expect(whatFits([], 30, 15)).toBeNull()
  })
})
