import { dayOrderOf, writtenDay, type DayOrder } from '@bocado/core/time'

export interface PastedCheck {
  day: string
  caught: number
}

interface Pasted {
  checks: PastedCheck[]
  /** The first line that is no check. */
  wrong?: { line: number; text: string }
  /** A day that can be read with day or month first, as long as nobody said which. */
  unclear?: string
}

/**
 * Checks of a trap written one a line, as `2026-05-14 12`, `5/14/2026, 12` or `14 May 2026: 12`; the first line that is none is named with its
 * number.
 *
 * @param chosen what comes first in days of numbers only; null where nobody said, and the lines tell themselves or it is asked
 */
export function checksOf(text: string, chosen: DayOrder | null = null): Pasted {
  const lines = text.split(/\r?\n/)
  const order = dayOrderOf(lines) ?? chosen
  const checks: PastedCheck[] = []
  let unclear: string | undefined
  for (const [i, line] of lines.entries()) {
    const written = line.trim()
    if (written === '') continue
    const day = writtenDay(written, order)
    const caught = day && /^[\s,;:=]+(\d+)$/.exec(written.slice(day.end))
    if (!day || day.start > 0 || !caught) return { checks: [], wrong: { line: i + 1, text: written.slice(0, 60) } }
    if (day.orElse) unclear ??= written.slice(day.start, day.end)
    checks.push({ day: day.day, caught: Number(caught[1]) })
  }
  return unclear === undefined ? { checks } : { checks: [], unclear }
}
