import { expect, test } from 'vitest'
import { schools, type School, type SeasonSources } from '../band/season.js'
import { planAll } from './season.js'

const NOTHING: SeasonSources = {
  rows: [],
  blooms: [],
  products: [],
  methods: [],
  organisms: [],
  blocks: [],
  rules: [],
  flowers: [],
  harvests: [],
  before: [],
  tasks: [],
  season: { start: '2026-01-01', days: 365, todayIndex: 162 },
  usesNone: false,
  ranks: {},
  hoursPerWeek: null,
}

test('every school is told, the wanted one first, and nothing after the end', async () => {
  const told: School[] = []
  const steps: number[] = []
  await planAll(
    NOTHING,
    'bloom',
    async ({ school }) => {
      await new Promise((resolve) => setTimeout(resolve, 2))
      told.push(school)
    },
    (done) => steps.push(done),
  )
  expect(told).toEqual(['bloom', ...schools.filter((school) => school !== 'bloom')])
  expect(steps.at(-1)).toBe(1)
})
