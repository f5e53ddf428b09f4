import { expect, test } from 'vitest'
import { figureAt, monthsOf, put, putFigure, typedMonths, type Entry } from './ownEntry.js'

const entry: Entry = {
  name: 'Codling moth',
  generations: [
    {
      id: 'first',
      events: [{ id: 'hatch', heat: { value: 139, unit: '°C·d', confidence: 'established', source: { kind: 'paper' } }, spread: 80 }],
    },
  ],
}

test('a change by path leaves everything beside it as it was, and the old entry too', () => {
  const changed = put(entry, 'generations.0.events.0.id', 'eclosion')
  expect(changed).toEqual({
    ...entry,
    generations: [
      {
        id: 'first',
        events: [{ ...(entry as never as { generations: { events: object[] }[] }).generations[0]!.events[0], id: 'eclosion' }],
      },
    ],
  })
  expect(entry.name).toBe('Codling moth')
  expect(put(entry, 'about.family', 'Tortricidae')).toMatchObject({ about: { family: 'Tortricidae' } })
})

test('a figure that is changed no longer claims the paper that the old one had', () => {
  const path = 'generations.0.events.0.heat'
  const changed = putFigure(entry, path, 150)
  expect(figureAt(changed, path)).toBe(150)
  expect(changed).toMatchObject({
    generations: [{ events: [{ heat: { confidence: 'approximate', region: 'this site', source: { kind: 'none' } } }] }],
  })
  expect(putFigure(entry, path, 139)).toBe(entry)
  expect(figureAt(putFigure(entry, 'generations.0.events.0.spread', 70), 'generations.0.events.0.spread')).toBe(70)
})

test.each([
  ['5-9', [5, 6, 7, 8, 9]],
  ['11-2, 6', [11, 12, 1, 2, 6]],
  ['6', [6]],
])('months are typed as %s and come back the same', (text, months) => {
  expect(monthsOf(text)).toEqual(months)
  expect(typedMonths(months)).toBe(text)
})

test.each(['', '13', '5-', 'May', '0-3'])('"%s" is no months', (text) => expect(monthsOf(text)).toBeUndefined())
