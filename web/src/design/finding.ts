/** Something that is found by what is typed: by its name first, then by what stands beside it, then by further words. */
export interface Findable<T> {
  of: T
  name: string
  beside: string
  words: string
}

const plain = (text: string): string =>
  text
    .toLowerCase()
    .normalize('NFKD')
    .replace(/[\u0300-\u036f]/g, '')

/** Things with the words by which they are found, made once. */
export const findable = <T extends { name: string; beside: string; words: string }>(all: readonly T[]): Findable<T>[] =>
  all.map((of) => ({ of, name: plain(of.name), beside: plain(of.beside), words: plain(of.words) }))

function weightOf({ name, beside, words }: Findable<unknown>, word: string): number {
  if (name.startsWith(word)) return 8
  if (name.includes(` ${word}`)) return 6
  if (name.includes(word)) return 4
  if (beside.includes(word)) return 3
  return words.includes(word) ? 1 : 0
}

/** Things in which every word that was typed is found, names first, otherwise in their order. */
export function found<T>(lines: readonly Findable<T>[], typed: string): T[] {
  const asked = plain(typed).split(/\s+/).filter(Boolean)
  if (asked.length === 0) return lines.map(({ of }) => of)
  return lines
    .map((line) => {
      const weights = asked.map((word) => weightOf(line, word))
      return { line, weight: weights.includes(0) ? 0 : weights.reduce((sum, weight) => sum + weight, 0) }
    })
    .filter(({ weight }) => weight > 0)
    .sort((a, b) => b.weight - a.weight)
    .map(({ line }) => line.of)
}
