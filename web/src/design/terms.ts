import type { words } from '../messages/en/words.js'

type WordId = keyof typeof words
export type TermId = WordId extends `word.${infer Id}` ? Id : never

/** The field's terms that are explained. */
export const TERMS = [
  'biofix',
  'degree-days',
  'lower',
  'upper',
  'threshold',
  'check-area',
  'generation',
  're-entry',
  'harvest',
  'sine',
  'filled',
  'members',
  'coverage',
  'established',
  'approximate',
  'normals',
  'wet-hours',
  'dew-point',
  'deficit',
  'indicator',
  'chill',
  'henderson-tilton',
  'abbott',
  'interval',
  'sample-unit',
  'residue',
  'mode',
  'protectant',
  'curative',
  'offset',
  'disruption',
  'overwinters',
  'scouting',
] as const satisfies readonly TermId[]

export interface Part {
  text: string
  term: TermId | null
}

const escaped = (text: string): string => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')

/**
 * A text cut where a term of the field stands for the first time; put together again it is the text.
 *
 * @param formsOf The forms in which a term is written, divided by bars.
 */
export function splitByTerms(text: string, formsOf: (id: TermId) => string): Part[] {
  const byForm = new Map(
    TERMS.flatMap((id) =>
      formsOf(id)
        .split('|')
        .map((form) => [form.toLowerCase(), id] as const),
    ),
  )
  // The longest first: "lower threshold" is not a threshold that is lower.
  const forms = [...byForm.keys()].sort((a, b) => b.length - a.length).map(escaped)
  const pattern = new RegExp(`(?<![\\p{L}\\d-])(?:${forms.join('|')})(?![\\p{L}\\d-])`, 'giu')
  const parts: Part[] = []
  const told = new Set<TermId>()
  let from = 0
  for (const match of text.matchAll(pattern)) {
    const term = byForm.get(match[0].toLowerCase())
    if (!term || told.has(term)) continue
    told.add(term)
    if (match.index > from) parts.push({ text: text.slice(from, match.index), term: null })
    parts.push({ text: match[0], term })
    from = match.index + match[0].length
  }
  if (from < text.length) parts.push({ text: text.slice(from), term: null })
  return parts
}
