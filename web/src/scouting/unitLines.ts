/** Counts of one sample unit by class. */
export type Unit = Record<string, number>

/** Reads a page of paper: a sample unit a line, its counts in the order of the classes; missing ones are 0. */
export function readUnits(text: string, classes: readonly { id: string }[]): { units: Unit[]; wrong?: number } {
  const units: Unit[] = []
  for (const [i, line] of text.split('\n').entries()) {
    const words = line
      .trim()
      .split(/[\s,;]+/)
      .filter(Boolean)
    if (words.length === 0) continue
    if (words.length > classes.length || words.some((word) => !/^\d+$/.test(word))) return { units, wrong: i + 1 }
    units.push(Object.fromEntries(words.map((word, c) => [classes[c]?.id ?? '', Number(word)])))
  }
  return { units }
}

/** The same, the other way round. */
export function writeUnits(units: readonly Unit[], classes: readonly { id: string }[]): string {
  return units.map((unit) => classes.map(({ id }) => unit[id] ?? 0).join(' ')).join('\n')
}
