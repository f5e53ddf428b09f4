import { expect, test } from 'vitest'
import { planBegins, planOfTyped } from './typedPlan.js'

const MEASURED = { k: 0.4, taylor: null, crowding: null, counts: 7 }

test('a plan of one’s own goes by how animals sit together here as soon as that is measured', () => {
  const typed = planBegins(null, 24)
  expect(planOfTyped(typed, MEASURED)).toBeNull()
  const lines = planOfTyped({ ...typed, kind: 'sequential' }, MEASURED)
  expect(lines).toMatchObject({ kind: 'sequential', clumping: MEASURED, mostUnits: 48 })
  expect(planOfTyped({ ...typed, kind: 'sequential' }, null)).toMatchObject({ clumping: null })
  // What was stored begins the form again.
  expect(planOfTyped(planBegins(lines, 24), MEASURED)).toEqual(lines)
})
