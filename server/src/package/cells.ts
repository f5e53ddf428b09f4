/** What stands for no value in a package: an empty cell is an empty text. */
export const NOTHING = '\\N'

/** A value of the database as a cell. */
export function cellOf(value: unknown): string {
  if (value === null || value === undefined) return NOTHING
  const text = Buffer.isBuffer(value)
    ? value.toString('base64')
    : typeof value === 'object'
      ? JSON.stringify(value)
      : String(value as string)
  // A text that looks like nothing is marked as text.
  return /^\\+N$/.test(text) ? `\\${text}` : text
}

/** A cell as a value for the database; the inverse of `cellOf`. */
export function valueOf(cell: string, kind: 'blob' | 'number' | 'text'): string | Buffer | null {
  if (cell === NOTHING) return null
  if (kind === 'blob') return Buffer.from(cell, 'base64')
  return /^\\\\+N$/.test(cell) ? cell.slice(1) : cell
}

const quoted = (cell: string): string => (/[",\r\n]/.test(cell) ? `"${cell.replaceAll('"', '""')}"` : cell)

/** Cells as a line of CSV (RFC 4180). */
export const csvLine = (cells: readonly string[]): string => `${cells.map(quoted).join(',')}\r\n`
