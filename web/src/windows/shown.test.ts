import type { Organism, WatchForecast } from '@bocado/contract'
import { expect, test } from 'vitest'
import { isShown, overThreshold } from './shown.js'

const moth = { id: 'codling-moth', sampling: { threshold: { per100: 2, confidence: 'approximate', source: { kind: 'common-knowledge' } } } }
const organisms = [moth] as unknown as Organism[]
const TODAY = '2026-06-12'
const row = (changes: object): WatchForecast =>
  ({
    watch: { organismId: 'codling-moth', threshold: { per100: 2, reason: '' } },
    rounds: [],
    moved: null,
    decision: null,
    windows: [],
    ...changes,
  }) as never

test('over the threshold is what the last count in the block itself says, not one in the check area', () => {
  const over = { checkAreaId: null, per100: 3 }
  const under = { checkAreaId: null, per100: 1 }
  expect(overThreshold(row({ rounds: [over] }), organisms)).toBe(true)
  expect(overThreshold(row({ rounds: [over, under] }), organisms)).toBe(false)
  expect(overThreshold(row({ rounds: [under, { checkAreaId: 'north', per100: 9 }] }), organisms)).toBe(false)
  expect(overThreshold(row({}), organisms)).toBe(false)
})

test('what was decided to be left is not among what is over the threshold, until it is time to look again', () => {
  const left = (lookAgainOn: string) => row({ rounds: [{ checkAreaId: null, per100: 3 }], decision: { lookAgainOn } })
  expect(isShown(left('2026-06-19'), 'over', organisms, TODAY)).toBe(false)
  expect(isShown(left(TODAY), 'over', organisms, TODAY)).toBe(true)
})

test('what moved is shown by itself', () => {
  expect(isShown(row({ moved: { days: 3, since: '2026-06-05' } }), 'moved', organisms, TODAY)).toBe(true)
  expect(isShown(row({}), 'moved', organisms, TODAY)).toBe(false)
  expect(isShown(row({}), 'all', organisms, TODAY)).toBe(true)
})
