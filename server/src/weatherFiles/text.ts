import Papa from 'papaparse'
import { HttpProblem } from '../http/problems.js'

const KNOWN_BINARIES: readonly [signature: string, what: string][] = [
  ['504b0304', 'a spreadsheet or zip file'],
  ['d0cf11e0', 'an old spreadsheet file'],
  ['25504446', 'a PDF'],
  ['89504e47', 'a picture'],
  ['ffd8ff', 'a picture'],
  ['1f8b', 'a compressed file'],
]

/**
 * The text of a weather file. UTF-8 with or without mark, UTF-16 by its mark, otherwise Latin-1.
 * @throws HttpProblem 422 for an empty or a binary file, saying what to do
 */
export function decodeText(bytes: Uint8Array): string {
  if (bytes.length === 0) throw new HttpProblem(422, 'The file is empty. Choose the file that the logger or its program exported.')
  const start = Buffer.from(bytes.subarray(0, 8)).toString('hex')
  const known = KNOWN_BINARIES.find(([signature]) => start.startsWith(signature))
  if (known) throw new HttpProblem(422, `The file is not a text file but ${known[1]}. Export the readings as CSV and choose that file.`)
  if (start.startsWith('fffe')) return new TextDecoder('utf-16le').decode(bytes)
  if (start.startsWith('feff')) return new TextDecoder('utf-16be').decode(bytes)
  const sample = bytes.subarray(0, 4096)
  const controls = sample.reduce((n, byte) => n + (byte < 9 || (byte > 13 && byte < 32) ? 1 : 0), 0)
  if (controls > sample.length / 100)
    throw new HttpProblem(422, 'The file is not a text file. Export the readings as CSV and choose that file.')
  // Plain letters take half the memory of others.
  if (bytes.every((byte) => byte < 0x80)) {
    const text = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength).toString('latin1')
    if (text.trim() === '') throw new HttpProblem(422, 'The file holds nothing but blank lines.')
    return text
  }
  try {
    const text = new TextDecoder('utf-8', { fatal: true }).decode(bytes)
    if (text.trim() === '') throw new HttpProblem(422, 'The file holds nothing but blank lines.')
    return text
  } catch (error) {
    if (error instanceof HttpProblem) throw error
    return new TextDecoder('windows-1252').decode(bytes)
  }
}

/** No logger writes longer lines, or more of them in one file. */
const LONGEST_LINE = 20_000
const MOST_LINES = 5_000_000

/**
 * Refuses a text whose lines are none: it would be taken apart into more cells than any memory holds.
 * @throws HttpProblem 422 naming the line
 */
export function requireLines(text: string): void {
  let lines = 0
  const end = text.includes('\n') ? '\n' : '\r'
  for (let from = 0; from <= text.length; lines++) {
    const found = text.indexOf(end, from)
    const until = found < 0 ? text.length : found
    if (until - from > LONGEST_LINE)
      throw new HttpProblem(
        422,
        `Line ${lines + 1} is ${until - from} characters long, so this is no list of readings. Choose a file with one line per hour or day.`,
      )
    if (lines > MOST_LINES) throw new HttpProblem(422, `The file has more than ${MOST_LINES} lines. Send it in parts, a few years each.`)
    from = until + 1
  }
}

/** Cells of each line. Blank lines stay, so that line numbers are those of the file. */
export function splitCells(text: string, separator: string): string[][] {
  // Quotes behind a blank are quotes all the same: `"a", "b"`.
  const trimmed = text.includes(`${separator} "`) ? text.replaceAll(`${separator} "`, `${separator}"`) : text
  const { data, errors } = Papa.parse<string[]>(trimmed, { delimiter: separator, skipEmptyLines: false })
  if (!errors.some(({ type }) => type === 'Quotes')) return data
  // A quote that is not closed would swallow all lines behind it: then each line stands for itself, and its quotes are letters.
  return text.split(/\r\n|\n|\r/).map((line) => {
    const alone = Papa.parse<string[]>(line, { delimiter: separator })
    return alone.errors.some(({ type }) => type === 'Quotes') ? line.split(separator) : (alone.data[0] ?? [''])
  })
}

/** About this many characters are split into cells at a time. */
const PART = 200_000

/** Hands over the cells of each line with its number, counted from 1, without holding more than a part of the text as cells. */
export function eachLine(
  text: string,
  separator: string,
  take: (cells: string[], line: number) => void,
  onProgress: (share: number) => void = () => undefined,
): void {
  let line = 0
  for (let from = 0; from < text.length;) {
    const until = partEnd(text, from)
    for (const cells of splitCells(text.slice(from, until), separator)) take(cells, ++line)
    from = until + 1
    onProgress(Math.min(1, from / text.length))
  }
}

/** A quote that is not closed within this much is a letter, and no quote. */
const LONGEST_QUOTED = 5 * PART

/** Where a part ends: at the end of a line that is not inside quotes. */
function partEnd(text: string, from: number): number {
  let quotes = 0
  for (let end = from, counted = from; ;) {
    end = text.indexOf('\n', Math.max(end + 1, from + PART))
    if (end < 0) return text.length
    quotes += text.slice(counted, end).split('"').length - 1
    if (quotes % 2 === 0 || end - from > LONGEST_QUOTED) return end
    counted = end
  }
}
