import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { coverage } from '../treatment/index.js'
import {
  countsOf,
  planSeason,
  reachOn,
  schools,
  wishesOf,
  worthOf,
  type PlannableWatch,
  type PlannableWay,
  type PlanOf,
  type Proposed,
} from './index.js'

/** Everyone can be reached from one day to another, as long as a treatment acts on contact. */
const cohort = (from: number, until: number) => [Array.from({ length: 10 }, (_, i) => ({ enter: from + i * 0.1, exit: until + i * 0.1 }))]
const way = (key: string, more: Partial<PlannableWay> = {}): PlannableWay => ({
  key,
  order: 5,
  effect: 0.8,
  residualDays: 0,
  leastIntervalDays: null,
  mostPerSeason: null,
  minutes: 60,
  hasLabel: true,
  chemical: true,
  hazardToBees: false,
  reach: [{ generation: 'first', cohorts: cohort(100, 110) }],
  ...more,
})
const watch = (id: string, more: Partial<PlannableWatch> = {}): PlannableWatch => ({
  id,
  blockId: 'old-apples',
  weight: 1,
  clock: 'dates',
  isCounted: false,
  isOver: false,
  windows: [{ generation: 'first', opens: 100, closes: 108, announced: null }],
  months: [{ generation: 'first', from: 90, until: 120 }],
  infections: [],
  ways: [way('spray')],
  ...more,
})
const plan = (watches: PlannableWatch[], more: Partial<PlanOf> = {}) =>
  planSeason({ watches, school: 'heat', today: 80, length: 365, isForbidden: () => false, minutesPerWeek: null, countMinutes: 0, ...more })
const days = (watches: PlannableWatch[], more: Partial<PlanOf> = {}) => plan(watches, more).treatments.map(({ day }) => day)

describe('what a school asks for', () => {
  test('heat: the day on which the gentlest way that reaches enough reaches the most', () => {
    const gentle = way('cards', { order: 2, effect: 0.7, chemical: false })
    const weak = way('decoys', { order: 1, effect: 0.3, chemical: false })
    const [one] = plan([watch('moth', { ways: [way('spray'), weak, gentle] })]).treatments
    expect(one).toMatchObject({ way: { key: 'cards' }, because: 'heat', conditional: false })
    expect(one!.reach).toBeCloseTo(0.7, 6)
    expect(one!.day).toBeGreaterThanOrEqual(101)
    expect(one!.day).toBeLessThanOrEqual(109)
  })

  test('a second treatment only where it adds enough and the label allows it', () => {
    // Half of them can be reached early, half late.
    const two = [[...cohort(100, 102)[0]!, ...cohort(110, 112)[0]!]]
    const split = (more: Partial<PlannableWay> = {}) => way('spray', { reach: [{ generation: 'first', cohorts: two }], ...more })
    const of = (one: PlannableWay) =>
      days([watch('moth', { ways: [one], windows: [{ generation: 'first', opens: 99, closes: 112, announced: null }] })])
    expect(of(split())).toHaveLength(2)
    expect(of(split({ mostPerSeason: 1 }))).toHaveLength(1)
    expect(of(split({ leastIntervalDays: 14 }))).toHaveLength(1)
    expect(of(split({ residualDays: 14 }))).toHaveLength(1)
  })

  test('bloom: as soon as it is announced, and nothing where no bloom tells it', () => {
    const told = watch('moth', { windows: [{ generation: 'first', opens: 100, closes: 108, announced: 104 }] })
    expect(days([told], { school: 'bloom' })).toEqual([101])
    expect(plan([watch('moth')], { school: 'bloom' })).toMatchObject({ treatments: [], undone: [{ because: 'no-bloom' }] })
  })

  test('calendar: every so many days of its months, as often as the label allows, whatever is there', () => {
    expect(days([watch('moth')], { school: 'calendar' })).toEqual([90, 104, 118])
    expect(days([watch('moth', { ways: [way('spray', { leastIntervalDays: 10, mostPerSeason: 2 })] })], { school: 'calendar' })).toEqual([
      90, 100,
    ])
    // What is done by hand is done once.
    const hand = way('hand', { hasLabel: false, reach: [] })
    expect(days([watch('bug', { ways: [hand] })], { school: 'calendar' })).toEqual([104])
    expect(countsOf(watch('moth', { isCounted: true }), 'calendar', 80, 365)).toEqual([])
  })

  test('threshold: only what a count found to be too many, and counts until then', () => {
    expect(plan([watch('moth', { isCounted: true })], { school: 'threshold' })).toMatchObject({ treatments: [] })
    expect(plan([watch('moth', { isCounted: true, isOver: true })], { school: 'threshold' }).treatments).toMatchObject([
      { because: 'over' },
    ])
    expect(countsOf(watch('moth', { isCounted: true }), 'threshold', 80, 365)).toEqual([93, 100, 107])
  })

  test('the mix: by heat, waiting for the count where one decides; protection against infections does not wait', () => {
    expect(plan([watch('moth', { isCounted: true })], { school: 'mix' }).treatments).toMatchObject([{ conditional: true }])
    expect(plan([watch('moth', { isCounted: true, isOver: true })], { school: 'mix' }).treatments).toMatchObject([{ conditional: false }])
    const scab = watch('scab', {
      clock: 'infection',
      windows: [],
      infections: [90, 92, 99],
      ways: [way('sulphur', { residualDays: 7, reach: [] })],
    })
    for (const school of ['mix', 'heat', 'threshold'] as const) expect(days([scab], { school })).toEqual([89, 98])
  })

  test('what has no model is planned by its months and its counts, and not left out', () => {
    const months = watch('bug', { clock: 'months', windows: [], ways: [way('hand', { reach: [] })] })
    expect(plan([months], { school: 'mix' }).treatments).toMatchObject([{ because: 'months', conditional: true, day: 104 }])
    const thrips = watch('thrips', { clock: 'counts', isCounted: true, windows: [], ways: [way('spray', { reach: [] })] })
    expect(plan([thrips]).treatments).toEqual([])
    expect(plan([thrips]).counts.length).toBeGreaterThan(30)
    expect(plan([watch('moth', { ways: [] })]).undone).toMatchObject([{ because: 'no-way' }])
  })
})

