import type { YearsOf } from '@bocado/contract'
import { expect, test } from 'vitest'
import type { PatchInLine } from '../band/triage.js'
import { laterOf, leftGroups } from './useLeftLater.js'

const weed = { form: 'annual', bankYears: { shortest: 2, longest: 4 }, minutesPerPlant: 1, plantsPerBag: null }
const year = (season: string, plants: number | null) => ({ season, plants, areaM2: 30 })
const line = (change: object) =>
  ({
    ...{ organismId: 'himalayan-balsam', blockId: 'creek', weed },
    years: [year('2024-01-01', 40), year('2025-01-01', 60), year('2026-01-01', 10)],
    ...change,
  }) as unknown as YearsOf
const left = (organismId: string, placeId: string, plants: number) =>
  ({ flag: { organismId, placeId }, plants, minutes: 2 * plants }) as unknown as PatchInLine
const blockOf = (placeId: string): string => (placeId === 'north end' ? 'creek' : placeId)

test('what is left is put together by weed and block, parts with their block; what has no years is left out', () => {
  const groups = leftGroups(
    [
      left('himalayan-balsam', 'creek', 10),
      left('himalayan-balsam', 'north end', 5),
      left('himalayan-balsam', 'lane', 7),
      left('wild-parsnip', 'creek', 9),
    ],
    [line({}), line({ organismId: 'wild-parsnip', weed: null }), line({ blockId: 'lane', years: [year('2025-01-01', null)] })],
    '2026-01-01',
    blockOf,
  )
  expect(groups).toMatchObject([{ plants: 15, minutes: 30, patches: 2 }])
  // The season that runs is not over: its count would say too little.
  expect(groups[0]!.question.stand.counts).toEqual([
    { year: 2024, plants: 40 },
    { year: 2025, plants: 60 },
  ])
})

test('each group changes by its own stand, and work goes with the plants', () => {
  const group = { plants: 10, minutes: 20, patches: 1, question: {} as never }
  const later = laterOf([
    { ...group, rate: { low: 0.5, middle: 2, high: 4 } },
    { ...group, plants: 100, minutes: 50, patches: 3, rate: { low: 0, middle: 0.1, high: 1 } },
  ])
  expect(later).toEqual({ plants: { low: 5, middle: 30, high: 140 }, minutes: 45, patches: 4 })
})
