import { readdirSync, readFileSync } from 'node:fs'
import { expect, test } from 'vitest'
import { drawn } from './Drawing.js'

interface Entry {
  about: { identity: { characters: { here: { drawing: string }; others: { drawing: string } }[] } }
}

test('everything that the library shows to tell organisms apart is drawn, and nothing is drawn that it never shows', () => {
  const shown = new Set<string>()
  for (const folder of ['organisms', 'pathogens', 'weeds']) {
    const place = new URL(`../../../../library/${folder}/`, import.meta.url)
    for (const file of readdirSync(place)) {
      const { about } = JSON.parse(readFileSync(new URL(file, place), 'utf8')) as Entry
      for (const { here, others } of about.identity.characters) {
        shown.add(here.drawing)
        shown.add(others.drawing)
        expect(here.drawing, file).not.toBe(others.drawing)
      }
    }
  }
  expect([...shown].filter((name) => !drawn.includes(name))).toEqual([])
  expect(drawn.filter((name) => !shown.has(name))).toEqual([])
})
