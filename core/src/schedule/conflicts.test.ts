import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { closedThrough, conflictsOf, type ScheduleAround, type ScheduledMaterial, type ScheduledTask } from './conflicts.js'

const DAY = 20_616
const virus: ScheduledMaterial = {
  productId: 'virus',
  name: 'Granulosis virus D',
  methods: ['granulosis-virus'],
  reEntryHours: 12,
  preHarvestDays: 0,
  bees: 'none-stated',
  leastIntervalDays: 7,
  notWithin: [],
  licensedOnly: false,
}
const task = (id: string, change: Partial<ScheduledTask> = {}): ScheduledTask => ({
  id,
  blockId: 'old-apples',
  day: DAY,
  done: false,
  minutes: null,
  personId: null,
  machine: '',
  enters: true,
  picks: false,
  means: null,
  material: null,
  use: null,
  noticeOn: null,
  consentOn: null,
  ...change,
})
const spray = (id: string, change: Partial<ScheduledTask> = {}, label: Partial<ScheduledMaterial> = {}): ScheduledTask =>
  task(id, { means: { ways: ['spray'], methods: ['granulosis-virus'], chemical: false }, material: { ...virus, ...label }, ...change })
const nothing: ScheduleAround = { rules: [], inFlower: () => [], harvests: [], isLicensed: () => true, before: [] }
const kinds = (tasks: ScheduledTask[], around: Partial<ScheduleAround> = {}) =>
  conflictsOf(tasks, { ...nothing, ...around }).map(
    ({ kind, task: id, with: other }) => `${kind}: ${id}${other === null ? '' : ` with ${other}`}`,
  )

const rule = {
  name: 'Terrace wedding',
  act: 'spraying',
  whose: 'own',
  fromDay: null,
  untilDay: null,
  fromHour: null,
  untilHour: null,
  amount: null,
} as const

describe('what stands in the way of a task', () => {
  test('a block is closed until its label lets people in again, and nobody is kept out before work begins', () => {
    expect([0, 4, 6, 12, 24, 30, 31, 96].map((hours) => closedThrough(DAY, hours) - DAY)).toEqual([0, 0, 0, 1, 1, 1, 2, 4])
    const count = (day: number) => task('count', { day })
    expect(kinds([spray('virus'), count(DAY + 1)])).toEqual(['re-entry: count with virus'])
    expect(kinds([spray('virus'), count(DAY + 2)])).toEqual([])
    expect(kinds([spray('virus'), count(DAY)])).toEqual(['same-day: count with virus'])
    // What was done already can no longer wait for those who count.
    expect(kinds([spray('virus', { done: true }), count(DAY)])).toEqual(['re-entry: count with virus'])
    expect(kinds([spray('virus'), count(DAY - 1)])).toEqual([])
    expect(kinds([spray('virus', { done: true }), count(DAY + 1)])).toEqual(['re-entry: count with virus'])
    expect(kinds([spray('virus'), { ...count(DAY + 1), blockId: 'young-apples' }])).toEqual([])
    expect(kinds([spray('virus'), { ...count(DAY + 1), enters: false }])).toEqual([])
  })

  test('a closed day and a material that may not be used in bloom are refused; notice and consent are told', () => {
    const closed = { ...rule, kind: 'closed-days' as const, fromDay: '06-11', untilDay: '06-13' }
    const all = conflictsOf([spray('virus'), task('count')], { ...nothing, rules: [closed] })
    expect(all.filter(({ kind }) => kind === 'closed')).toMatchObject([
      { kind: 'closed', task: 'virus', name: 'Terrace wedding', refused: true },
    ])
    const clover = (_: string, day: number) => (day === DAY ? ['white clover'] : [])
    const hazard = (bees: ScheduledMaterial['bees']) => conflictsOf([spray('s', {}, { bees })], { ...nothing, inFlower: clover })
    expect(hazard('none-stated')).toEqual([])
    expect(hazard('hazardous-in-bloom')).toMatchObject([{ kind: 'bloom', name: 'white clover', refused: false }])
    expect(hazard('forbidden-in-bloom')).toMatchObject([{ kind: 'bloom', refused: true }])
    const notice = { ...rule, kind: 'notice' as const, amount: 2 }
    expect(kinds([spray('s')], { rules: [notice] })).toEqual(['notice: s'])
    expect(kinds([spray('s', { noticeOn: DAY - 1 })], { rules: [notice] })).toEqual(['notice: s'])
    expect(kinds([spray('s', { noticeOn: DAY - 2 })], { rules: [notice] })).toEqual([])
    const consent = { ...rule, kind: 'consent' as const }
    expect(kinds([spray('s')], { rules: [consent] })).toEqual(['consent: s'])
    expect(kinds([spray('s', { consentOn: DAY })], { rules: [consent] })).toEqual([])
    expect(
      kinds([task('mow', { means: { ways: null, methods: ['timed-mowing'], chemical: false } })], { rules: [consent, notice] }),
    ).toEqual([])
  })

  test('labels keep days between treatments, whichever label asks', () => {
    expect(kinds([spray('a'), spray('b', { day: DAY + 6 })])).toEqual(
      ['spacing: a with b', 're-entry: b with a', 'spacing: b with a'].filter((k) => !k.startsWith('re-')),
    )
    expect(kinds([spray('a'), spray('b', { day: DAY + 7 })])).toEqual([])
    expect(kinds([spray('a'), spray('b')])).toEqual([])
    const oil = {
      productId: 'oil',
      methods: ['horticultural-oil'],
      reEntryHours: 0,
      leastIntervalDays: null,
      notWithin: [{ method: 'sulphur', days: 21 }],
    }
    const sulphur = { productId: 'sulphur', methods: ['sulphur'], reEntryHours: 0, leastIntervalDays: null }
    expect(kinds([spray('oil', {}, oil), spray('sulphur', { day: DAY + 20 }, sulphur)])).toEqual([
      'spacing: oil with sulphur',
      'spacing: sulphur with oil',
    ])
    expect(kinds([spray('oil', {}, oil), spray('sulphur', { day: DAY + 21 }, sulphur)])).toEqual([])
  })

  test('picking has to wait for the days to harvest, as it is planned or as the calendar expects it', () => {
    const waits = { preHarvestDays: 14, reEntryHours: 0 }
    expect(kinds([spray('s', {}, waits), task('pick', { day: DAY + 13, picks: true })])).toEqual(['harvest: s with pick'])
    expect(kinds([spray('s', {}, waits), task('pick', { day: DAY + 14, picks: true })])).toEqual([])
    const harvests = [
      { blockId: 'old-apples', crop: 'apple', ahead: { begunOn: null, endedOn: null, expected: { from: DAY + 10, until: DAY + 20 } } },
    ]
    expect(kinds([spray('s', {}, waits)], { harvests })).toEqual(['harvest: s'])
    expect(kinds([spray('s', {}, { ...waits, preHarvestDays: 3 })], { harvests })).toEqual([])
  })

  test('who has no licence, a day that is too short, and one machine in two places', () => {
    const given = { personId: 'dario', minutes: 300 }
    expect(kinds([spray('s', given, { licensedOnly: true, reEntryHours: 0 })], { isLicensed: () => false })).toEqual(['licence: s'])
    expect(kinds([task('a', given), task('b', { ...given, blockId: 'x' })])).toEqual(['person: b with a'])
    expect(kinds([task('a', given), task('b', { ...given, blockId: 'x', day: DAY + 1 })])).toEqual([])
    expect(
      kinds([
        task('a', { machine: 'mist blower', personId: 'dario' }),
        task('b', { machine: 'Mist blower ', personId: 'tovah', blockId: 'x' }),
      ]),
    ).toEqual(['machine: b with a'])
    expect(
      kinds([task('a', { machine: 'mist blower', minutes: 60 }), task('b', { machine: 'mist blower', minutes: 60, blockId: 'x' })]),
    ).toEqual([])
    expect(
      kinds([task('a', { machine: 'mist blower', minutes: 300 }), task('b', { machine: 'mist blower', minutes: 300, blockId: 'x' })]),
    ).toEqual(['machine: b with a'])
  })
})

