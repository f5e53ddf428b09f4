import Papa from 'papaparse'

/** A cell that a spreadsheet would take for a formula: it begins with its marks and is no plain number. */
const FORMULA = /^(?!-?\d+(\.\d+)?(e[+-]?\d+)?$)[=+\-@\t\r]/i

/** A table as CSV. A text that a spreadsheet would run as a formula is marked as text with an apostrophe. */
export const csvOf = (table: { fields: string[]; data: unknown[][] } | Readonly<Record<string, unknown>>[]): string =>
  Papa.unparse(table as Papa.UnparseObject<unknown[]>, { escapeFormulae: FORMULA })

/** A text cell as it was before `csvOf` marked it. */
export const unmarked = (cell: string): string => (/^'[=+\-@\t\r]/.test(cell) ? cell.slice(1) : cell)
