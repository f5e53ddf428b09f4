import type { Flag } from '@bocado/contract'
import { expect, test } from 'vitest'
import { minutesPerPlant, patchesFirst } from './triage.js'

let nth = 0
const visit = (change: object) => ({ plants: null, minutes: null, methodId: null, stage: null, ...change })
const flag = (change: object = {}, ...visits: object[]): Flag => {
  const all = visits.map(visit)
  return {
    id: String(++nth),
    organismId: 'himalayan-balsam',
    state: 'found',
    position: { latitude: 46.2, longitude: -119.3, accuracyM: null },
    last: all[0] ?? visit({}),
    visits: all,
    ...change,
  } as unknown as Flag
}
const pulled = { methodId: 'hand-pulling', plants: 20, minutes: 40 }

test('minutes are those of the own visits that took plants; of none measured a usual one', () => {
  expect(minutesPerPlant([flag({}, pulled, { plants: 5, minutes: 100 })], 'himalayan-balsam')).toBe(2)
  expect(minutesPerPlant([flag({}, { plants: 5, minutes: 100 })], 'himalayan-balsam')).toBe(0.5)
  expect(minutesPerPlant([flag({}, pulled)], 'wild-parsnip')).toBe(0.5)
})

test('only what stands is taken; what stands apart and what seeds come first, and the rest is left', () => {
  const near = flag({}, { plants: 16, stage: 'flowering' })
  const beside = flag({ position: { latitude: 46.20005, longitude: -119.3 } }, { plants: 16, stage: 'flowering' })
  const apart = flag({ position: { latitude: 46.21, longitude: -119.3 } }, { plants: 16, stage: 'flowering' })
  const young = flag({ position: { latitude: 46.2001, longitude: -119.3 } }, { plants: 16, stage: 'seedling' })
  const gone = flag({ state: 'none-standing' }, { plants: 16 })
  const { taken, left } = patchesFirst([near, beside, young, apart, gone], 0.6)
  expect(taken.map(({ id }) => id)).toEqual([apart.id, near.id, beside.id])
  expect(left.map(({ id }) => id)).toEqual([young.id])
})

test('what the user said of the ground counts: rank 1 first, and what gets away before what stays', () => {
  const [one, two] = [flag({}, { plants: 16, stage: 'flowering' }), flag({}, { plants: 16, stage: 'flowering' })]
  const of = (ground: object) =>
    patchesFirst([one, two], 0.3, ({ id }) => ({ rank: null, spreads: false, ...(id === two.id ? ground : {}) }))
  expect(of({ rank: 1 }).taken.map(({ id }) => id)).toEqual([two.id])
  expect(of({ rank: 3 }).taken.map(({ id }) => id)).toEqual([one.id])
  expect(of({ spreads: true }).taken.map(({ id }) => id)).toEqual([two.id])
})

test('a patch that stands nowhere known, or of which nobody counted, is still on the list', () => {
  const { taken } = patchesFirst([flag({ position: null }, { plants: null })], 1)
  expect(taken).toMatchObject([{ plants: 10, apartM: 0, seeds: true, minutes: 9 }])
})
