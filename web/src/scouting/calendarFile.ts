import { civilDate, dayNumber } from '@bocado/core/time'

/** Something on a day, as a calendar takes it. */
export interface DayEntry {
  id: string
  /** Civil day. */
  day: string
  title: string
  place: string
  text: string
}

const escaped = (text: string): string => text.replaceAll(/[\\;,]/g, (mark) => `\\${mark}`).replaceAll('\n', '\\n')

/** Lines of at most 75 octets, gone on with after a space. */
function folded(line: string): string {
  const parts: string[] = []
  let now = ''
  let octets = 0
  for (const letter of line) {
    const size = new TextEncoder().encode(letter).length
    if (octets + size > 74) {
      parts.push(now)
      now = ''
      octets = 0
    }
    now += letter
    octets += size
  }
  return [...parts, now].join('\r\n ')
}

const plain = (day: string): string => day.replaceAll('-', '')
const after = (day: string): string => civilDate(dayNumber(day) + 1)

/**
 * A calendar file (iCalendar, RFC 5545) with an entry for each day on which something is due; each keeps its id, so that a newer file puts right
 * what an older one said.
 *
 * @param now when the file is made
 */
export function calendarFile(entries: readonly DayEntry[], name: string, now: Date): string {
  const stamp = now.toISOString().replaceAll(/[-:]|\.\d+/g, '')
  const lines = [
    'BEGIN:VCALENDAR',
    'VERSION:2.0',
    'PRODID:-//Bocado//Walk//EN',
    `X-WR-CALNAME:${escaped(name)}`,
    ...entries.flatMap(({ id, day, title, place, text }) => [
      'BEGIN:VEVENT',
      `UID:${id.replaceAll(' ', '-')}@bocado.local`,
      `DTSTAMP:${stamp}`,
      `DTSTART;VALUE=DATE:${plain(day)}`,
      `DTEND;VALUE=DATE:${plain(after(day))}`,
      `SUMMARY:${escaped(title)}`,
      `LOCATION:${escaped(place)}`,
      `DESCRIPTION:${escaped(text)}`,
      'TRANSP:TRANSPARENT',
      'END:VEVENT',
    ]),
    'END:VCALENDAR',
  ]
  return `${lines.map(folded).join('\r\n')}\r\n`
}
