import type { CountedPlace } from '@bocado/contract'

/** Counts of one sample unit by class. */
export type Unit = Record<string, number>

/**
 * Reads a page of paper: a sample unit a line, its counts in the order of the classes; missing ones are 0. An empty line between lines begins
 * another place; without one nobody kept the places.
 */
export function readUnits(
  text: string,
  classes: readonly { id: string }[],
): { units: Unit[]; places: CountedPlace[] | null; wrong?: number } {
  const units: Unit[] = []
  const begins = [0]
  for (const [i, line] of text.split('\n').entries()) {
    const words = line
      .trim()
      .split(/[\s,;]+/)
      .filter(Boolean)
    if (words.length === 0) {
      if (units.length > (begins.at(-1) ?? 0)) begins.push(units.length)
      continue
    }
    if (words.length > classes.length || words.some((word) => !/^\d+$/.test(word))) return { units, places: null, wrong: i + 1 }
    units.push(Object.fromEntries(words.map((word, c) => [classes[c]?.id ?? '', Number(word)])))
  }
  const places = begins.filter((from) => from < units.length)
  return { units, places: places.length > 1 ? places.map((from) => ({ from, edge: null })) : null }
}

/** The same, the other way round. */
export function writeUnits(units: readonly Unit[], classes: readonly { id: string }[], places: readonly CountedPlace[] | null): string {
  const begins = new Set(places?.map(({ from }) => from))
  return units.map((unit, i) => (i > 0 && begins.has(i) ? '\n' : '') + classes.map(({ id }) => unit[id] ?? 0).join(' ')).join('\n')
}
