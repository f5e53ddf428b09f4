import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { harmsHelpers, livingConditions, orderBy, soilOffset, supplyState, usableUntil, type Supply } from './index.js'

const NEMATODES = { medium: 'soil', floor: 10, ceiling: 30 } as const
const days = (...celsius: number[]) => celsius

describe('an order of something living', () => {
  const of = { plannedOn: 200, orderDays: 5, keepsDays: 7 }
  const none: Supply = { orderedOn: null, arrivedOn: null, alive: null }

  test('goes out so that it is there a day before, where it keeps', () => {
    expect(orderBy(of)).toBe(194)
    expect(orderBy({ ...of, keepsDays: 0 })).toBe(195)
    expect(orderBy({ ...of, keepsDays: null })).toBe(195)
    expect(orderBy({ ...of, orderDays: null })).toBeNull()
  })

  test.each<[string, Partial<Supply>, number, string]>([
    ['is to be ordered', {}, 194, 'order'],
    ['can still come on the day itself', {}, 195, 'order'],
    ['comes no more in time', {}, 196, 'late'],
    ['is on its way', { orderedOn: 194 }, 197, 'ordered'],
    ['should be there', { orderedOn: 194 }, 199, 'due'],
    ['is there', { orderedOn: 194, arrivedOn: 199 }, 206, 'there'],
    ['was kept for too long', { orderedOn: 194, arrivedOn: 199 }, 207, 'stale'],
    ['came dead', { orderedOn: 194, arrivedOn: 199, alive: 0.4 }, 199, 'dead'],
    ['came alive', { arrivedOn: 199, alive: 0.9 }, 199, 'there'],
  ])('%s', (_, supply, today, state) => {
    expect(supplyState(of, { ...none, ...supply }, today)).toBe(state)
  })

  test('nothing is said of what nobody knows', () => {
    expect(supplyState({ ...of, orderDays: null }, none, 190)).toBe('unknown')
    expect(supplyState({ ...of, orderDays: null }, { ...none, orderedOn: 190 }, 300)).toBe('ordered')
    expect(usableUntil({ ...none, arrivedOn: 199 }, null)).toBeNull()
    expect(supplyState({ ...of, keepsDays: null }, { ...none, arrivedOn: 199 }, 400)).toBe('there')
  })
})

describe('what it lives in', () => {
  test('is warm enough on the day and in four of five ways after it', () => {
    const warm = days(12, 11, 10)
    const cold = days(12, 9, 11)
    expect(livingConditions(NEMATODES, [warm, warm, warm, warm, cold])).toMatchObject({ warmEnough: 0.8, verdict: 'fits', onTheDay: 12 })
    expect(livingConditions(NEMATODES, [warm, warm, warm, cold, cold])).toMatchObject({ verdict: 'too-cold' })
    expect(livingConditions(NEMATODES, [days(9, 15), days(9, 15)])).toMatchObject({ verdict: 'too-cold', onTheDay: 9 })
    expect(livingConditions(NEMATODES, [days(25, 31), days(25, 31)])).toMatchObject({ verdict: 'too-hot', coolEnough: 0 })
    expect(() => livingConditions(NEMATODES, [])).toThrow('ways')
  })

  test('the peaks of air count against the ceiling, its means against the floor', () => {
    const mites = { medium: 'air', floor: 15, ceiling: 32 } as const
    expect(livingConditions(mites, [days(20, 18)], [days(30, 29)]).verdict).toBe('fits')
    expect(livingConditions(mites, [days(20, 18)], [days(30, 34)]).verdict).toBe('too-hot')
  })

  test('what is warmer everywhere is never too cold where the cooler was not', () => {
    fc.assert(
      fc.property(
        fc.array(fc.array(fc.integer({ min: 0, max: 25 }), { minLength: 2, maxLength: 5 }), { minLength: 1, maxLength: 8 }),
        (ways) => {
          const warmer = ways.map((way) => way.map((celsius) => celsius + 2))
          if (livingConditions(NEMATODES, ways).verdict !== 'too-cold')
            expect(livingConditions(NEMATODES, warmer).verdict).not.toBe('too-cold')
        },
      ),
    )
  })

  test('a pot is told from the field by two readings, not by one, and not by those of another season', () => {
    const field = (day: number) => (day === 99 ? undefined : 12)
    const reading = (day: number, celsius: number) => ({ day, celsius })
    expect(soilOffset([reading(100, 16)], field, 102)).toBeNull()
    expect(soilOffset([reading(100, 16), reading(101, 18)], field, 102)).toEqual({ celsius: 5, readings: 2 })
    expect(soilOffset([reading(99, 16), reading(101, 18)], field, 102)).toBeNull()
    expect(soilOffset([reading(40, 16), reading(101, 18)], field, 102)).toBeNull()
  })
})

test('what was put on harms helpers by its kind, unknown sprays for weeks, and what is no chemical not at all', () => {
  const put = (methods: string[], chemical = true, day = 100) => ({ name: methods.join() || 'unknown', day, methods, chemical })
  const left = (day: number, ...before: ReturnType<typeof put>[]) => harmsHelpers(before, day).map(({ name, until }) => [name, until])
  expect(left(105, put(['spinosyn']), put(['bt']))).toEqual([['spinosyn', 114]])
  expect(left(115, put(['spinosyn']))).toEqual([])
  expect(left(120, put([]), put(['fallen-fruit'], false))).toEqual([['unknown', 128]])
  expect(left(105, put(['insecticidal-soap', 'sulphur']))).toEqual([['insecticidal-soap,sulphur', 110]])
  // What is planned after it does not harm it yet.
  expect(left(95, put(['spinosyn']))).toEqual([])
})
