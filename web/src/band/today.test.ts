import type { BloomForecast, Living, WatchForecast } from '@bocado/contract'
import { describe, expect, test } from 'vitest'
import { bloomKey, notShown, opensSoon, restsOn, todayLines, type TodayLine } from './today.js'
import type { Errand } from './walk.js'

const TODAY = '2026-06-12'
const SEASON = '2026-01-01'
/** The day of the season that is today. */
const AT = 162

const row = (change: object = {}, id = 'w'): WatchForecast =>
  ({
    watch: { id, organismId: 'codling-moth', blockId: 'old-apples', season: SEASON },
    organismName: 'Codling moth',
    grade: 'dates',
    windows: [
      { state: 'open', opens: { p10: 150, p50: 152 }, closes: { p10: AT + 3, p50: AT + 8 }, bestDay: { p50: 160 }, generation: 'first' },
    ],
    infection: null,
    bloom: null,
    heat: { todayIndex: AT },
    breedsOn: false,
    usual: [],
    rounds: [],
    treatments: [],
    decision: null,
    ...change,
  }) as unknown as WatchForecast
const round = (crossed: boolean, countedOn = '2026-06-10') => ({ checkAreaId: null, crossed, countedOn })
const deed = (plannedOn: string, done: object | null = null) => ({
  id: `d${plannedOn}`,
  status: done ? 'done' : 'planned',
  plannedOn,
  done,
})
const errand = (kind: Errand['kind'], due: string, change: Partial<Errand> = {}): Errand => ({
  id: `${kind} ${due} ${change.row?.watch.id ?? ''}`,
  kind,
  blockId: 'old-apples',
  due,
  minutes: null,
  ...change,
})
const bloom = (plant: string, p10: number, p50: number, p90: number): BloomForecast =>
  ({ plant, name: plant, event: 'first-open', eventName: 'first flower open', date: { p10, p50, p90 } }) as unknown as BloomForecast
const lines = (p: Partial<Parameters<typeof todayLines>[0]>): TodayLine[] =>
  todayLines({ rows: [], errands: [], blooms: [], seen: new Set(), season: SEASON, today: TODAY, ...p })
const said = (all: readonly TodayLine[]): string[] => all.map(({ kind, due }) => `${kind} ${due}`)

describe('what was done is judged', () => {
  const did = (day: string) => ({ ...deed(day, { day, does: { methods: ['virus'] } }), deviation: null })
  const judged = (treatments: object[], change: object = {}) =>
    said(lines({ rows: [row({ treatments, windows: [], ...change })], judgeAfter: (ids) => (ids.includes('virus') ? 7 : 0) }))
  test('on the day from which it shows, until somebody has counted from then on', () => {
    expect(judged([did('2026-06-05')])).toEqual(['judge 2026-06-12'])
    // A count before that day tells nothing of it yet.
    expect(judged([did('2026-06-05')], { rounds: [round(false, '2026-06-11')] })).toEqual(['judge 2026-06-12'])
    expect(judged([did('2026-06-05')], { rounds: [round(false, '2026-06-12')] })).toEqual([])
  })
  test('not what is long past, not by the book, or of a kind of which nobody knows when it shows', () => {
    expect(judged([did('2026-05-01')])).toEqual([])
    expect(judged([{ ...did('2026-06-05'), deviation: { because: 'no-stage', reason: '' } }])).toEqual([])
    expect(judged([{ ...did('2026-06-05'), done: { day: '2026-06-05', does: { methods: ['other'] } } }])).toEqual([])
    expect(judged([did('2026-06-05')], { infection: { state: 'none' } })).toEqual([])
  })
})

describe('the clock on which a line rests is told', () => {
  test.each([
    ['dates', {}],
    ['bloom', { bloom: { days: 2, blooms: 1 } }],
    ['infection', { infection: { state: 'protect' } }],
    ['counts', { breedsOn: true, grade: 'months' }],
    ['months', { grade: 'months' }],
    ['months', { grade: 'calendar' }],
  ])('%s', (clock, change) => expect(restsOn(row(change))).toBe(clock))

  test('traps, flags and what came in have clocks of their own', () => {
    const all = lines({ errands: [errand('trap', TODAY), errand('flags', TODAY), errand('arrival', TODAY)] })
    expect(all.map(({ restsOn: clock }) => clock).toSorted()).toEqual(['arrivals', 'flags', 'traps'])
  })
})

describe('a deed', () => {
  test('stands from a week before its day until it is done', () => {
    expect(said(lines({ rows: [row({ treatments: [deed('2026-06-19')] })] }))).toEqual(['deed 2026-06-19'])
    expect(said(lines({ rows: [row({ treatments: [deed('2026-06-20')] })] }))).toEqual([])
    expect(said(lines({ rows: [row({ treatments: [deed('2026-06-01')] })] }))).toEqual(['deed 2026-06-01'])
    expect(said(lines({ rows: [row({ treatments: [deed('2026-06-01', { day: '2026-06-01' })] })] }))).toEqual([])
  })
})

