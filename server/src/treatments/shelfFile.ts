import { labelFields, productInput, type ParsedInputOf, type Product, type treatments } from '@bocado/contract'
import Papa from 'papaparse'
import { unmarked } from '../http/csv.js'
import type { Write } from '../database/index.js'
import { fieldsProblem, HttpProblem, toProblem, type FieldMessage } from '../http/problems.js'
import { addProduct } from './shelf.js'

/** Most products of one file. */
const MOST_ROWS = 200

/** A product with only what its label says: what somebody guessed stays behind, and is guessed anew where it is taken in. */
function labelOnly(product: Product): Record<string, unknown> {
  const all = Object.fromEntries(labelFields.map((field) => [field, product[field]]))
  return { ...all, ...Object.fromEntries(product.assumed.map((field) => [field, null])) }
}

/** The shelf as JSON: what can be taken in again elsewhere. */
export const shelfAsJson = (products: readonly Product[]): string => `${JSON.stringify({ products: products.map(labelOnly) }, null, 2)}\n`

/** A cell of a label: lists and tables as JSON, everything else as it is. */
const cellOf = (value: unknown): unknown => (value === null ? '' : typeof value === 'object' ? JSON.stringify(value) : value)

/** The shelf as a table, one product a row. */
export const shelfTable = (products: readonly Product[]): { fields: string[]; data: unknown[][] } => ({
  fields: [...labelFields],
  data: products.map((product) => {
    const label = labelOnly(product)
    return labelFields.map((field) => cellOf(label[field]))
  }),
})

/** A cell as its field takes it: a number, a list, true or false, or words; undefined where it is empty. */
function valueOf(cell: string): unknown {
  const text = unmarked(cell).trim()
  if (text === '') return undefined
  if (/^(true|false|-?\d+(\.\d+)?(e[+-]?\d+)?|\[[^]*\])$/i.test(text))
    try {
      return JSON.parse(text.toLowerCase() === 'true' || text.toLowerCase() === 'false' ? text.toLowerCase() : text) as unknown
    } catch {
      return text
    }
  return text
}

/** Fields in which digits are words. */
const WORDS: readonly string[] = ['name', 'active', 'protection', 'registration', 'actionGroup', 'cropStages', 'mixing']

function rowsOfCsv(text: string): Record<string, unknown>[] {
  const { data, errors, meta } = Papa.parse<Record<string, string>>(text, { header: true, skipEmptyLines: 'greedy' })
  const [error] = errors
  if (error) throw new HttpProblem(422, `row ${(error.row ?? 0) + 2}: ${error.message}`)
  const unknown = (meta.fields ?? []).find((field) => !(labelFields as string[]).includes(field))
  if (unknown !== undefined)
    throw new HttpProblem(422, `the column ${unknown} is none of a label: name columns as ${labelFields.slice(0, 4).join(', ')}`)
  return data.map((row) =>
    Object.fromEntries(
      Object.entries(row).map(([field, cell]) => [field, WORDS.includes(field) ? unmarked(cell).trim() || undefined : valueOf(cell)]),
    ),
  )
}

function rowsOfJson(text: string): unknown[] {
  let read: unknown
  try {
    read = JSON.parse(text)
  } catch (error) {
    throw new HttpProblem(422, `this is no JSON: ${error instanceof Error ? error.message : String(error)}`)
  }
  const products = Array.isArray(read) ? read : (read as { products?: unknown } | null)?.products
  if (!Array.isArray(products)) throw new HttpProblem(422, 'the file holds no list of products')
  return products
}

/** What is wrong in a row, named by it wherever it is read. */
function inRow(i: number, field: string, message: string): FieldMessage {
  const path = `row ${i + 1}, ${field}`
  return { path, message: `${path}: ${message}` }
}

/** Puts all products of a file on the shelf, or none: what is wrong is told row by row. */
export async function importShelf(w: Write, { format, text }: ParsedInputOf<typeof treatments.importShelf>): Promise<Product[]> {
  const rows = format === 'csv' ? rowsOfCsv(text) : rowsOfJson(text)
  if (rows.length === 0) throw new HttpProblem(422, 'the file names no product')
  if (rows.length > MOST_ROWS) throw new HttpProblem(422, `at most ${MOST_ROWS} products at once, and the file names ${rows.length}`)
  const faults: FieldMessage[] = []
  const inputs = rows.flatMap((row, i) => {
    const { success, data, error } = productInput.safeParse(row)
    if (!success) faults.push(...error.issues.map(({ path, message }) => inRow(i, path.join('.'), message)))
    return success ? [data] : []
  })
  if (faults.length > 0) throw fieldsProblem(faults)
  const added: Product[] = []
  for (const [i, input] of inputs.entries())
    try {
      added.push(await addProduct(w, input))
    } catch (error) {
      const { problem } = toProblem(error)
      if (problem.status !== 422) throw error
      throw fieldsProblem((problem.fields ?? []).map(({ path, message }) => inRow(i, path, message)))
    }
  return added
}
