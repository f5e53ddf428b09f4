export interface PastedCheck {
  day: string
  caught: number
}

const LINE = /^(\d{4}-\d{2}-\d{2})[\s,;:]+(\d+)$/

/** Checks of a trap written one a line, as `2026-05-14 12`; the first line that is none is named with its number. */
export function checksOf(text: string): { checks: PastedCheck[]; wrong?: { line: number; text: string } } {
  const checks: PastedCheck[] = []
  for (const [i, line] of text.split(/\r?\n/).entries()) {
    const written = line.trim()
    if (written === '') continue
    const read = LINE.exec(written)
    if (!read) return { checks: [], wrong: { line: i + 1, text: written.slice(0, 60) } }
    checks.push({ day: read[1] as string, caught: Number(read[2]) })
  }
  return { checks }
}