describe('hours and rules', () => {
  test('what is worth most gets the hours of its week, the rest another week or none, and is said', () => {
    const two = [watch('moth', { weight: 1 }), watch('weed', { weight: 5 })]
    const free = plan(two)
    expect(free.undone).toEqual([])
    const tight = plan(two, { minutesPerWeek: 60 })
    expect(tight.treatments.map((one) => one.watch).sort()).toEqual(['moth', 'weed'])
    expect(new Set(tight.treatments.map(({ day }) => Math.floor(day / 7))).size).toBe(2)
    const taken = new Map(Array.from({ length: 53 }, (_, week) => [week, Math.floor(101 / 7) === week ? 0 : 60]))
    const one = plan(two, { minutesPerWeek: 60, taken })
    expect(one.treatments.map((made) => made.watch)).toEqual(['weed'])
    expect(one.undone).toMatchObject([{ watch: 'moth', because: 'no-hours' }])
    expect(one.undone[0]!.reach).toBeGreaterThan(0.7)
  })

  test('a day that a rule closes is gone round', () => {
    const [best] = days([watch('moth')])
    expect(days([watch('moth')], { isForbidden: ({ day }) => day === best })).not.toContain(best)
    expect(plan([watch('moth')], { isForbidden: () => true }).undone).toMatchObject([{ because: 'ruled-out' }])
  })

  test('it says how far it is', () => {
    const told: number[] = []
    planSeason(
      { watches: [watch('moth')], school: 'heat', today: 80, length: 365, isForbidden: () => false, minutesPerWeek: null, countMinutes: 0 },
      (done) => told.push(done),
    )
    expect(told.at(-1)).toBe(1)
    expect(told).toEqual([...told].sort((a, b) => a - b))
  })
})

/* Random sites: a few watches in two blocks, with a label, rules and hours. */
const site = fc.record({
  watches: fc.array(
    fc.record({
      block: fc.constantFrom('old-apples', 'stone-row'),
      weight: fc.integer({ min: 1, max: 5 }),
      opens: fc.integer({ min: 82, max: 96 }),
      long: fc.integer({ min: 0, max: 4 }),
      material: fc.constantFrom('granule', 'sulphur'),
      minutes: fc.constantFrom(30, 60, 90),
    }),
    { minLength: 1, maxLength: 4 },
  ),
  /** By their labels. */
  labels: fc.record({
    granule: fc.record({ leastIntervalDays: fc.constantFrom(null, 7, 14), mostPerSeason: fc.constantFrom(null, 1, 2) }),
    sulphur: fc.record({ leastIntervalDays: fc.constantFrom(null, 7), mostPerSeason: fc.constantFrom(null, 1) }),
  }),
  closed: fc.uniqueArray(fc.integer({ min: 80, max: 104 }), { maxLength: 12 }),
  apart: fc.boolean(),
  hours: fc.constantFrom(null, 60, 120),
})
type Site = typeof site extends fc.Arbitrary<infer T> ? T : never

