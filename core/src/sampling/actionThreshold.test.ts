import { describe, expect, test } from 'vitest'
import { actionThreshold, isCrossed, type CountedFor } from './actionThreshold.js'

const counted = (value: number, changes: Partial<CountedFor> = {}): CountedFor => ({
  threshold: { value, confidence: 'approximate' },
  serves: 'decision',
  eliminate: false,
  ...changes,
})

describe('the threshold on which one decides', () => {
  test('is the site’s own wherever it wrote one, whatever the library knows', () => {
    expect(actionThreshold(4, counted(2))).toEqual({ per100: 4, from: 'own' })
    expect(actionThreshold(4, counted(2, { threshold: { value: 2, confidence: 'placeholder' } }))).toEqual({ per100: 4, from: 'own' })
    expect(actionThreshold(4, counted(2, { serves: 'outcome' }))).toEqual({ per100: 4, from: 'own' })
    expect(actionThreshold(4, counted(2, { eliminate: true }))).toEqual({ per100: 4, from: 'own' })
  })

  test('is none where the library only guesses, or counts what comes too late', () => {
    expect(actionThreshold(null, counted(20, { threshold: { value: 20, confidence: 'placeholder' } }))).toBeNull()
    expect(actionThreshold(null, counted(1, { serves: 'outcome' }))).toBeNull()
    expect(actionThreshold(null, counted(2))).toEqual({ per100: 2, from: 'library' })
  })

  test('of what is to go altogether is one', () => {
    const one = actionThreshold(null, counted(20, { eliminate: true, threshold: { value: 20, confidence: 'placeholder' } }))
    expect(one?.from).toBe('every-one')
    expect([0, 0.4, 20].map((per100) => isCrossed(per100, one))).toEqual([false, true, true])
  })

  test('is crossed where it is met, and never where there is none', () => {
    const two = actionThreshold(null, counted(2))
    expect([1.9, 2, 3].map((per100) => isCrossed(per100, two))).toEqual([false, true, true])
    expect(isCrossed(1e9, null)).toBe(false)
  })
})
