import fc from 'fast-check'
import { expect, test } from 'vitest'
import { bloomLanes, nameSpan, type Stem } from './bloomLanes.js'

const stems = fc
  .uniqueArray(fc.record({ x: fc.integer({ min: 0, max: 900 }), letters: fc.integer({ min: 5, max: 22 }) }), {
    maxLength: 24,
    selector: ({ x }) => x,
  })
  .map((all) => all.map(({ x, letters }, i): Stem => ({ id: `plant-${i}`, name: 'a'.repeat(letters), x, away: Math.abs(x - 450) })))

test('no name stands over another, or over the stem of another', () => {
  fc.assert(
    fc.property(stems, (all) => {
      const lanes = bloomLanes(all)
      const named = all.filter(({ id }) => lanes.has(id))
      for (const one of named)
        for (const other of all) {
          if (one.id === other.id) continue
          const [a, b] = [nameSpan(one), nameSpan(other)]
          if (lanes.get(one.id) === lanes.get(other.id)) expect(a[1] < b[0] || b[1] < a[0], `${one.x} and ${other.x}`).toBe(true)
          // Stems reach from the axis up to their names: all pass the lower lane.
          if (lanes.get(one.id) === 1) expect(other.x < a[0] || other.x > a[1], `the name at ${one.x}, the stem at ${other.x}`).toBe(true)
        }
    }),
  )
})

test('where room is short the one nearest to today has its name', () => {
  const [near, far]: Stem[] = [
    { id: 'linden', name: 'Linden', x: 100, away: 2 },
    { id: 'elderberry', name: 'Elderberry', x: 104, away: 20 },
  ]
  expect(bloomLanes([far!, near!]).has('linden')).toBe(true)
})

test('a lone bloom takes the lower lane; one that would run into its name the upper', () => {
  const lanes = bloomLanes([
    { id: 'linden', name: 'Linden', x: 100, away: 1 },
    { id: 'chicory', name: 'Chicory', x: 300, away: 5 },
  ])
  expect([...lanes]).toEqual([
    ['linden', 1],
    ['chicory', 1],
  ])
})