describe('an order of something living', () => {
  const supply = (state: Living['state'], change: Partial<Living> = {}): Living =>
    ({ treatmentId: 'd2026-06-18', state, orderBy: '2026-06-13', usableUntil: null, supply: null, ...change }) as Living
  const rows = [row({ treatments: [deed('2026-06-18')] })]
  const of = (living: Living) => said(lines({ rows, living: [living] })).filter((one) => one.startsWith('supply'))

  test('stands by its last day, when it should be there, and until somebody looked at it', () => {
    expect(of(supply('order'))).toEqual(['supply 2026-06-13'])
    expect(of(supply('late', { orderBy: '2026-06-10' }))).toEqual(['supply 2026-06-10'])
    expect(of(supply('ordered'))).toEqual([])
    expect(of(supply('due'))).toEqual(['supply 2026-06-12'])
    const there = { usableUntil: '2026-06-19', supply: { alive: null } as Living['supply'] }
    expect(of(supply('there', there))).toEqual(['supply 2026-06-19'])
    expect(of(supply('there', { ...there, supply: { alive: 0.9 } as Living['supply'] }))).toEqual([])
    expect(of(supply('dead'))).toEqual(['supply 2026-06-12'])
    expect(of(supply('unknown', { orderBy: null }))).toEqual([])
  })
})

describe('a decision', () => {
  test('is asked for over the threshold while the window is open, by the day on which it may close', () => {
    expect(said(lines({ rows: [row({ rounds: [round(true)] })] }))).toEqual(['decide 2026-06-15'])
    expect(said(lines({ rows: [row({ rounds: [round(false)] })] }))).toEqual([])
    expect(said(lines({ rows: [row({ rounds: [] })] }))).toEqual([])
  })

  test('is not asked for again once something is planned, was done since the count, or was decided', () => {
    const rounds = [round(true)]
    expect(said(lines({ rows: [row({ rounds, treatments: [deed('2026-06-25')] })] }))).toEqual([])
    expect(said(lines({ rows: [row({ rounds, treatments: [deed('2026-06-11', { day: '2026-06-11' })] })] }))).toEqual([])
    // What was done before the count did not do enough.
    expect(said(lines({ rows: [row({ rounds, treatments: [deed('2026-06-05', { day: '2026-06-05' })] })] }))).toEqual(['decide 2026-06-15'])
    expect(said(lines({ rows: [row({ rounds, decision: { lookAgainOn: '2026-06-16' } })] }))).toEqual([])
    expect(said(lines({ rows: [row({ rounds, decision: { lookAgainOn: '2026-06-11' } })] }))).toEqual(['decide 2026-06-15'])
  })

  test('of a disease is asked for today where it presses', () => {
    expect(said(lines({ rows: [row({ infection: { state: 'protect' } })] }))).toEqual([`decide ${TODAY}`])
    expect(said(lines({ rows: [row({ infection: { state: 'quiet' } })] }))).toEqual([])
  })
})

describe('looks', () => {
  test('that only months ask for are one a block, and name each', () => {
    const [parsnip, thistle] = [row({ grade: 'months' }, 'a'), row({ grade: 'months' }, 'b')]
    const all = lines({
      rows: [parsnip, thistle],
      errands: [
        errand('count', '2026-06-14', { row: parsnip }),
        errand('count', TODAY, { row: thistle }),
        errand('count', TODAY, { row: row() }),
      ],
    })
    expect(said(all)).toEqual([`count ${TODAY}`, `months ${TODAY}`])
    expect(all[1]!.rows!.map(({ watch }) => watch.id)).toEqual(['a', 'b'])
  })

  test('at blooms are one line, from the day before the early date until ten days after the late one, unless they were seen', () => {
    const blooms = [
      bloom('catalpa', AT + 1, AT + 4, AT + 7),
      bloom('lilac', AT - 40, AT - 30, AT - 20),
      bloom('linden', AT + 5, AT + 8, AT + 12),
    ]
    expect(lines({ blooms }).map(({ blooms: due }) => due!.map(({ plant }) => plant))).toEqual([['catalpa']])
    expect(lines({ blooms, seen: new Set([bloomKey(blooms[0]!)]) })).toEqual([])
    expect(lines({ blooms: [bloom('locust', AT - 14, AT - 12, AT - 10)] })).toHaveLength(1)
    expect(lines({ blooms: [bloom('locust', AT - 15, AT - 13, AT - 11)] })).toEqual([])
  })
})

test('what presses stands first: deeds before decisions before counts; a deed of tomorrow has to be made ready today', () => {
  const all = lines({
    rows: [row({ treatments: [deed('2026-06-13')] }), row({ infection: { state: 'cure' } }, 'x')],
    errands: [errand('flags', '2026-06-09'), errand('count', TODAY, { row: row() }), errand('trap', '2026-06-13')],
  })
  expect(said(all)).toEqual(['deed 2026-06-13', `decide ${TODAY}`, `count ${TODAY}`, 'flags 2026-06-09', 'trap 2026-06-13'])
})

test('what opens within two weeks is told, and how many watches are left out', () => {
  const coming = (p50: number, id: string) =>
    row({ windows: [{ state: 'coming', opens: { p10: p50 - 2, p50 }, closes: {}, bestDay: {} }] }, id)
  const rows = [coming(AT + 20, 'far'), coming(AT + 9, 'later'), coming(AT + 3, 'first'), row({ treatments: [deed(TODAY)] }, 'busy')]
  const soon = opensSoon(rows, TODAY, 14)
  expect(soon.map(({ watch }) => watch.id)).toEqual(['first', 'later'])
  expect(notShown(rows, lines({ rows }), soon)).toBe(1)
})
