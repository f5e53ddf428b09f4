import { expect, test } from 'vitest'
import { drillScore } from './drillScore.js'

test('a drill tells misses from false alarms', () => {
  const trials = [
    { isIt: true, saidIt: true },
    { isIt: true, saidIt: false },
    { isIt: false, saidIt: true },
    { isIt: false, saidIt: false },
    { isIt: false, saidIt: false },
  ]
  expect(drillScore(trials)).toEqual({ shown: 5, misses: 1, falseAlarms: 1, missRate: 0.5, falseAlarmRate: 1 / 3 })
  expect(drillScore([])).toMatchObject({ shown: 0, missRate: 0, falseAlarmRate: 0 })
})
