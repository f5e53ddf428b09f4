import { describe, expect, test } from 'vitest'
import { words } from '../messages/en/words.js'
import { splitByTerms, TERMS, type TermId } from './terms.js'

const FORMS: Partial<Record<TermId, string>> = {
  'degree-days': 'degree-days|°C·d',
  biofix: 'biofix',
  're-entry': 're-entry|re-entry interval',
}
const formsOf = (id: TermId): string => FORMS[id] ?? `no form of ${id}`
const marked = (text: string): string =>
  splitByTerms(text, formsOf)
    .map(({ text: part, term }) => (term ? `[${part}]` : part))
    .join('')

describe('a text with terms of the field', () => {
  test('is cut where each stands first, and is the text when put together again', () => {
    const text = 'From the biofix 139 °C·d; the biofix is yours.'
    expect(marked(text)).toBe('From the [biofix] 139 [°C·d]; the biofix is yours.')
    expect(
      splitByTerms(text, formsOf)
        .map((part) => part.text)
        .join(''),
    ).toBe(text)
  })
  test('has the longer form where both fit, and none inside another word', () => {
    expect(marked('The re-entry interval is 4 h')).toBe('The [re-entry interval] is 4 h')
    expect(marked('biofixation')).toBe('biofixation')
    expect(marked('')).toBe('')
  })
})

test('each term has its sentence', () => {
  for (const id of TERMS) expect(Object.keys(words), id).toContain(`word.${id}`)
})
