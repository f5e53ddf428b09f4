import type { WatchHours } from '@bocado/contract'
import { createElement, type ReactNode } from 'react'
import { describe, expect, test } from 'vitest'
import { useFormat, type Format } from '../design/useFormat.js'
import { useText, type Say } from '../messages/useText.js'
import { markupOf } from '../testing/drawn.js'
import { boardWords, hourWords, leading } from './hourWords.js'

/** The words and numbers as a component of the page gets them. */
function speak(): { t: Say; f: Format } {
  let got: { t: Say; f: Format } | undefined
  function Listener(): ReactNode {
    got = { t: useText(), f: useFormat() }
    return null
  }
  markupOf(createElement(Listener), 'metric')
  if (!got) throw new Error('nothing was rendered')
  return got
}
const { t, f } = speak()

/** Two days over twelve members; in the hours named so many can use it, in the rest wind blocks all. */
const board = (usable: Readonly<Record<number, number>>, change: Partial<WatchHours> = {}): WatchHours => ({
  from: '2026-06-12',
  members: 12,
  over: 0,
  hours: Array.from({ length: 48 }, (_, h) => {
    const count = usable[h] ?? 0
    return { usable: count, unknown: 0, blocked: count === 12 ? {} : { wind: 12 - count } }
  }),
  days: [12, 0],
  limits: [{ reason: 'wind', from: 'label' }],
  costs: [{ reason: 'wind', hours: 40 }],
  rules: [],
  flowers: [],
  downwind: [],
  knowsDirection: true,
  ...change,
})

describe('the hours ahead', () => {
  test('are told by the next that half of the members leave, and by what takes most of the others', () => {
    expect(boardWords(board({ 23: 10, 24: 7, 30: 5 }), t, f)).toBe(
      'Next: Fri 12 Jun 23:00 to 01:00 (7 of 12). Hours go to wind 40 (its label).',
    )
  })

  test('where none is left say so, and the way out', () => {
    const none = boardWords(board({}), t, f)
    expect(none).toMatch(/^On no day in view/)
    expect(none).toContain('wind 40 (its label)')
    expect(none).toContain('wait for a calmer day')
    const bees = board(
      {},
      { costs: [{ reason: 'bees', hours: 150 }], limits: [{ reason: 'bees', from: 'usual' }], flowers: ['White clover'] },
    )
    expect(boardWords(bees, t, f)).toContain('In flower there: White clover.')
    expect(boardWords(bees, t, f)).toContain('mow what may be mown the evening before')
    // Nothing can be done about the dark.
    const dark = board({}, { costs: [{ reason: 'dark', hours: 60 }], limits: [] })
    expect(boardWords(dark, t, f)).toMatch(/dark 60 \(usual limit\)\.$/)
  })

  test('say from where the wind must not blow, and that a forecast without a direction does not tell', () => {
    const downwind = [
      { name: 'Mill Brook', kind: 'water' as const, metres: 40, from: { from: 200, to: 340 } },
      { name: '', kind: 'hives' as const, metres: 80, from: { from: 0, to: 360 } },
      { name: '', kind: 'hives' as const, metres: 0, from: null },
    ]
    expect(boardWords(board({ 23: 10, 24: 7 }, { downwind }), t, f)).toContain(
      'Closed while the wind blows from SSW to NNW: Mill Brook, 40 m; from any side: hives, 80 m; 1 more on the job sheet.',
    )
    expect(boardWords(board({ 23: 10 }, { downwind: downwind.slice(2) }), t, f)).toContain('within it: hives, whatever the wind.')
    expect(boardWords(board({ 23: 10 }, { downwind: downwind.slice(0, 1), knowsDirection: false }), t, f)).toContain(
      'The forecast gives no direction of the wind: leave it while it blows from SSW to NNW',
    )
  })

  test('are not known without a forecast', () => {
    expect(boardWords(board({}, { members: 0, hours: [] }), t, f)).toMatch(/^No forecast/)
  })
})

describe('an hour', () => {
  test('says in how many it can be used, what speaks against it in the others, and what is not known', () => {
    const mixed = board({})
    mixed.hours[21] = { usable: 6, unknown: 1, blocked: { rain: 2, wind: 4 } }
    expect(hourWords(mixed, 21, t, f)).toBe(
      'Fri 12 Jun, 21:00 to 22:00: usable in 6 of 12. Against it: wind in 4, rain in 2. Not known in 1.',
    )
    expect(hourWords(mixed, 47, t, f)).toMatch(/^Sat 13 Jun, 23:00 to 00:00/)
  })

  test('that is over says no more', () => {
    expect(hourWords(board({}, { over: 8 }), 7, t, f)).toBe('Fri 12 Jun, 07:00 to 08:00: over.')
  })

  test('is led by what blocks it in most of the members', () => {
    expect(leading({ usable: 0, unknown: 0, blocked: { rain: 3, bees: 9 } })).toBe('bees')
    expect(leading({ usable: 12, unknown: 0, blocked: {} })).toBeNull()
  })
})
