import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { alertsOf, hoursUntilDigest, hoursUntilLoud, isQuiet, type AlertFacts, type WatchFacts } from './index.js'

const TODAY = 20_616
const NOW = TODAY * 24 * 3600 * 1000 + 14 * 3600 * 1000
const nothing: AlertFacts = {
  today: TODAY,
  now: NOW,
  watches: [],
  done: [],
  planned: [],
  blooms: [],
  stations: [],
  nights: [],
  supplies: [],
}
const watch = (change: Partial<WatchFacts>): WatchFacts => ({
  id: 'w',
  name: 'Codling moth',
  place: 'Old Apples',
  grade: 'dates',
  urgency: 'coming',
  window: { generation: 'first', opens: TODAY + 2.4, best: TODAY + 9, closes: TODAY + 15 },
  infection: null,
  count: null,
  ...change,
})
const keys = (facts: Partial<AlertFacts>) => alertsOf({ ...nothing, ...facts }).map(({ key }) => key)
const ofWatch = (change: Partial<WatchFacts>) => keys({ watches: [watch(change)] })

describe('what is told', () => {
  test('a window two days before it opens, at its best, and as it closes', () => {
    const window = (opens: number, best: number, closes: number) => ({
      generation: 'first',
      opens: TODAY + opens,
      best: TODAY + best,
      closes: TODAY + closes,
    })
    expect(ofWatch({ window: window(3.1, 9, 15) })).toEqual([])
    expect(ofWatch({ window: window(2.9, 9, 15) })).toEqual(['opens w first'])
    expect(ofWatch({ urgency: 'open', window: window(-4, 1.2, 6) })).toEqual(['peak w first'])
    expect(ofWatch({ urgency: 'open', window: window(-0.5, 8, 12) })).toEqual(['opens w first'])
    expect(ofWatch({ urgency: 'closing', window: window(-9, -3, 2) })).toEqual(['closes w first'])
    expect(ofWatch({ urgency: 'past', window: window(-20, -13, -5) })).toEqual([])
    expect(ofWatch({ window: null })).toEqual([])
  })

  test('an infection that asks for something; the one that can only be cured is urgent', () => {
    const infection = (state: 'cure' | 'protect' | 'quiet') =>
      alertsOf({ ...nothing, watches: [watch({ infection: { state, day: TODAY } })] })
    expect(infection('quiet')).toEqual([])
    expect(infection('protect')).toMatchObject([{ kind: 'infection', urgent: false }])
    expect(infection('cure')).toMatchObject([{ kind: 'infection', urgent: true }])
  })

  test('a count that is due, once for each count that went before', () => {
    const count = (day: number, because: 'window' | 'months' | 'look-again') => ({ day, because, since: '2026-06-05' })
    expect(ofWatch({ window: null, count: count(TODAY, 'window') })).toEqual(['count w 2026-06-05'])
    expect(ofWatch({ window: null, count: count(TODAY + 1, 'window') })).toEqual([])
  })

  test('deeds, blooms, stations and nights, each within its time', () => {
    const hour = 3600 * 1000
    const done = (hours: number) => keys({ done: [{ id: 'd', name: 'Granule D', place: 'Old Apples', entryUntil: NOW - hours * hour }] })
    expect([done(-1), done(1), done(25)]).toEqual([[], ['entry d'], []])
    const bloom = (late: number) => keys({ blooms: [{ id: 'elder full', name: 'Elder', late: TODAY - late }] })
    expect([bloom(3), bloom(4), bloom(17), bloom(18)]).toEqual([[], ['bloom elder full'], ['bloom elder full'], []])
    const order = (by: number | null, until: number | null) =>
      keys({ supplies: [{ id: 't', name: 'Nematodes', place: 'Bay 2', orderBy: by, usableUntil: until }] })
    expect([order(TODAY + 4, null), order(TODAY + 3, null), order(TODAY - 1, null), order(TODAY - 2, null)]).toEqual([
      [],
      [`order t ${TODAY + 3}`],
      [`order t ${TODAY - 1}`],
      [],
    ])
    expect([order(null, TODAY + 2), order(null, TODAY + 1), order(null, TODAY - 1)]).toEqual([[], [`keeps t ${TODAY + 1}`], []])
    const night = (share: number, flowers: string) =>
      keys({ nights: [{ stationId: 's', station: 'Bench', day: TODAY + 1, share, flowers }] })
    expect([night(0.2, 'apple'), night(0.3, ''), night(0.3, 'apple')]).toEqual([[], [], [`frost s ${TODAY + 1}`]])
    expect(keys({ stations: [{ id: 's', name: 'Bench', silentSince: null }] })).toEqual([])
    expect(keys({ stations: [{ id: 's', name: 'Bench', silentSince: '2026-06-12T03:00:00Z' }] })).toEqual(['silent s 2026-06-12T03:00:00Z'])
    expect(keys({ planned: [{ id: 'd', name: 'Granule D', place: 'Old Apples', run: null }] })).toEqual([`hours d ${TODAY}`])
  })

  test('what rests on a placeholder never alerts', () => {
    fc.assert(
      fc.property(
        fc.constantFrom<WatchFacts['grade']>('months', 'none', 'calendar'),
        fc.constantFrom<WatchFacts['urgency']>('open', 'closing', 'coming'),
        fc.constantFrom('cure' as const, 'protect' as const, null),
        fc.integer({ min: -10, max: 10 }),
        (grade, urgency, state, by) => {
          const window = { generation: 'first', opens: TODAY + by, best: TODAY + by, closes: TODAY + by }
          const infection = state && { state, day: TODAY + by }
          expect(ofWatch({ grade, urgency, infection, window, count: { day: TODAY, because: 'months', since: '' } })).toEqual([])
        },
      ),
    )
    expect(ofWatch({ grade: 'months', count: { day: TODAY, because: 'look-again', since: '' } })).toEqual(['count w '])
  })
})

describe('quiet hours', () => {
  test('end when they say, and never keep anything for a day', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 23 }),
        fc.integer({ min: 0, max: 23 }),
        fc.integer({ min: 0, max: 23 }),
        (hour, from, until) => {
          const wait = hoursUntilLoud(hour, { from, until })
          expect(wait).toBeLessThan(24)
          expect(isQuiet((hour + wait) % 24, { from, until })).toBe(false)
          if (!isQuiet(hour, { from, until })) expect(wait).toBe(0)
        },
      ),
    )
    expect(isQuiet(3, null)).toBe(false)
    expect(hoursUntilDigest(6, 6)).toBe(24)
  })
})
