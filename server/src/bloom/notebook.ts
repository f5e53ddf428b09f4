import type { bloomEvents, NotebookLine } from '@bocado/contract'
import { dayOrderOf, writtenDay, type DayOrder } from '@bocado/core'
import { indicators } from '@bocado/library'
import Papa from 'papaparse'
import { unmarked } from '../http/csv.js'

type Event = (typeof bloomEvents)[number]

/** Words by which people write down an event; the first that is found counts, longer ones first. */
const EVENT_WORDS: readonly [RegExp, Event][] = [
  [/\b(leaf[- ]?out|leafing|leaves out|first lea(f|ves))\b/, 'leaf-out'],
  [/\b(leaf[- ]?colou?r|colou?ring|autumn colou?r)\b/, 'leaf-colour'],
  [/\b(end( of bloom)?|over|faded|finished|done|past|petal fall|petals? (down|dropping|falling))\b/, 'end'],
  [/\b(full( bloom)?|peak|half open|half out)\b/, 'full-bloom'],
  [/\b(fruit|berries|ripe)\b/, 'fruit'],
  [/\b(buds?|bud swell|green tip|pink)\b/, 'bud'],
  [
    /\b(first[- ]open|first( flower| bloom)?( open)?|open(s|ed|ing)?|out|start(s|ed|ing)?|begin(s|ning)?( of bloom)?|began|bloom(s|ing|ed)?|flower(s|ing|ed)?|blossom(s|ing|ed)?)\b/,
    'first-open',
  ],
]
const NOT_YET = /\b(not yet|none yet|no(t)? bloom(ing)? yet|closed still|still closed)\b/

const plain = (text: string): string => text.toLowerCase().replace(/[^a-z]+/g, ' ')

/** Names by which a plant is known, the longest first: "common lilac" before "lilac". */
const names: [string, string][] = indicators
  .flatMap(({ id, name, scientificName }): [string, string][] => {
    const whole = plain(name).trim()
    const words = whole.split(' ')
    const genus = plain(scientificName).trim()
    return [
      [whole, id],
      [genus, id],
      [words.at(-1) ?? whole, id],
      [words[0] ?? whole, id],
      [plain(id).trim(), id],
    ]
  })
  .filter(
    ([name]) =>
      name.length > 3 &&
      !['common', 'first', 'black', 'star', 'eastern', 'silver', 'flowering', 'canada', 'king', 'bloom', 'tree'].includes(name),
  )
  .sort((a, b) => b[0].length - a[0].length)

/** Plants of a site's own, by the names that it gave them. */
type OwnNames = readonly { plantId: string; name: string }[]

function plantIn(text: string, own: OwnNames): { id: string; name: string } | undefined {
  const words = ` ${plain(text)} `
  const mine = own.find(({ name }) => words.includes(` ${plain(name).trim()} `))
  if (mine) return { id: mine.plantId, name: mine.name }
  const found = names.find(([name]) => words.includes(` ${name} `) || words.includes(` ${name}s `))
  return found && { id: found[1], name: found[0] }
}

/** Stands where the day was cut out of a line. */
const CUT = '\u0000'

/** Cells of a line that is separated by tab, semicolon or comma, without the one that held the day. */
function cellsOf(rest: string): string[] {
  const delimiter = ['\t', ';', ','].find((mark) => rest.includes(mark))
  if (!delimiter) return []
  const cells = (Papa.parse<string[]>(rest.trim(), { delimiter }).data[0] ?? []).map((cell) => unmarked(cell.trim()))
  return cells.filter((cell) => cell !== CUT).map((cell) => cell.replaceAll(CUT, '').trim())
}

const HEADER = /\b(date|day|plant|event|species)\b.*\b(date|day|plant|event|species)\b/i
const YEAR_HEADING = /^\W*(?:season|year|spring|bloom)?\W*((?:19|20)\d{2})\W*$/i
const MONTH = '(?:jan|feb|mar|apr|may|jun|jul|aug|sep|oct|nov|dec)[a-z]*\\.?'
const YEAR = '(,?\\s+\\d{4})?'
const TO = '\\s*(?:-|–|to|until)\\s*'
/** "3 to 6 May 2025" and "May 3-6, 2025" as two whole days. */
const SPANS: readonly [RegExp, string][] = [
  [new RegExp(`(?<![\\d-])(\\d{1,2})${TO}(\\d{1,2})\\s+(${MONTH})${YEAR}`, 'i'), '$1 $3$4 to $2 $3$4'],
  [new RegExp(`\\b(${MONTH})\\s+(\\d{1,2})${TO}(\\d{1,2})(?!\\d|\\s+${MONTH})${YEAR}`, 'i'), '$1 $2$4 to $1 $3$4'],
]

