import type { Chore, Job, PlantingDates } from '@bocado/contract'
import { describe, expect, test } from 'vitest'
import {
  choresTogether,
  coverFor,
  isBarred,
  jobFor,
  lookedAt,
  lookedAtFirst,
  mostMet,
  plansBy,
  spanOf,
  stagesFrom,
  stripsFor,
} from './planting.js'

const bounds = (p50: number) => ({ p10: p50, p50, p90: p50 })
const meeting = (id: string, more: Partial<PlantingDates['meetings'][number]> = {}): PlantingDates['meetings'][number] => ({
  organismId: id,
  name: id,
  isKnownHere: false,
  by: 'months',
  seasons: 0,
  confidence: 'approximate',
  from: 'emerged',
  until: 'first-harvest',
  stages: [],
  curve: [],
  wintersThere: false,
  coverHelps: true,
  stripHelps: false,
  varieties: [],
  ...more,
})
/** A crop that is up in ten days, in female flower in forty and picked in fifty, over a hundred days. */
const dates = (meetings: PlantingDates['meetings'], more: Partial<PlantingDates> = {}): PlantingDates => ({
  season: { start: '2026-01-01', days: 100, first: 10 },
  crop: {
    id: 'zucchini',
    name: 'Zucchini',
    family: 'gourd family',
    stages: [
      { id: 'sown', after: [] },
      { id: 'emerged', after: [{ stage: 'sown', days: [10, 10] }] },
      { id: 'first-female-flower', after: [{ stage: 'emerged', days: [20, 40] }] },
      { id: 'first-harvest', after: [{ stage: 'first-female-flower', days: [10, 10] }] },
    ],
    openFrom: 'first-female-flower',
    frostKills: true,
  },
  begins: 'sown',
  meetings,
  dates: Array.from({ length: 100 }, (_, day) => ({
    day,
    met: meetings.map((_, m) => ({ share: bounds(m === 0 ? day / 100 : 0.3), beforeHarvest: bounds(0) })),
    harvest: bounds(day + 50),
    springFrost: 0,
    autumnFrost: 0,
    grows: true,
  })),
  frostSeasons: 4,
  sameFamily: [],
  clear: [],
  ...more,
})

describe('what is looked at', () => {
  test('is what somebody watched here, or all where none was', () => {
    expect(lookedAtFirst(dates([meeting('borer'), meeting('bug')]))).toEqual(['borer', 'bug'])
    expect(lookedAtFirst(dates([meeting('borer'), meeting('bug', { isKnownHere: true })]))).toEqual(['bug'])
  })

  test('decides which day meets the least, of those that are left', () => {
    const one = dates([meeting('borer'), meeting('bug')])
    const both = lookedAt(one, ['borer', 'bug'])
    expect(mostMet(one.dates[10]!, both)!.p50).toBe(0.3)
    expect(mostMet(one.dates[60]!, both)!.p50).toBe(0.6)
    expect(mostMet(one.dates[60]!, [])).toBeNull()
    const least = (ids: string[]) => plansBy(one, lookedAt(one, ids)).find(({ kind }) => kind === 'least')!.days
    expect(least(['borer'])).toEqual([10])
    expect(least(['bug'])).toEqual([10])
    expect(isBarred({ ...one.dates[10]!, harvest: bounds(101) }, 100)).toBe(true)
    expect(isBarred({ ...one.dates[10]!, springFrost: 0.4 }, 100)).toBe(true)
    expect(isBarred({ ...one.dates[10]!, grows: false }, 100)).toBe(true)
    expect(isBarred(one.dates[10]!, 100)).toBe(false)
  })
})

describe('a cover', () => {
  test('stays until bees are needed, or what it keeps out is over', () => {
    const one = dates([meeting('borer', { until: 'first-harvest' })])
    const looked = lookedAt(one, ['borer'])
    expect(coverFor(one, 20, looked)).toEqual({ kind: 'cover', on: 20, off: 20 + 10 + 22, why: 'pollinated', stage: 'first-female-flower' })
    const early = dates([meeting('beetle', { until: 'first-female-flower' })])
    expect(coverFor({ ...early, crop: { ...early.crop, openFrom: null } }, 20, lookedAt(early, ['beetle']))).toMatchObject({
      off: 20 + 10 + 30,
      why: 'over',
    })
  })

  test('is none where it keeps nothing out, and refused over soil in which something winters', () => {
    const one = dates([meeting('bug', { coverHelps: false })])
    expect(coverFor(one, 20, lookedAt(one, ['bug']))).toEqual({ kind: 'none' })
    expect(coverFor(dates([meeting('borer')]), 0, lookedAt(dates([meeting('borer')]), ['borer']))).toEqual({ kind: 'none' })
    const sameFamily = [{ cropName: 'Pumpkin', until: '2025-10-01' }]
    const below = dates([meeting('borer', { wintersThere: true })], { sameFamily })
    expect(coverFor(below, 20, lookedAt(below, ['borer']))).toEqual({
      kind: 'not',
      organism: 'borer',
      crop: 'Pumpkin',
      until: '2025-10-01',
    })
    const flies = dates([meeting('beetle')], { sameFamily })
    expect(coverFor(flies, 20, lookedAt(flies, ['beetle'])).kind).toBe('cover')
  })
})

test('a strip is sown two weeks ahead, where there is still time for it', () => {
  const one = dates([meeting('beetle', { stripHelps: true })])
  const looked = lookedAt(one, ['beetle'])
  expect(stripsFor(one, 30, looked)).toEqual([{ organism: 'beetle', day: 16 }])
  expect(stripsFor(one, 20, looked)).toEqual([])
})

test('stages lie between the quickest and the slowest, and something meets the crop between two of them', () => {
  const one = dates([meeting('borer')])
  const stages = stagesFrom(one, 20)
  expect(stages.find(({ stage }) => stage === 'first-harvest')!.from).toEqual({ quick: 62, usual: 70, slow: 78 })
  expect(spanOf(stages, one.crop.stages, { from: 'emerged', until: 'first-harvest' })).toEqual({ from: 30, until: 70 })
  // What it does not have begins with the next that it has.
  expect(spanOf(stages, one.crop.stages, { from: 'emerged', until: 'last-harvest' }).until).toBe(Infinity)
})

test('the same chore in two blocks is one, and stands on the schedule by its place and name', () => {
  const chore = (blockId: string, until = '2027-04-01'): Chore => ({
    organismId: 'onion-maggot',
    name: 'Onion maggot',
    blockId,
    blockName: blockId,
    as: 'pupa',
    where: 'in the soil',
    todo: ['clear culls'],
    from: null,
    until,
    by: 'model',
  })
  const together = choresTogether([chore('Onion Flat'), chore('Glass Two'), chore('Long Corn', '2027-05-01')])
  expect(together.map(({ blocks }) => blocks.map(({ id }) => id))).toEqual([['Onion Flat', 'Glass Two'], ['Long Corn']])
  const job = { placeId: 'p', name: 'clear culls', doneOn: null } as Job
  expect(jobFor([job], 'p', 'clear culls')).toBe(job)
  expect(jobFor([{ ...job, doneOn: '2026-06-01' }], 'p', 'clear culls')).toBeUndefined()
  expect(jobFor([job], 'q', 'clear culls')).toBeUndefined()
})