function made({ watches, labels, closed, apart, hours }: Site): PlanOf {
  return {
    watches: watches.map(({ block, weight, opens, long, material, minutes }, i) =>
      watch(`w${i}`, {
        blockId: block,
        weight,
        windows: [{ generation: 'first', opens, closes: opens + long, announced: opens - 2 }],
        months: [{ generation: 'first', from: opens, until: opens + 20 }],
        ways: [
          way(material, {
            minutes,
            ...labels[material],
            reach: [{ generation: 'first', cohorts: cohort(opens, opens + long + 1) }],
          }),
        ],
      }),
    ),
    school: 'heat',
    today: 80,
    length: 365,
    // Closed days, and, where it is so, two materials that want a day between them.
    isForbidden: (one, beside) =>
      closed.includes(one.day) || (apart && beside.some((other) => other.way.key !== one.way.key && Math.abs(other.day - one.day) < 1)),
    minutesPerWeek: hours,
    countMinutes: 0,
  }
}

const breaks = (p: PlanOf, treatments: readonly Proposed[]): boolean => {
  const minutes = new Map<number, number>()
  for (const one of treatments) {
    const beside = treatments.filter((other) => other !== one && other.blockId === one.blockId)
    if (p.isForbidden(one, beside)) return true
    if (beside.some((other) => other.watch === one.watch && other.generation === one.generation && other.day === one.day)) return true
    const same = beside.filter((other) => other.way.key === one.way.key && other.day !== one.day)
    if (one.way.mostPerSeason !== null && new Set(same.map(({ day }) => day)).size >= one.way.mostPerSeason) return true
    if (one.way.leastIntervalDays !== null && same.some(({ day }) => Math.abs(day - one.day) < one.way.leastIntervalDays!)) return true
    const week = Math.floor(one.day / 7)
    minutes.set(week, (minutes.get(week) ?? 0) + (one.way.minutes ?? 0))
  }
  return p.minutesPerWeek !== null && [...minutes.values()].some((sum) => sum > p.minutesPerWeek!)
}

test('no plan of any school breaks a hard rule, a label or the hours', () => {
  fc.assert(
    fc.property(site, fc.constantFrom(...schools), (one, school) => {
      const p = { ...made(one), school }
      expect(breaks(p, planSeason(p).treatments)).toBe(false)
    }),
    { numRuns: 300 },
  )
})

test('on small sites it is worth as much as the best of all plans, or nearly', () => {
  fc.assert(
    fc.property(site, (one) => {
      const p = made(one)
      const wishes = p.watches.flatMap((each) => wishesOf(each, 'heat', p.today).wishes)
      fc.pre(wishes.length <= 4)
      let best = 0
      const tried: Proposed[] = []
      const search = (at: number, worth: number): void => {
        if (at === wishes.length) {
          best = Math.max(best, worth)
          return
        }
        const { choices, ...wish } = wishes[at]!
        search(at + 1, worth)
        for (const choice of choices) {
          const next = { ...wish, ...choice }
          if (breaks(p, [...tried, next])) continue
          tried.push(next)
          search(at + 1, worth + worthOf(choice, wish.weight))
          tried.pop()
        }
      }
      search(0, 0)
      const { worth } = planSeason(p)
      expect(worth).toBeLessThanOrEqual(best + 1e-9)
      expect(worth).toBeGreaterThanOrEqual(0.9 * best - 1e-9)
    }),
    { numRuns: 60 },
  )
})

test('what a treatment reaches is what coverage says, for any effect and residual', () => {
  fc.assert(
    fc.property(
      fc.array(fc.record({ enter: fc.integer({ min: 90, max: 120 }), long: fc.integer({ min: 0, max: 12 }) }), {
        minLength: 1,
        maxLength: 20,
      }),
      fc.integer({ min: 85, max: 130 }),
      fc.constantFrom(0, 3, 10),
      (some, day, residualDays) => {
        const one = some.map(({ enter, long }) => ({ enter, exit: enter + long }))
        const of = way('spray', { effect: 0.6, residualDays, reach: [{ generation: 'first', cohorts: [one] }] })
        expect(reachOn(of, 'first', day)).toBeCloseTo(coverage(one, [{ day: day + 0.5, effect: 0.6, residualDays }]), 9)
      },
    ),
  )
})

test('what a treatment reaches is the mean over the draws', () => {
  const of = way('spray', { reach: [{ generation: 'first', cohorts: [...cohort(100, 110), ...cohort(120, 130)] }] })
  expect(reachOn(of, 'first', 105)).toBeCloseTo(0.4, 6)
  expect(reachOn(of, 'second', 105)).toBe(0)
})
