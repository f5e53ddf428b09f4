import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { ensembleOf } from '../phenology/ensemble.js'
import { resolveEvents, type OrganismModel } from '../phenology/model.js'
import type { CropStageRule } from '../phenology/cropCalendar.js'
import {
  attackOfModel,
  attackOfMonths,
  attackOfRecords,
  growingDays,
  plantingDates,
  sowingPlans,
  stageDays,
  usualAttack,
  type Attack,
  type PlantingDate,
} from './index.js'

const RADISH: CropStageRule[] = [
  { id: 'sown', after: [] },
  { id: 'emerged', after: [{ stage: 'sown', days: [4, 14] }] },
  { id: 'first-harvest', after: [{ stage: 'emerged', days: [20, 40] }] },
  { id: 'last-harvest', after: [{ stage: 'first-harvest', days: [14, 40] }] },
]
const CABBAGE: CropStageRule[] = [
  { id: 'sown', after: [] },
  { id: 'emerged', after: [{ stage: 'sown', days: [4, 14] }] },
  { id: 'planted', after: [{ stage: 'sown', days: [25, 50] }] },
  { id: 'heads-form', after: [{ stage: 'planted', days: [30, 60] }] },
  { id: 'first-harvest', after: [{ stage: 'heads-form', days: [20, 60] }] },
]
const TOMATO: CropStageRule[] = [
  { id: 'sown', after: [] },
  { id: 'emerged', after: [{ stage: 'sown', days: [4, 20] }] },
  { id: 'planted', after: [{ stage: 'sown', days: [21, 71] }] },
  {
    id: 'first-flower',
    after: [
      { stage: 'planted', days: [15, 45] },
      { stage: 'emerged', days: [30, 70] },
    ],
  },
]
const sum = (values: Iterable<number>): number => [...values].reduce((a, b) => a + b, 0)

describe('when something comes to a crop', () => {
  // One generation whose larvae enter at 100 °C·d and leave at 200, hardly spread.
  const model: OrganismModel = {
    heat: { method: 'average', lower: 0 },
    generations: [
      {
        id: 'first',
        reachableStages: ['larva'],
        events: [
          { id: 'hatch', stage: 'larva', heat: 100, atShare: 0.5, heatSe: 0.01, spread: 1, distribution: 'normal' },
          { id: 'pupation', stage: 'pupa', heat: 200, atShare: 0.5, heatSe: 0.01, spread: 1, distribution: 'normal' },
        ],
      },
    ],
  }
  const members = [10, 20].map((perDay) => ({ pastSeason: 0, cumulative: Float64Array.from({ length: 60 }, (_, i) => perDay * (i + 1)) }))
  const placed = { events: resolveEvents(model), ensemble: ensembleOf({ members, seasons: 2, openIndex: 0 }), shares: [1] }

  test('of a model it is on the days on which its stages are about, in each way the season may go', () => {
    const attack = attackOfModel(model, placed, ['larva'])!
    expect(attack.ways.map((way) => sum(way))).toEqual([expect.closeTo(1, 9), expect.closeTo(1, 9)])
    // 10 °C·d a day: larvae from the tenth to the twentieth day; at twice the heat in half the time.
    expect(attack.ways.map((way) => way.findIndex((part) => part > 0.01))).toEqual([9, 4])
    expect(attack.ways.map((way) => way.findLastIndex((part) => part > 0.01))).toEqual([19, 9])
    expect(attackOfModel(model, placed, ['egg'])).toBeUndefined()
  })

  test('of months it may lie half a month off on either side', () => {
    const { ways } = attackOfMonths([{ from: 30, until: 60 }], 100)
    expect(ways.map((way) => [way.findIndex((part) => part > 0), way.findLastIndex((part) => part > 0)])).toEqual([
      [15, 44],
      [30, 59],
      [45, 74],
    ])
    expect(sum(usualAttack({ ways, seasons: 3 }))).toBeCloseTo(1, 9)
    expect(() => attackOfMonths([], 0)).toThrow('length')
  })

  test('of own records only with three seasons in which it was looked for and found', () => {
    const season = (by: number) => [20, 30, 40, 50].map((day, i) => ({ day: day + by, found: [0, 4, 2, 0][i]! }))
    expect(attackOfRecords([season(0), season(5)], 100)).toBeUndefined()
    expect(attackOfRecords([season(0), season(5), season(3).map((look) => ({ ...look, found: 0 }))], 100)).toBeUndefined()
    const { ways } = attackOfRecords([season(0), season(5), season(10)], 100)!
    const peak = (way: Float64Array) => way.indexOf(Math.max(...way))
    expect(ways.map(peak).map((day, i) => Math.abs(day - (30 + 5 * i)) <= 2)).toEqual([true, true, true])
    expect(ways[0]![75]).toBe(0)
  })
})

