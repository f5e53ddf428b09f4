import { expect, test } from 'vitest'
import { assumedAction, EFFECT_BY_KIND, LASTING_DAYS } from './assumed.js'

const hand = { kind: 'mechanical', lasting: false, lastsDays: null } as const

test('what is done by hand acts on its day alone', () => {
  expect(assumedAction([hand])).toEqual({ effect: EFFECT_BY_KIND.mechanical, residualDays: 0 })
})

test('what stands goes on for as long as it stands, unless somebody knows better', () => {
  expect(assumedAction([{ kind: 'prevention', lasting: true, lastsDays: null }]).residualDays).toBe(LASTING_DAYS)
  expect(assumedAction([{ kind: 'biological', lasting: true, lastsDays: 14 }]).residualDays).toBe(14)
})

test('of several ways the strongest and the longest counts', () => {
  const virus = { kind: 'biological', lasting: false, lastsDays: 7 } as const
  expect(assumedAction([hand, virus])).toEqual({ effect: EFFECT_BY_KIND.mechanical, residualDays: 7 })
})

test('without a way there is nothing to assume', () => expect(() => assumedAction([])).toThrow('at least one way'))
