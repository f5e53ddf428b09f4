import type { Flag, Organism, Trap, WatchForecast } from '@bocado/contract'
import { describe, expect, test } from 'vitest'
import { errands, inWalkOrder } from './walk.js'

const TODAY = '2026-06-12'
const organism = { id: 'codling-moth', sampling: { serves: 'decision' } } as Organism
const row = (change: object = {}): WatchForecast =>
  ({
    watch: { id: 'w', organismId: 'codling-moth', blockId: 'old-apples', season: '2026-01-01' },
    grade: 'dates',
    windows: [{ state: 'open', opens: { p10: 150 }, closes: { p50: 170 }, bestDay: { p50: 160 } }],
    infection: null,
    heat: { todayIndex: 162 },
    breedsOn: false,
    usual: [],
    rounds: [],
    decision: null,
    ...change,
  }) as unknown as WatchForecast
const round = (countedOn: string, minutes: number | null = null, verdict = 'stop') => ({ checkAreaId: null, countedOn, minutes, verdict })
const trap = (change: object = {}): Trap =>
  ({ id: 't', blockId: 'old-apples', hungOn: '2026-06-01', takenDownOn: null, hasCounter: false, checks: [], ...change }) as unknown as Trap
const flag = (id: string, dueOn: string | null, placeId = 'creek', minutes: (number | null)[] = []): Flag =>
  ({ id, placeId, dueOn, visits: minutes.map((one) => ({ minutes: one })) }) as unknown as Flag
const all = (p: Partial<Parameters<typeof errands>[0]>, until = TODAY) =>
  errands(
    { rows: [], organisms: [organism], traps: [], flags: [], plots: [], arrivals: [], blockOf: (id) => id, today: TODAY, ...p },
    until,
  )

describe('what is to be looked at', () => {
  test('is a watch whose window is open, a week after its last count; with how long it takes once that is known', () => {
    expect(all({ rows: [row()] })).toMatchObject([{ kind: 'count', due: TODAY, because: 'window', minutes: null, last: null }])
    const rounds = [round('2026-05-20', 20), round('2026-05-27', 40), round('2026-06-08', 30)]
    expect(all({ rows: [row({ rounds })] })).toEqual([])
    expect(all({ rows: [row({ rounds })] }, '2026-06-15')).toMatchObject([{ due: '2026-06-15', minutes: 30, last: '2026-06-08' }])
  })

  test('is never what a decision puts off, nor what is counted too late to decide on', () => {
    const decision = { lookAgainOn: '2026-06-20' }
    expect(all({ rows: [row({ decision })] }, '2026-06-19')).toEqual([])
    expect(all({ rows: [row({ decision })] }, '2026-06-20')).toMatchObject([{ because: 'look-again' }])
    const late = { ...organism, sampling: { serves: 'outcome' } } as Organism
    expect(all({ rows: [row()], organisms: [late] })).toEqual([])
  })

  test('is a trap that hangs and sends nothing itself', () => {
    const checks = [{ day: '2026-06-04' }, { day: '2026-06-08' }]
    expect(all({ traps: [trap({ checks })] })).toMatchObject([{ kind: 'trap', due: '2026-06-11' }])
    expect(all({ traps: [trap({ checks, hasCounter: true }), trap({ checks, takenDownOn: '2026-06-09' })] })).toEqual([])
  })

  test('are the flags of a block that are due, as one errand', () => {
    const flags = [
      flag('a', '2026-06-12', 'creek', [4, null]),
      flag('b', '2026-06-10', 'creek', [6, 8]),
      flag('c', '2026-06-30'),
      flag('d', null),
    ]
    expect(all({ flags })).toMatchObject([
      { kind: 'flags', blockId: 'creek', due: '2026-06-10', minutes: 12, flags: [{ id: 'a' }, { id: 'b' }] },
    ])
  })
})

test('a walk goes from the nearest to the nearest, what is not drawn comes last', () => {
  const at: Record<string, [number, number]> = { near: [0.001, 46], far: [0.004, 46], middle: [0.002, 46] }
  const order = (start: [number, number] | null) => inWalkOrder(['far', 'nowhere', 'middle', 'near'], (id) => at[id] ?? null, start)
  expect(order([0, 46])).toEqual(['near', 'middle', 'far', 'nowhere'])
  expect(order(null)).toEqual(['far', 'middle', 'near', 'nowhere'])
})