describe('stages of a crop from the day it is begun', () => {
  test('what is sown where it stays is not planted, what is planted is up', () => {
    expect(stageDays(TOMATO, 'sown', 0).get('first-flower')).toBe(34)
    expect(stageDays(TOMATO, 'sown', 0).has('planted')).toBe(false)
    expect(stageDays(TOMATO, 'planted', 1).get('first-flower')).toBe(45)
    expect(stageDays(TOMATO, 'planted', 1).get('emerged')).toBe(0)
  })

  test('where only the way over a planting is known that is gone', () => {
    expect(stageDays(CABBAGE, 'sown', 0).get('first-harvest')).toBe(25 + 30 + 20)
    expect(() => stageDays(RADISH, 'planted', 0)).toThrow('begins')
  })
})

describe('days of sowing', () => {
  const flight: Attack = attackOfMonths([{ from: 60, until: 90 }], 200)
  const dates = (more: Partial<Parameters<typeof plantingDates>[0]> = {}): PlantingDate[] =>
    plantingDates({
      stages: RADISH,
      begins: 'sown',
      meetings: [{ id: 'fly', attack: flight, from: 'emerged', until: 'first-harvest' }],
      frost: null,
      frostKills: false,
      growth: null,
      days: Array.from({ length: 200 }, (_, day) => day),
      ...more,
    })

  test('meet nothing well before and well after the flight, and much of it between', () => {
    const all = dates()
    // Up on day 14 at the latest, picked by day 54: gone before the earliest flight on day 45 where sown on day 0 and quick.
    expect(all[0]!.met[0]!.share.p50).toBeLessThan(0.1)
    expect(all[60]!.met[0]!.share.p50).toBeGreaterThan(0.5)
    expect(all[110]!.met[0]!.share).toEqual({ p10: 0, p50: 0, p90: 0 })
    expect(all[60]!.harvest).toEqual({ p10: 60 + 5 + 22, p50: 60 + 9 + 30, p90: 60 + 13 + 38 })
    expect(all[0]!.springFrost).toBeNull()
  })

  test('say how often frost came over what it kills, and nothing of what bears it', () => {
    const frost = { lastSpring: [40, 50, null, 10], firstAutumn: [150, 160, null, 140] }
    const tender = dates({ frost, frostKills: true })
    // Up after 5 days at the quickest: on day 45 frost has come over it in one season of four.
    expect(tender[40]!.springFrost).toBe(1 / 4)
    expect(tender[46]!.springFrost).toBe(0)
    expect(tender[60]!.autumnFrost).toBe(0)
    expect(tender[150]!.autumnFrost).toBe(3 / 4)
    expect(dates({ frost })[0]).toMatchObject({ springFrost: 0, autumnFrost: 0 })
  })

  test('it grows while it is warm, from sowing until it is picked at the usual pace', () => {
    // Up to 6 °C by day 60, below it from day 160 on, with a warm week in winter that makes no spring.
    const means = Array.from({ length: 200 }, (_, day) => (day >= 60 && day < 160 ? 14 : day >= 20 && day < 24 ? 12 : 1))
    const growth = growingDays(means)!
    expect(Math.abs(growth.from - 60)).toBeLessThanOrEqual(4)
    expect(Math.abs(growth.until - 159)).toBeLessThanOrEqual(4)
    expect(growingDays(new Float64Array(30).fill(NaN))).toBeNull()
    const all = dates({ growth: { from: 60, until: 160 } })
    // Picked 39 days after it is sown.
    expect([59, 60, 121, 122].map((day) => all[day]!.grows)).toEqual([false, true, true, false])
  })

  test('what comes before anything is picked is part of what is met', () => {
    const long = dates({ meetings: [{ id: 'fly', attack: flight, from: 'emerged', until: 'last-harvest' }] })
    for (const { met } of long)
      for (const p of ['p10', 'p50', 'p90'] as const) expect(met[0]!.beforeHarvest[p]).toBeLessThanOrEqual(met[0]!.share[p] + 1e-9)
    expect(long[30]!.met[0]!.share.p50).toBeGreaterThan(long[30]!.met[0]!.beforeHarvest.p50 + 0.2)
  })

  test('a share is never below 0 or above 1, and its bounds lie in their order, whatever comes when', () => {
    fc.assert(
      fc.property(
        fc.array(fc.record({ from: fc.integer({ min: -50, max: 250 }), long: fc.integer({ min: 1, max: 120 }) }), { maxLength: 3 }),
        fc.integer({ min: 0, max: 199 }),
        (runs, day) => {
          const attack = attackOfMonths(
            runs.map(({ from, long }) => ({ from, until: from + long })),
            200,
          )
          const [date] = dates({ meetings: [{ id: 'fly', attack, from: 'emerged', until: 'last-harvest' }], days: [day] })
          const { share } = date!.met[0]!
          expect(share.p10).toBeGreaterThanOrEqual(0)
          expect(share.p90).toBeLessThanOrEqual(1)
          expect(share.p10).toBeLessThanOrEqual(share.p50)
          expect(share.p50).toBeLessThanOrEqual(share.p90)
        },
      ),
    )
  })
})

