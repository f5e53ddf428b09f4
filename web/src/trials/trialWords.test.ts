import type { Trial } from '@bocado/contract'
import { expect, test } from 'vitest'
import { powerOf } from '../band/trial.js'
import type { Format } from '../design/useFormat.js'
import type { Say } from '../messages/useText.js'
import { trialSays } from './trialWords.js'

const t = ((id: string, values: Record<string, unknown> = {}) => `${id} ${Object.values(values).join(' ')}`.trim()) as Say
const f = { percent: (share: number) => `${Math.round(share * 100)} %`, dateInDays: (day: string) => day } as Format
const count = { countedOn: '2026-06-01', counts: {} }
const says = (change: object) =>
  trialSays(
    { result: null, before: null, treatedOn: null, judgeFrom: null, measure: 'count', moves: false, ...change } as unknown as Trial,
    '2026-06-12',
    t,
    f,
  )

test('a trial asks for its next step, and waits for its day', () => {
  expect(says({})).toBe('trials.next.before')
  expect(says({ before: count })).toBe('trials.next.treat')
  expect(says({ measure: 'alive' })).toBe('trials.next.treat')
  expect(says({ before: count, treatedOn: '2026-06-10', judgeFrom: '2026-06-17' })).toBe('trials.next.wait 2026-06-17')
  expect(says({ before: count, treatedOn: '2026-06-01', judgeFrom: '2026-06-12' })).toBe('trials.next.after')
})

test('what it says is no more than it can: what drives off is not said to be gone, and what is worse is said as more', () => {
  const shown = { effect: 0.7, low: 0.5, high: 0.8, atLeast: true }
  const of = (verdict: string, more: object = {}) => ({ result: { verdict, shown, used: 6, leftOut: 0, survival: null, ...more } })
  expect(says(of('worked'))).toBe('trials.says.worked 70 % 50 % 80 % yes')
  expect(says({ ...of('worked'), moves: true })).toMatch(/^trials\.says\.moved/)
  expect(says(of('worse', { shown: { ...shown, effect: -0.4, low: -0.9, high: -0.1 } }))).toBe('trials.says.worse 40 % 10 % 90 % yes')
  expect(says(of('cannot-tell', { shown: { ...shown, effect: -0.2, low: -0.5 }, leftOut: 2 }))).toBe(
    'trials.says.cannot-tell trials.change 20 % more trials.change 50 % more trials.change 80 % fewer trials.leftOut 2',
  )
  expect(says(of('too-few', { shown: null, leftOut: 5 }))).toBe('trials.tooFew trials.leftOut 5')
  expect(says(of('worked', { shown: null, survival: { onlyTreated: 5, onlyCheck: 0, p: 1 / 32 } }))).toBe('trials.alive.worked 5 0 3 %')
})

test('power is told where enough is said, and grows with pairs', () => {
  expect(powerOf(null, 5, 0.5)).toBeNull()
  expect(powerOf(2, 5, 0.5)).toBeNull()
  expect(powerOf(6, 0, 0.5)).toBeNull()
  expect(powerOf(6, 1e9, 0.5)).toBe(powerOf(6, 1e6, 0.5))
  expect(powerOf(20, 8, 0.5)!).toBeGreaterThan(powerOf(4, 8, 0.5)!)
})