test('the same group against the next generation is told, on the same ground alone', () => {
  const use = { season: '2026-01-01', organism: 'codling-moth', disease: false, generation: 'first', group: '5' }
  const second = { ...use, generation: 'second' }
  const apart = { reEntryHours: 0, leastIntervalDays: null }
  expect(kinds([spray('a', { use }, apart), spray('b', { day: DAY + 40, use: second }, apart)])).toEqual([
    'rotation: a with b',
    'rotation: b with a',
  ])
  expect(kinds([spray('a', { use }, apart), spray('b', { day: DAY + 40, use: second, blockId: 'x' }, apart)])).toEqual([])
})

describe('any schedule', () => {
  const some = fc.record({
    block: fc.constantFrom('a', 'b'),
    day: fc.integer({ min: DAY, max: DAY + 12 }),
    kind: fc.constantFrom('spray', 'count', 'pick'),
    person: fc.constantFrom(null, 'dario', 'tovah'),
    minutes: fc.constantFrom(null, 60, 300),
    done: fc.boolean(),
    hours: fc.constantFrom(0, 4, 24, 72),
  })
  const tasksOf = (all: readonly (typeof some extends fc.Arbitrary<infer T> ? T : never)[]): ScheduledTask[] =>
    all.map(({ block, day, kind, person, minutes, done, hours }, i) => {
      const common = { blockId: block, day, personId: person, minutes, done }
      return kind === 'spray'
        ? spray(`${i}`, common, { reEntryHours: hours, preHarvestDays: 7 })
        : task(`${i}`, { ...common, picks: kind === 'pick' })
    })

  test('what was done is in no conflict, and taking a task away makes no new one', () => {
    fc.assert(
      fc.property(fc.array(some, { maxLength: 8 }), fc.nat(), (all, at) => {
        const tasks = tasksOf(all)
        const before = conflictsOf(tasks, nothing)
        expect(before.filter(({ task: id }) => tasks.find((one) => one.id === id)?.done)).toEqual([])
        if (tasks.length === 0) return
        const gone = tasks[at % tasks.length] as ScheduledTask
        const known = new Set(before.map(({ kind, task: id }) => `${kind} ${id}`))
        // Somebody's day that is too short is told at its last task, which may now be another.
        const after = conflictsOf(
          tasks.filter((one) => one !== gone),
          nothing,
        ).filter(({ kind }) => kind !== 'person')
        expect(after.filter(({ kind, task: id }) => !known.has(`${kind} ${id}`))).toEqual([])
      }),
    )
  })

  test('with everything far apart and nobody in a hurry there is none', () => {
    fc.assert(
      fc.property(fc.array(some, { maxLength: 6 }), (all) => {
        const apart = tasksOf(all).map((one, i) => ({ ...one, day: DAY + i * 100 }))
        expect(conflictsOf(apart, nothing)).toEqual([])
      }),
    )
  })
})
