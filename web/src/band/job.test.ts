import type { SiteRule } from '@bocado/contract'
import { expect, test } from 'vitest'
import { checksOf, isFireClosed, mostWind } from './job.js'

const rule = (change: object) =>
  ({
    kind: 'wind',
    act: 'spraying',
    whose: 'own',
    fromDay: null,
    untilDay: null,
    fromHour: null,
    untilHour: null,
    amount: 4,
    ...change,
  }) as SiteRule
const sprayed = (maxWindMs: number | null) => ({ product: { ways: ['spray'], methods: ['sulphur'], maxWindMs }, methodId: null }) as never

test('the most wind is the lower of label and rules, of those that hold that day', () => {
  expect(mostWind([], sprayed(null), [], '2026-06-14')).toBeNull()
  expect(mostWind([rule({})], sprayed(5), [], '2026-06-14')).toBe(4)
  expect(mostWind([rule({})], sprayed(3), [], '2026-06-14')).toBe(3)
  expect(mostWind([rule({ fromDay: '07-01', untilDay: '07-31' })], sprayed(null), [], '2026-06-14')).toBeNull()
  expect(mostWind([rule({ act: 'cutting' })], sprayed(null), [], '2026-06-14')).toBeNull()
})

test('fire is closed by a rule of burning on its days, and by no other', () => {
  const ban = rule({ kind: 'closed-days', act: 'burning', fromDay: '06-01', untilDay: '09-30', amount: null })
  expect(isFireClosed([ban], '2026-06-14')).toBe(true)
  expect(isFireClosed([ban], '2026-11-14')).toBe(false)
  expect(isFireClosed([{ ...ban, act: 'spraying' }], '2026-06-14')).toBe(false)
})

test('work by hand is checked for people and for what is carried on', () => {
  expect(checksOf(true)).toEqual(['gear', 'children', 'boots'])
  expect(checksOf(false)).toContain('bees')
})