/** What lines above one say of its day: a year, or a whole day that stands alone. */
interface Heading {
  year?: number | undefined
  day?: string | undefined
}

/**
 * The lines of a notebook: a day, a plant and what was seen, in the words and the order that people use, under a year or a day where these
 * stand above; each line with what is wrong in it.
 *
 * @param order whether day or month comes first in dates of numbers only; null where nobody said, and the notebook's own dates then tell
 */
export function readNotebook(text: string, today: string, own: OwnNames = [], order: DayOrder | null = null): NotebookLine[] {
  const lines = text.split(/\r?\n/)
  const known = order ?? dayOrderOf(lines)
  let heading: Heading = {}
  return lines.flatMap((line, i): NotebookLine[] => {
    const written = line.trim()
    if (written === '' || (i === 0 && HEADER.test(written))) return []
    const year = YEAR_HEADING.exec(written)
    if (year) {
      heading = { year: Number(year[1]) }
      return []
    }
    const alone = writtenDay(written, known, heading.year)
    if (
      alone &&
      !alone.orElse &&
      written.replace(written.slice(alone.start, alone.end), '').replace(WEEKDAY, '').replace(/\W/g, '') === ''
    ) {
      heading = { ...heading, day: alone.day }
      return []
    }
    return [lineOf(written, i + 1, { today, own, order: known, heading })]
  })
}

const WEEKDAY = /\b(mon|tue|wed|thu|fri|sat|sun)[a-z]*\b/i

function lineOf(
  text: string,
  line: number,
  { today, own, order, heading }: { today: string; own: OwnNames; order: DayOrder | null; heading: Heading },
): NotebookLine {
  const spelt = SPANS.reduce((words, [span, whole]) => (span.test(words) ? words.replace(span, whole) : words), text)
  const first = writtenDay(spelt, order, heading.year) ?? (heading.day ? { day: heading.day, start: 0, end: 0 } : undefined)
  const behind = first ? spelt.slice(first.end) : ''
  // A range: "3 May 2025 to 6 May 2025", "2025-05-03/2025-05-06".
  const to = /^\s*(?:to|until|-|–|\/)\s*/i.exec(behind)
  const next = first && to ? writtenDay(behind.slice(to[0].length), order, heading.year) : undefined
  const second = next?.start === 0 ? next : undefined
  const end = first ? first.end + (second && to ? to[0].length + second.end : 0) : 0
  const rest = first ? spelt.slice(0, first.start) + CUT + spelt.slice(end).replace(/^\s*:/, '') : spelt
  const low = rest.toLowerCase()
  const plant = plantIn(rest, own)
  const notYet = NOT_YET.test(low)
  const event = EVENT_WORDS.find(([words]) => words.test(low.replace(NOT_YET, '')))?.[1] ?? (notYet ? 'first-open' : null)
  // Plant, event, place, note; who observed it is the person who takes it in.
  const [, , place = '', note = ''] = cellsOf(rest)
  const problem = !first
    ? 'names no day; write it as 2025-05-03 or 3 May 2025'
    : first.orElse
      ? `may be ${first.day} or ${first.orElse}; choose what comes first in its dates`
      : first.day > today || (second?.day ?? '') > today
        ? `lies in the future; today is ${today}`
        : second && second.day < first.day
          ? 'ends before it begins'
          : !plant
            ? 'names no bloom plant of the library, and none of your own'
            : !event
              ? 'does not say what was seen: bud, first open, full bloom, end, leaf-out, leaf colour, fruit, or not yet'
              : null
  return {
    line,
    text: text.slice(0, 200),
    plantId: plant?.id ?? null,
    event,
    seenFrom: first?.day ?? null,
    seenTo: second?.day ?? first?.day ?? null,
    orElse: first?.orElse ?? null,
    notYet,
    place: place.slice(0, 200),
    note: note.slice(0, 500),
    problem,
    known: false,
  }
}
