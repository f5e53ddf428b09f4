import type { bloomEvents, NotebookLine } from '@bocado/contract'
import { indicators } from '@bocado/library'
import Papa from 'papaparse'
import { unmarked } from '../http/csv.js'

type Event = (typeof bloomEvents)[number]

/** Words by which people write down an event; the first that is found counts, longer ones first. */
const EVENT_WORDS: readonly [RegExp, Event][] = [
  [/\b(leaf[- ]?out|leafing|leaves out|first lea(f|ves))\b/, 'leaf-out'],
  [/\b(leaf[- ]?colou?r|colou?ring|autumn colou?r)\b/, 'leaf-colour'],
  [/\b(end( of bloom)?|over|faded|finished|petal fall)\b/, 'end'],
  [/\b(full( bloom)?|peak|half open)\b/, 'full-bloom'],
  [/\b(fruit|berries|ripe)\b/, 'fruit'],
  [/\b(buds?|bud swell|green tip|pink)\b/, 'bud'],
  [/\b(first[- ]open|first( flower| bloom)?( open)?|opens?|open|begin(s|ning)?( of bloom)?|bloom(s|ing)?|flower(s|ing)?)\b/, 'first-open'],
]
const NOT_YET = /\b(not yet|none yet|no(t)? bloom(ing)? yet|closed still|still closed)\b/

const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec']
const two = (n: number): string => String(n).padStart(2, '0')

/** A day as `2025-05-03`, `3 May 2025` or `May 3, 2025`; what follows it is handed back. */
function dayAt(text: string): { day: string; rest: string } | undefined {
  const iso = /^\s*(\d{4})-(\d{2})-(\d{2})/.exec(text)
  const dayFirst = /^\s*(\d{1,2})\.?\s+([a-z]{3})[a-z]*\.?,?\s+(\d{4})/i.exec(text)
  const monthFirst = /^\s*([a-z]{3})[a-z]*\.?\s+(\d{1,2}),?\s+(\d{4})/i.exec(text)
  const [year, month, date, length] = iso
    ? [Number(iso[1]), Number(iso[2]), Number(iso[3]), iso[0].length]
    : dayFirst
      ? [Number(dayFirst[3]), MONTHS.indexOf((dayFirst[2] ?? '').toLowerCase()) + 1, Number(dayFirst[1]), dayFirst[0].length]
      : monthFirst
        ? [Number(monthFirst[3]), MONTHS.indexOf((monthFirst[1] ?? '').toLowerCase()) + 1, Number(monthFirst[2]), monthFirst[0].length]
        : [0, 0, 0, 0]
  if (length === 0 || month < 1) return undefined
  const day = `${year}-${two(month)}-${two(date)}`
  const parsed = new Date(`${day}T00:00:00Z`)
  if (Number.isNaN(parsed.getTime()) || parsed.toISOString().slice(0, 10) !== day) return undefined
  return { day, rest: text.slice(length) }
}

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

/** Cells of a line that is separated by tab, semicolon or comma; what stood before the first is the day. */
function cellsOf(rest: string): string[] {
  const delimiter = ['\t', ';', ','].find((mark) => rest.includes(mark))
  if (!delimiter) return []
  const cells = (Papa.parse<string[]>(rest.trim(), { delimiter }).data[0] ?? []).map((cell) => unmarked(cell.trim()))
  return cells[0] === '' ? cells.slice(1) : cells
}

const HEADER = /\b(date|plant|event|species)\b.*\b(date|plant|event|species)\b/i

/** The lines of a notebook: a day, a plant and what was seen, in the words that people use; each line with what is wrong in it. */
export function readNotebook(text: string, today: string, own: OwnNames = []): NotebookLine[] {
  return text.split(/\r?\n/).flatMap((line, i): NotebookLine[] => {
    const written = line.trim()
    if (written === '' || (i === 0 && HEADER.test(written))) return []
    return [lineOf(written, i + 1, today, own)]
  })
}

function lineOf(text: string, line: number, today: string, own: OwnNames): NotebookLine {
  const first = dayAt(text)
  // A range: "3 May 2025 to 6 May 2025", "2025-05-03/2025-05-06".
  const to = first && /^\s*(?:to|until|-|–|\/)\s*/i.exec(first.rest)
  const second = first && to ? dayAt(first.rest.slice(to[0].length)) : undefined
  const rest = second?.rest ?? first?.rest ?? text
  const low = rest.toLowerCase()
  const plant = plantIn(rest, own)
  const notYet = NOT_YET.test(low)
  const event = EVENT_WORDS.find(([words]) => words.test(low.replace(NOT_YET, '')))?.[1] ?? (notYet ? 'first-open' : null)
  // Plant, event, place, note; who observed it is the person who takes it in.
  const [, , place = '', note = ''] = cellsOf(rest)
  const problem = !first
    ? 'begins with no day; write it as 2025-05-03 or 3 May 2025'
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
    notYet,
    place: place.slice(0, 200),
    note: note.slice(0, 500),
    problem,
    known: false,
  }
}
