import { describe, expect, test } from 'vitest'
import { thresholdAtStage } from './thresholdAtStage.js'

const OWN = {
  per100: 30,
  steps: [
    { from: 'petal-fall', per100: 5 },
    { from: 'first-harvest', per100: 60 },
  ],
}
const stage = (id: string, seen: number | null, expected: [number, number] | null = null, isPast = false) => ({
  id,
  seen,
  expected: expected && { from: expected[0], until: expected[1] },
  isPast,
})

describe('the threshold of a stage', () => {
  test('holds from the day on which the stage was seen', () => {
    const stages = [stage('first-flower', 90), stage('petal-fall', 110), stage('first-harvest', null, [200, 230])]
    expect([100, 110, 150].map((day) => thresholdAtStage(OWN, stages, day))).toEqual([
      { per100: 30, stage: null, sure: true },
      { per100: 5, stage: 'petal-fall', sure: true },
      { per100: 5, stage: 'petal-fall', sure: true },
    ])
  })

  test('is the lowest of those that may hold where nobody saw how far the crop is', () => {
    const stages = [stage('first-flower', 90), stage('petal-fall', null, [105, 118]), stage('first-harvest', null, [200, 230])]
    expect(thresholdAtStage(OWN, stages, 104)).toMatchObject({ per100: 30, sure: true })
    expect(thresholdAtStage(OWN, stages, 107)).toEqual({ per100: 5, stage: 'petal-fall', sure: false })
    // Towards harvest the earlier, lower one still stands until somebody says that it is over.
    expect(thresholdAtStage(OWN, stages, 210)).toEqual({ per100: 5, stage: 'petal-fall', sure: false })
  })

  test('knows a stage that was passed by a later one that was seen', () => {
    const stages = [stage('petal-fall', null, null, true), stage('fruit-set', 120), stage('first-harvest', null, [200, 230])]
    expect(thresholdAtStage(OWN, stages, 130)).toEqual({ per100: 5, stage: 'petal-fall', sure: true })
  })

  test('is the lowest of all as long as nobody has seen anything of the crop', () => {
    const stages = [stage('first-flower', null), stage('petal-fall', null), stage('first-harvest', null)]
    expect(thresholdAtStage(OWN, stages, 130)).toEqual({ per100: 5, stage: 'petal-fall', sure: false })
  })

  test('is that before the first step where no crop is known', () => {
    expect(thresholdAtStage(OWN, [], 130)).toEqual({ per100: 30, stage: null, sure: true })
  })
})
