import type { BloomForecast, Block, Method, Organism, Product, WatchForecast } from '@bocado/contract'
import { planSeason, type PlannableWatch } from '@bocado/core'
import { describe, expect, test } from 'vitest'
import {
  forbidden,
  meansOf,
  plannableOf,
  runsOfMonths,
  seasonUnder,
  sumOf,
  undoneOnce,
  type Proposed,
  type SeasonSources,
} from './season.js'

const SEASON = '2026-01-01'
const method = (id: string, changes: Partial<Method> = {}): Method =>
  ({
    id,
    name: id,
    kind: 'mechanical',
    product: false,
    lasting: false,
    evidence: 'tested',
    hours: { perUnit: 1, unit: 'ha' },
    ...changes,
  }) as Method
const product = (id: string, changes: Partial<Product> = {}): Product =>
  ({
    id,
    name: id,
    methods: ['sulphur'],
    strain: null,
    stages: ['spore', 'nymph'],
    targets: [],
    crops: [],
    places: [],
    ways: ['spray'],
    effect: 0.8,
    residualDays: 7,
    assumed: [],
    bees: 'none-stated',
    reEntryHours: 0,
    preHarvestDays: 0,
    leastIntervalDays: null,
    mostPerSeason: null,
    notWithin: [],
    licensedOnly: false,
    actionGroup: '',
    ...changes,
  }) as Product
const organism = {
  id: 'powdery-mildew',
  stages: [{ id: 'spore' }, { id: 'nymph' }],
  reach: [
    { method: 'sulphur', stages: ['spore'] },
    { method: 'hand-picking', stages: ['nymph'] },
    { method: 'sanitation', stages: ['nymph'] },
    { method: 'decoys', stages: ['nymph'] },
  ],
  sampling: { serves: 'decision', threshold: { value: 5, confidence: 'approximate' } },
} as unknown as Organism
const row = (changes: object = {}): WatchForecast =>
  ({
    watch: { id: 'w', organismId: 'powdery-mildew', blockId: 'b', season: SEASON, threshold: null },
    organismName: 'Powdery mildew',
    kind: 'disease',
    grade: 'months',
    infection: null,
    breedsOn: false,
    windows: [],
    usual: [{ generation: 'first', months: [7], bloom: 'linden in full bloom' }],
    rounds: [],
    treatments: [],
    generations: [],
    ...changes,
  }) as unknown as WatchForecast
const sources = (changes: Partial<SeasonSources> = {}): SeasonSources => ({
  rows: [row()],
  blooms: [],
  products: [product('Terrace sulphur')],
  methods: [
    method('sulphur', { kind: 'chemical', product: true }),
    method('hand-picking', { hours: { perUnit: 2, unit: '100 m row' } as Method['hours'] }),
    method('sanitation', { kind: 'cultural' }),
    method('decoys', { evidence: 'anecdotal' }),
  ],
  organisms: [organism],
  blocks: [{ id: 'b', name: 'Terrace Vines', kind: 'vineyard', grows: 'grape', areaHa: 2 } as Block],
  rules: [],
  flowers: [],
  harvests: [],
  before: [],
  tasks: [],
  season: { start: SEASON, days: 365, todayIndex: 162 },
  usesNone: false,
  ranks: {},
  hoursPerWeek: null,
  ...changes,
})

describe('a watch as a season is planned for it', () => {
  test('has the ways that were tried out and can be done now, with work where it goes over the ground', () => {
    const { ways } = plannableOf(row(), sources())
    expect(ways.map(({ key, minutes, hasLabel, order }) => [key, minutes, hasLabel, order])).toEqual([
      ['product Terrace sulphur', 120, true, 4],
      ['method hand-picking', null, false, 2],
    ])
    expect(plannableOf(row(), sources({ usesNone: true })).ways.map(({ key }) => key)).toEqual(['method hand-picking'])
  })

  test('is worth more where its count is over and nothing was done since, and by what its users say', () => {
    const crossed = { checkAreaId: null, crossed: true, countedOn: '2026-06-10' }
    const of = (changes: object, ranks = {}) => plannableOf(row(changes), sources({ ranks }))
    expect(of({}).weight).toBe(1)
    expect(of({ rounds: [crossed] })).toMatchObject({ isOver: true, weight: 2 })
    expect(of({ rounds: [crossed], treatments: [{ done: { day: '2026-06-11' } }] }).isOver).toBe(false)
    expect(of({}, { w: 2 }).weight).toBe(3)
    expect(of({}, { w: 0 }).weight).toBeLessThan(1)
  })

  test('goes by infections, months, counts or dates, and a window that is seen to asks for nothing', () => {
    const infection = {
      state: 'protect',
      days: [
        { day: 170, probability: 0.9 },
        { day: 171, probability: 0.1 },
      ],
    }
    expect(plannableOf(row({ grade: 'dates', infection }), sources())).toMatchObject({ clock: 'infection', infections: [163, 170] })
    expect(plannableOf(row({ breedsOn: true }), sources()).clock).toBe('counts')
    expect(plannableOf(row(), sources()).months).toEqual([{ generation: 'first', from: 181, until: 212 }])
    const window = { generation: 'first', state: 'coming', opens: { p50: 170 }, closes: { p50: 180 } }
    const bloom = { name: 'Linden', eventName: 'full bloom', date: { p50: 172 } } as BloomForecast
    const of = (changes: object) => plannableOf(row({ windows: [window], ...changes }), sources({ blooms: [bloom] })).windows
    expect(of({})).toEqual([{ generation: 'first', opens: 170, closes: 180, announced: 172 }])
    expect(of({ usual: [] })[0]!.announced).toBeNull()
    expect(of({ treatments: [{ done: null, plannedOn: '2026-06-22' }] })).toEqual([])
    expect(of({ treatments: [{ done: null, plannedOn: '2026-08-22' }] })).toHaveLength(1)
  })
})