describe('ways to choose a date', () => {
  const date = (day: number, met: number, more: Partial<PlantingDate> = {}): PlantingDate => {
    const share = { p10: met, p50: met, p90: met }
    return { day, met: [{ id: 'fly', share, beforeHarvest: share }], harvest: null, springFrost: 0, autumnFrost: 0, grows: true, ...more }
  }
  const kinds = (dates: readonly PlantingDate[], first = 0, length = 365) =>
    Object.fromEntries(sowingPlans(dates, first, length).map(({ kind, days }) => [kind, days]))

  test('early and late go as far as frost is borne and something ripens, least where least is met', () => {
    const dates = [
      date(80, 0.1, { springFrost: 0.5 }),
      date(90, 0.3, { springFrost: 0.2 }),
      date(100, 0.6),
      date(150, 0.2),
      date(200, 0.25),
      date(210, 0, { grows: false }),
      date(240, 0, { autumnFrost: 0.6 }),
      date(320, 0, { harvest: { p10: 350, p50: 370, p90: 390 } }),
    ]
    expect(kinds(dates)).toEqual({ early: [90], late: [200], least: [150], succession: [90, 150, 200] })
    expect(kinds(dates, 120)).toEqual({ early: [150], late: [200], least: [150] })
    expect(sowingPlans(dates, 300, 365)).toEqual([])
  })

  test('a succession is the best of all that lie far enough apart', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: 3, maxLength: 14 }), (met) => {
        const dates = met.map((share, i) => date(i * 6, share))
        let best = Infinity
        for (const a of dates)
          for (const b of dates)
            for (const c of dates)
              if (b.day - a.day >= 14 && c.day - b.day >= 14) best = Math.min(best, sum([a, b, c].map((one) => one.met[0]!.share.p50)) / 3)
        const found = sowingPlans(dates, 0, 365).find(({ kind }) => kind === 'succession')
        if (best === Infinity) expect(found).toBeUndefined()
        else expect(found!.met).toBeCloseTo(best, 9)
      }),
    )
  })
})
