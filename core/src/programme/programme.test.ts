import { describe, expect, test } from 'vitest'
import { dayNumber } from '../time/index.js'
import { programmeStates, programmeSums, type ProgrammeKnown, type ProgrammeStep, type StepWhen } from './programme.js'

const TODAY = dayNumber('2026-06-12')
const known = (change: Partial<ProgrammeKnown> = {}): ProgrammeKnown => ({
  today: TODAY,
  begin: dayNumber('2026-01-01'),
  done: new Map(),
  opens: null,
  counts: [],
  blooms: new Map(),
  stages: new Map(),
  ...change,
})
const step = (when: StepWhen, change: Partial<ProgrammeStep> = {}): ProgrammeStep => ({
  means: 'cut',
  when,
  everyDays: null,
  emptyChecks: null,
  ...change,
})
const states = (steps: ProgrammeStep[], change?: Partial<ProgrammeKnown>) => programmeStates(steps, known(change))

describe('a step is due', () => {
  test('at once, when its window opens, or so many days after another one; nothing is guessed where nobody knows', () => {
    expect(states([step({ kind: 'at-once' })])).toEqual([{ state: 'due', day: dayNumber('2026-01-01') }])
    expect(states([step({ kind: 'window' })])).toEqual([{ state: 'waits' }])
    expect(states([step({ kind: 'window' })], { opens: TODAY + 3 })).toEqual([{ state: 'due', day: TODAY + 3 }])
    const two = [step({ kind: 'at-once' }), step({ kind: 'after', step: 0, days: 21 }, { means: 'paint' })]
    expect(states(two)[1]).toEqual({ state: 'waits' })
    expect(states(two, { done: new Map([['cut', [TODAY - 30, TODAY - 5]]]) })).toEqual([
      { state: 'done', day: TODAY - 5 },
      { state: 'due', day: TODAY + 16 },
    ])
  })

  test('in its months: today where it is one of them, else on the first of the next, over the turn of the year', () => {
    expect(states([step({ kind: 'months', months: [6] })])).toEqual([{ state: 'due', day: TODAY }])
    expect(states([step({ kind: 'months', months: [2, 8] })])).toEqual([{ state: 'due', day: dayNumber('2026-08-01') }])
    expect(states([step({ kind: 'months', months: [2] })])).toEqual([{ state: 'due', day: dayNumber('2027-02-01') }])
    expect(states([step({ kind: 'months', months: [] })])).toEqual([{ state: 'waits' }])
  })

  test('by the last count alone, not by one before it', () => {
    const by = step({ kind: 'count', per100: 5 })
    expect(states([by], { counts: [{ day: TODAY - 2, per100: 7 }] })).toEqual([{ state: 'due', day: TODAY - 2 }])
    const fell = [
      { day: TODAY - 9, per100: 7 },
      { day: TODAY - 2, per100: 4 },
    ]
    expect(states([by], { counts: fell })).toEqual([{ state: 'waits' }])
  })

  test('after a bloom, or with a stage of the crop, that somebody saw; what is only expected sets off nothing', () => {
    const elder = step({ kind: 'bloom', plantId: 'elder', event: 'full-bloom', days: 10 })
    expect(states([elder])).toEqual([{ state: 'waits' }])
    expect(states([elder], { blooms: new Map([['elder full-bloom', TODAY - 3]]) })).toEqual([{ state: 'due', day: TODAY + 7 }])
    expect(states([elder], { blooms: new Map([['elder end', TODAY - 3]]) })).toEqual([{ state: 'waits' }])
    const petals = step({ kind: 'crop-stage', stage: 'petal-fall' })
    expect(states([petals])).toEqual([{ state: 'waits' }])
    expect(states([petals], { stages: new Map([['petal-fall', TODAY - 1]]) })).toEqual([{ state: 'due', day: TODAY - 1 }])
  })

  test('again after its interval, until so many looks in a row found nothing', () => {
    const again = step({ kind: 'at-once' }, { everyDays: 14, emptyChecks: 2 })
    const done = new Map([['cut', [TODAY - 20]]])
    expect(states([again], { done })).toEqual([{ state: 'due', day: TODAY - 6 }])
    const look = (day: number, per100: number) => ({ day, per100 })
    expect(states([again], { done, counts: [look(TODAY - 10, 0)] })).toEqual([{ state: 'due', day: TODAY - 6 }])
    expect(states([again], { done, counts: [look(TODAY - 10, 0), look(TODAY - 3, 0)] })).toEqual([{ state: 'over', empty: 2 }])
    // One that was found begins the row anew, and what was seen before the last cut says nothing of it.
    expect(states([again], { done, counts: [look(TODAY - 10, 0), look(TODAY - 5, 1), look(TODAY - 3, 0)] })[0]!.state).toBe('due')
    expect(states([again], { done, counts: [look(TODAY - 30, 0), look(TODAY - 25, 0)] })[0]!.state).toBe('due')
  })

  test('at a height only when somebody has looked', () => {
    expect(states([step({ kind: 'regrowth', cm: 20 })], { done: new Map([['cut', [TODAY - 20]]]) })).toEqual([
      { state: 'look', cm: 20, lastDone: TODAY - 20 },
    ])
  })
})

describe('what a programme takes', () => {
  const costs = { visits: [3, 2, 1] as const, hours: 4, litres: null, bags: 5, money: 12 }
  test('is summed over three years, with an hour’s money where it is known', () => {
    expect(programmeSums([costs], null)).toEqual({
      visits: 6,
      hours: 24,
      litres: null,
      bags: 30,
      money: 72,
      missing: { hours: 0, litres: 1, bags: 0, money: 0 },
    })
    expect(programmeSums([costs], 20).money).toBe(72 + 480)
  })

  test('says of how many steps something is unknown, and makes nothing up', () => {
    const sums = programmeSums([costs, { ...costs, hours: null, money: null }], 20)
    expect(sums).toMatchObject({ visits: 12, hours: 24, money: 72 + 480, missing: { hours: 1, money: 1 } })
    expect(programmeSums([], 20)).toMatchObject({ visits: 0, hours: null, money: null })
    expect(() => programmeSums([{ ...costs, visits: [1, -1, 0] }], null)).toThrow(RangeError)
  })
})