test('months are runs of days of the season, also over its turn', () => {
  expect(runsOfMonths([1, 2, 12], { start: SEASON, days: 365 })).toEqual([
    { from: 0, until: 59 },
    { from: 334, until: 365 },
  ])
})

test('a closed day, a label that wants days between and a harvest are forbidden; what was there before is not held against it', () => {
  const s = sources({
    products: [product('Terrace sulphur', { preHarvestDays: 5, notWithin: [{ method: 'horticultural-oil', days: 14 }] })],
    rules: [{ name: 'market', kind: 'closed-days', act: 'spraying', whose: 'own', fromDay: '06-16', untilDay: '06-16' }] as never,
    harvests: [{ blockId: 'b', crop: 'grape', ahead: { begunOn: null, endedOn: null, expected: { from: 20_650, until: 20_660 } } }],
  })
  const [way] = plannableOf(row(), s).ways
  const on = (day: number): Proposed => ({
    watch: 'w',
    blockId: 'b',
    generation: 'first',
    because: 'months',
    conditional: true,
    day,
    way: way!,
    reach: 0,
  })
  const is = forbidden(s)
  expect([is(on(165), []), is(on(166), []), is(on(167), [])]).toEqual([false, true, false])
  // The grapes may be picked from day 196 on.
  expect([is(on(188), []), is(on(193), [])]).toEqual([false, true])
  const oil = { id: 'oil', blockId: 'b', day: 20_454 + 168, done: false, minutes: null, personId: null, machine: '', enters: true, picks: false, means: null, use: null, noticeOn: null, consentOn: null } // prettier-ignore
  const material = { productId: 'o', name: 'Oil', methods: ['horticultural-oil'], reEntryHours: 0, preHarvestDays: 0, bees: 'none-stated', leastIntervalDays: null, notWithin: [], licensedOnly: false } // prettier-ignore
  expect(forbidden({ ...s, tasks: [{ ...oil, material }] as never })(on(165), [])).toBe(true)
})

test('schools are summed beside each other', () => {
  const s = sources()
  const [mix, calendar] = (['mix', 'calendar'] as const).map((school) => sumOf(seasonUnder(s, school)))
  expect(mix).toMatchObject({ treatments: 1, waiting: 1, reached: null, chemicals: 0, untimed: 1 })
  expect(calendar).toMatchObject({ treatments: 3, waiting: 0, counts: 0, chemicals: 3, hours: 6 })
  expect(mix!.counts).toBeGreaterThan(3)
})

test('what is left undone of one watch for one reason is said once', () => {
  const undone = (because: 'ruled-out' | 'no-hours', reach: number) => ({ watch: 'w', generation: 'first', because, reach })
  const all = { undone: [undone('ruled-out', 0.2), undone('no-hours', 0), undone('ruled-out', 0.5)] }
  expect(undoneOnce(all).map(({ because, reach, times }) => [because, reach, times])).toEqual([
    ['ruled-out', 0.5, 2],
    ['no-hours', 0, 1],
  ])
})

test('a way of a plan is found again by its key', () => {
  expect(meansOf('product gone', sources())).toEqual({ product: null, methodId: null })
  expect(meansOf('product p', sources({ products: [product('p')] })).product?.name).toBe('p')
  expect(meansOf('method hand-picking', sources())).toEqual({ product: null, methodId: 'hand-picking' })
})

test('a first draft for forty watches takes less than two seconds', () => {
  const draws = (opens: number) =>
    Array.from({ length: 13 }, (_, m) =>
      Array.from({ length: 50 }, (__, i) => ({ enter: opens + m * 0.3 + i * 0.2, exit: opens + 6 + m * 0.3 + i * 0.2 })),
    )
  const watches = Array.from({ length: 40 }, (_, w): PlannableWatch => {
    const opens = [100 + (w % 20) * 3, 170 + (w % 15) * 3]
    const reach = opens.map((day, g) => ({ generation: `g${g}`, cohorts: draws(day) }))
    const ways = Array.from({ length: 5 }, (__, k) => ({
      key: `k${k}`,
      order: k,
      effect: 0.5 + 0.1 * k,
      residualDays: k,
      leastIntervalDays: 7,
      mostPerSeason: 4,
      minutes: 60,
      hasLabel: true,
      chemical: k > 2,
      hazardToBees: false,
      reach,
    }))
    return {
      id: `w${w}`,
      blockId: `b${w % 9}`,
      weight: 1 + (w % 3),
      clock: 'dates',
      isCounted: true,
      isOver: false,
      windows: opens.map((day, g) => ({ generation: `g${g}`, opens: day, closes: day + 14, announced: day })),
      months: [],
      infections: [],
      ways,
    }
  })
  const began = performance.now()
  const of = { watches, school: 'mix', today: 80, length: 365, isForbidden: () => false, minutesPerWeek: 900, countMinutes: 20 } as const
  const { treatments } = planSeason(of)
  expect(performance.now() - began).toBeLessThan(2000)
  expect(treatments.length).toBeGreaterThan(40)
})
