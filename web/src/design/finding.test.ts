import type { LibraryBrief } from '@bocado/contract'
import { expect, test } from 'vitest'
import { findable, found } from './finding.js'

const brief = (name: string, beside = '', words = ''): LibraryBrief => ({
  id: name,
  what: 'animal',
  name,
  beside,
  words,
  silhouette: null,
  monthsOnly: false,
  own: null,
  watches: [],
})
const lines = findable([
  brief('Apple maggot', 'Rhagoletis pomonella', 'apple hawthorn'),
  brief('Codling moth', 'Cydia pomonella', 'apple pear'),
  brief('Woolly apple aphid', 'Eriosoma lanigerum', 'apple'),
])
const names = (typed: string): string[] => found(lines, typed).map(({ name }) => name)

test('names come before hosts, and every word has to be found', () => {
  expect(names('apple')).toEqual(['Apple maggot', 'Woolly apple aphid', 'Codling moth'])
  expect(names('POMONELLA moth')).toEqual(['Codling moth'])
  expect(names('apple walrus')).toEqual([])
  expect(names('')).toHaveLength(3)
})

test('answers within 30 ms of a keystroke among 200 entries', () => {
  const many = findable(Array.from({ length: 200 }, (_, i) => brief(`Organism ${i}`, `Genus species${i}`, 'apple pear corn '.repeat(12))))
  // The fastest of many: what it costs, not what else the machine was doing.
  const taken = Array.from({ length: 20 }, () => {
    const began = performance.now()
    found(many, 'species corn 1')
    return performance.now() - began
  })
  expect(Math.min(...taken)).toBeLessThan(30)
})
