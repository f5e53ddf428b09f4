import type { LibraryBrief } from '@bocado/contract'

/** A line of the library with the words by which it is found, made once. */
export interface Findable {
  brief: LibraryBrief
  name: string
  beside: string
  words: string
}

const plain = (text: string): string =>
  text
    .toLowerCase()
    .normalize('NFKD')
    .replace(/[\u0300-\u036f]/g, '')

export const findable = (briefs: readonly LibraryBrief[]): Findable[] =>
  briefs.map((brief) => ({ brief, name: plain(brief.name), beside: plain(brief.beside), words: plain(brief.words) }))

function weightOf({ name, beside, words }: Findable, word: string): number {
  if (name.startsWith(word)) return 8
  if (name.includes(` ${word}`)) return 6
  if (name.includes(word)) return 4
  if (beside.includes(word)) return 3
  return words.includes(word) ? 1 : 0
}

/** Lines in which every word that was typed is found, names first; all of them in their order where nothing was typed. */
export function found(lines: readonly Findable[], typed: string): LibraryBrief[] {
  const asked = plain(typed).split(/\s+/).filter(Boolean)
  if (asked.length === 0) return lines.map(({ brief }) => brief)
  return lines
    .map((line) => {
      const weights = asked.map((word) => weightOf(line, word))
      return { line, weight: weights.includes(0) ? 0 : weights.reduce((sum, weight) => sum + weight, 0) }
    })
    .filter(({ weight }) => weight > 0)
    .sort((a, b) => b.weight - a.weight || a.line.name.localeCompare(b.line.name))
    .map(({ line }) => line.brief)
}
