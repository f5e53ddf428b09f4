import { expect, test } from 'vitest'
import { weedYears, WAYS, type WeedQuestion } from './weeds.js'

const question: WeedQuestion = {
  stand: {
    form: 'annual',
    counts: [400, 300, 260].map((plants, i) => ({ year: 2023 + i, plants })),
    areaM2: 80,
    bankYears: { shortest: 2, longest: 3 },
    arrivals: 0,
  },
  passesSoFar: 1,
  found: 0.85,
  leftLying: 0,
  own: null,
}

test('every way stands beside the others, with what one missed season of it costs; nothing is missed where nothing is done', () => {
  const ways = weedYears(question, 80)
  expect(ways.map(({ way }) => way)).toEqual(WAYS)
  const of = (way: string) => ways.find((one) => one.way === way)!
  expect(of('none').missed).toBeNull()
  expect(of('two').missed!.taken).toBeGreaterThanOrEqual(of('two').ahead.taken)
  // Whoever leaves what is young has it next year.
  expect(of('seeders').ahead.plants[1]!.p50).toBeGreaterThan(of('two').ahead.plants[1]!.p50)
  expect(weedYears(question, 80)).toEqual(ways)
})

test('an own programme stands beside them, and is what it says of each year', () => {
  const ways = weedYears({ ...question, own: [3, 3, 3] }, 80)
  const of = (way: string) => ways.find((one) => one.way === way)!
  expect(ways.map(({ way }) => way)).toEqual([...WAYS, 'own'])
  expect(of('own').ahead).toEqual(of('three').ahead)
  expect(of('own').missed!.taken).toBe(of('three').missed!.taken)
})
