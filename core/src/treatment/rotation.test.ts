import fc from 'fast-check'
import { expect, test } from 'vitest'
import { EXEMPT_FROM_ROTATION, rotationFault, rotationGroup, type RotationUse } from './rotation.js'

const use = (id: string, day: number, change: Partial<RotationUse> = {}): RotationUse => ({
  id,
  day,
  season: '2026-01-01',
  organism: 'codling-moth',
  disease: false,
  generation: 'first',
  group: '5',
  ...change,
})
const fault = (one: RotationUse, others: RotationUse[]) => {
  const found = rotationFault(one, others)
  return found && `${found.kind}${found.with === null ? '' : ` ${found.with}`}`
}

test('against insects a group is used within a generation, and another against the next', () => {
  const second = use('b', 180, { generation: 'second' })
  expect(fault(use('a2', 140), [use('a', 130)])).toBeNull()
  expect(fault(second, [use('a', 130)])).toBe('next-generation a')
  expect(fault(second, [use('a', 130, { group: '28' })])).toBeNull()
  // What is planned before it breaks the rotation as well.
  expect(fault(use('a', 130), [second])).toBe('next-generation b')
  expect(fault(second, [use('a', 130, { organism: 'oriental-fruit-moth' })])).toBeNull()
  expect(fault(use('c', 220, { generation: 'third' }), [use('a', 130), use('b', 180, { generation: 'second', group: '28' })])).toBeNull()
  expect(fault(use('b', 180, { generation: null }), [use('a', 130)])).toBeNull()
  expect(fault(use('a', 130), [use('z', -180, { season: '2025-01-01', generation: 'second' })])).toBe('over-winter z')
})

test('against diseases no single-site group is used twice in a row, nor on more than half of the sprays', () => {
  const spray = (id: string, day: number, group: string, organism = 'apple-scab') =>
    use(id, day, { disease: true, group, organism, generation: null })
  expect(fault(spray('b', 110, '3'), [spray('a', 100, '3')])).toBe('in-a-row a')
  expect(fault(spray('b', 110, '3'), [spray('a', 100, '3', 'powdery-mildew-vine')])).toBe('in-a-row a')
  expect(fault(spray('b', 110, '3'), [spray('a', 100, '')])).toBeNull()
  expect(fault(spray('c', 120, '3'), [spray('a', 100, '3'), spray('b', 110, '')])).toBe('share')
  expect(fault(spray('d', 130, '3'), [spray('a', 100, '3'), spray('b', 110, ''), spray('c', 120, '11')])).toBeNull()
  expect(fault(spray('b', 110, ''), [spray('a', 100, '')])).toBeNull()
})

test('what is exempt is in no group, whatever its label prints; what nobody named is held to its method', () => {
  expect(EXEMPT_FROM_ROTATION.map((method) => rotationGroup({ actionGroup: 'M', methods: [method] })).join('')).toBe('')
  expect(rotationGroup({ actionGroup: 'm', methods: ['sulphur', 'single-site-fungicide'] })).toBe('M')
  expect(rotationGroup({ actionGroup: '', methods: ['spinosyn', 'pyrethrin'] })).toBe('')
})

test('whoever is at fault with another, the other is at fault with them, where only the two are there', () => {
  const some = fc.record({
    day: fc.integer({ min: 0, max: 300 }),
    generation: fc.constantFrom('first', 'second', null),
    group: fc.constantFrom('5', '28', ''),
  })
  fc.assert(
    fc.property(some, some, (a, b) => {
      const [one, two] = [use('a', a.day, a), use('b', b.day, b)]
      expect(rotationFault(one, [two])?.kind).toBe(rotationFault(two, [one])?.kind)
    }),
  )
})
