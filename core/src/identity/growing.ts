/** Words of how something was planted, which are hosts of other things. */
const NO_PLANT: ReadonlySet<string> = new Set(['seedling', 'stock', 'rootstock', 'and', 'with', 'old', 'young'])

/** Words of a plant or place, in small letters and the singular, as far as English endings tell. */
const words = (text: string): string[] =>
  text
    .toLowerCase()
    .split(/[^a-z]+/)
    .map((word) =>
      word
        .replace(/ies$/, 'y')
        .replace(/(ch|sh|x|ss|o)es$/, '$1')
        .replace(/([^s])s$/, '$1'),
    )
    .filter((word) => word.length > 2 && !NO_PLANT.has(word))

/**
 * Whether what a user calls the place or crop is among those named, whichever way round and in which number. Of nothing said everything may
 * be meant.
 *
 * @example livesIn('Old apples', ['apple', 'pear']) // true
 */
export function livesIn(place: string, named: readonly string[]): boolean {
  const asked = words(place)
  if (asked.length === 0) return true
  const known = new Set(named.flatMap(words))
  return asked.some((word) => known.has(word)) || named.some((name) => name.startsWith('many'))
}
