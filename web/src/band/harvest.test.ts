import type { Planting } from '@bocado/contract'
import { expect, test } from 'vitest'
import { harvestWaiting } from './harvest.js'

type Stage = Planting['stages'][number]
const stage = (name: Stage['stage'], more: Partial<Stage>): Stage => ({ stage: name, seen: null, expected: null, isPast: false, ...more })
const seen = (on: string): Partial<Stage> => ({ seen: { record: null, on, personName: 'Dario Quince' } })
const waits = (stages: Stage[], date = '2026-06-12', days = 7) => harvestWaiting({ stages }, date, days)

test('a harvest that may begin before it may be picked again is told with both days', () => {
  const expected = { from: '2026-06-17', until: '2026-09-05' }
  expect(waits([stage('first-harvest', { expected })])).toEqual({ how: 'may-begin', since: '2026-06-17', pickedFrom: '2026-06-19' })
  expect(waits([stage('first-harvest', { expected })], '2026-06-10')).toBeNull()
  expect(waits([stage('first-harvest', { expected })], '2026-06-12', 0)).toBeNull()
})

test('one that is under way is told until its last was picked', () => {
  const first = stage('first-harvest', seen('2026-06-04'))
  expect(waits([first])).toEqual({ how: 'under-way', since: '2026-06-04', pickedFrom: '2026-06-19' })
  expect(waits([first, stage('last-harvest', { expected: { from: '2026-06-25', until: '2026-10-02' } })])?.how).toBe('under-way')
  expect(waits([first, stage('last-harvest', seen('2026-06-11'))])).toBeNull()
})

test('a crop of which nothing is known keeps nothing waiting', () => {
  expect(waits([])).toBeNull()
  expect(waits([stage('first-harvest', {})])).toBeNull()
})
