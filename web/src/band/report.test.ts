import type { Treatment, WatchForecast } from '@bocado/contract'
import { expect, test } from 'vitest'
import { activesOn, amountUsed, doneDeeds, reportBy, wasteOf } from './report.js'

const label = { rateUnit: 'kg/ha', active: 'copper', activeGramsPer: 350, mostActiveKgHa: 1, actionGroup: 'M1', licensedOnly: true }
let nth = 0
const deed = (done: object | null, more: object = {}): Treatment =>
  ({
    id: `${++nth}`,
    productId: 'copper',
    name: 'Terrace copper',
    deviation: null,
    ...more,
    done: done && {
      startedAt: `2026-06-0${nth}T12:00:00Z`,
      rate: 2,
      rateUnit: 'kg/ha',
      areaHa: 5,
      amountUsed: null,
      minutes: 30,
      bags: null,
      waste: null,
      label,
      departures: [],
      signed: null,
      doneByName: 'Tovah Lindqvist',
      ...done,
    },
  }) as unknown as Treatment
const row = (blockId: string, organismName: string, ...treatments: Treatment[]) =>
  ({ watch: { blockId }, organismName, treatments }) as unknown as WatchForecast
const names: Record<string, string> = { vines: 'Terrace Vines', apples: 'Old Apples' }
const of = (...rows: WatchForecast[]) => doneDeeds(rows, (id) => names[id] ?? '')

test('a season by place, product and whoever did it; what is planned is not in it', () => {
  const byHand = { label: null, rateUnit: null, rate: null, areaHa: null, bags: 4, waste: 'bag', doneByName: 'Dario Quince' }
  const all = of(
    row(
      'vines',
      'Downy mildew',
      deed({}),
      deed({ departures: [{ because: 'wind', message: 'wind' }], signed: { byName: 'Tovah Lindqvist' } }),
    ),
    row('apples', 'Codling moth', deed(null), deed(byHand, { productId: null, name: 'Fallen fruit' })),
  )
  expect(reportBy('place', all)).toEqual([
    expect.objectContaining({ name: 'Old Apples', times: 1, areaHa: 0, amounts: [], amountsUnknown: 0, bags: 4, unsigned: 0 }),
    expect.objectContaining({
      name: 'Terrace Vines',
      times: 2,
      areaHa: 10,
      amounts: [{ name: 'Terrace copper', amount: 20, unit: 'kg' }],
      minutes: 60,
      departed: 1,
      unsigned: 1,
    }),
  ])
  // What has no group comes last.
  expect(reportBy('group', all).map(({ name }) => name)).toEqual(['M1', ''])
  expect(reportBy('person', all).map(({ name, times }) => [name, times])).toEqual([
    ['Dario Quince', 1],
    ['Tovah Lindqvist', 2],
  ])
  expect(wasteOf(all)).toEqual([{ way: 'bag', times: 1, bags: 4 }])
})

test('an active is summed over its block; two watches of one hour are one treatment of the ground', () => {
  const same = { startedAt: '2026-05-02T12:00:00Z' }
  const all = of(
    row('vines', 'Downy mildew', deed(same)),
    row('vines', 'Powdery mildew', deed(same)),
    row('apples', 'Scab', deed({ amountUsed: 20 })),
  )
  const sums = activesOn(
    all,
    new Map([
      ['vines', 5],
      ['apples', 4],
    ]),
  )
  // 10 kg of product hold 3.5 kg, on 5 ha.
  expect(sums.map(({ blockId, kgHa, isOver }) => [blockId, kgHa, isOver])).toEqual([
    ['vines', 0.7, false],
    ['apples', 1.75, true],
  ])
})

test('an amount that was typed stands over the rate; a dilution without one is not known', () => {
  const done = (change: object) => deed(change).done!
  expect(amountUsed(done({ amountUsed: 9 }))).toEqual({ amount: 9, unit: 'kg' })
  expect(amountUsed(done({ rateUnit: 'mL/L', rate: 2 }))).toBeNull()
  expect(amountUsed(done({ rateUnit: null }))).toBeNull()
  expect(reportBy('product', of(row('vines', 'x', deed({ rateUnit: 'mL/L' }))))[0]?.amountsUnknown).toBe(1)
})
