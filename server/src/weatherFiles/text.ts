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
  try {
    const text = new TextDecoder('utf-8', { fatal: true }).decode(bytes)
    if (text.trim() === '') throw new HttpProblem(422, 'The file holds nothing but blank lines.')
    return text
  } catch (error) {
    if (error instanceof HttpProblem) throw error
    return new TextDecoder('windows-1252').decode(bytes)
  }
}

/** Cells of each line. Blank lines stay, so that line numbers are those of the file. */
export function splitCells(text: string, separator: string): string[][] {
  return Papa.parse<string[]>(text, { delimiter: separator, skipEmptyLines: false }).data
}

/** Hands over the cells of each line with its number, counted from 1, without holding more than a part of the text as cells. */
export function eachLine(
  text: string,
  separator: string,
  take: (cells: string[], line: number) => void,
  onProgress: (share: number) => void = () => undefined,
): void {
  let line = 0
  // The chunks of a text come one after the other before parse returns.
  Papa.parse<string[]>(text, {
    delimiter: separator,
    skipEmptyLines: false,
    chunkSize: 2_000_000,
    chunk: ({ data, meta }: Papa.ParseResult<string[]>) => {
      for (const cells of data) take(cells, ++line)
      onProgress(text.length === 0 ? 1 : Math.min(1, meta.cursor / text.length))
    },
  } as Papa.ParseConfig<string[]>)
}
