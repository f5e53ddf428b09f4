import { createHash } from 'node:crypto'
import { readFile } from 'node:fs/promises'
import { Readable } from 'node:stream'
import { unzip } from 'fflate'
import type { Connection } from 'mysql2/promise'
import Papa from 'papaparse'
import { ALL_SITES } from '@bocado/contract'
import type { Row } from '../database/index.js'
import { valueOf } from './cells.js'
import type { PackageDescription } from './exportSite.js'
import { SHARED, siteTables, type SiteTable } from './tables.js'

/** Rows that are stored at a time. */
const AT_ONCE = 1000
const PIECE = 1 << 20

/** Why a package is not restored; nothing of it was. */
export class PackageRefused extends Error {}

const unpacked = (bytes: Uint8Array): Promise<Record<string, Uint8Array>> =>
  new Promise((resolve, reject) =>
    unzip(bytes, (error, files) =>
      error ? reject(new PackageRefused(`the file is no zip, or it is damaged: ${error.message}`)) : resolve(files),
    ),
  )

/** What a restore has stored: rows by table. */
export interface Restored {
  siteId: string
  title: string
  rows: Record<string, number>
}

async function opened(path: string): Promise<{ files: Record<string, Uint8Array>; description: PackageDescription }> {
  const files = await unpacked(await readFile(path))
  const described = files['datapackage.json']
  if (!described) throw new PackageRefused('there is no datapackage.json in the file')
  const description = JSON.parse(Buffer.from(described).toString()) as PackageDescription
  const about = description.bocado as PackageDescription['bocado'] | undefined
  if (about?.format !== 1) throw new PackageRefused('the file is no package of a site, or a newer Bocado made it')
  return { files, description }
}

/** What a package says of itself. */
export const readDescription = async (path: string): Promise<PackageDescription> => (await opened(path)).description

/**
 * Restores a site from its package, in one transaction: all of it, or nothing. A site that is there already is not touched.
 *
 * @returns the site and rows by table
 * @throws PackageRefused with the reason where the package is damaged, from a newer Bocado, or its site is here already
 */
export async function importSite(connection: Connection, path: string): Promise<Restored> {
  const { files, description } = await opened(path)
  const about = description.bocado
  const tables = await siteTables(connection)
  await requireKnown(connection, description, tables)
  for (const resource of description.resources) {
    const file = files[resource.path]
    if (!file || createHash('sha256').update(file).digest('hex') !== resource.hash)
      throw new PackageRefused(`${resource.path} is missing or damaged`)
  }
  await connection.query("SET SESSION time_zone = '+00:00'")
  await connection.query('START TRANSACTION')
  try {
    const [[there]] = await connection.query<Row[]>('SELECT name FROM site WHERE id = ? FOR UPDATE', [about.siteId])
    if (there) throw new PackageRefused(`${there['name'] as string} is here already; restore it into a database where it is not`)
    const rows: Record<string, number> = {}
    for (const table of tables) {
      const resource = description.resources.find(({ name }) => name === table.name)
      if (resource) rows[table.name] = await storeRows(connection, table, Buffer.from(files[resource.path] as Uint8Array).toString())
      if (resource && rows[table.name] !== resource.rows)
        throw new PackageRefused(`${resource.path} holds ${rows[table.name]} rows and should hold ${resource.rows}`)
    }
    // Whoever looks sees it, and what follows from it is derived.
    await connection.query(
      "INSERT INTO site_version (site_id, aspect) VALUES (?, 'site'), (?, 'site') ON DUPLICATE KEY UPDATE version = version + 1",
      [about.siteId, ALL_SITES],
    )
    await connection.query(
      "INSERT INTO work (kind, subject, not_before) VALUES ('derive', ?, NOW(3)) ON DUPLICATE KEY UPDATE version = version + 1, attempts = 0",
      [about.siteId],
    )
    await connection.query('COMMIT')
    return { siteId: about.siteId, title: description.title, rows }
  } catch (error) {
    await connection.query('ROLLBACK')
    throw error
  }
}

/** A package is laid into the tables that it came from, or into later ones that hold all of it. */
async function requireKnown(
  connection: Connection,
  { bocado, resources }: PackageDescription,
  tables: readonly SiteTable[],
): Promise<void> {
  const [applied] = await connection.query<Row[]>('SELECT name FROM schema_migration')
  const known = new Set(applied.map((row) => row['name'] as string))
  const newer = bocado.migrations.filter((name) => !known.has(name))
  if (newer.length > 0) throw new PackageRefused(`a newer Bocado made this package (${newer.at(-1)}); update this one first`)
  for (const { name, schema } of resources) {
    const table = tables.find((t) => t.name === name)
    const missing = schema.fields.find((field) => !table?.columns.some((column) => column.name === field.name))
    if (!table || missing) throw new PackageRefused(`${missing ? `column ${missing.name} of ` : ''}table ${name} is not known here`)
  }
}

/** A long text piece by piece, so that its rows are never held all at once. */
function* pieces(text: string): Generator<string> {
  for (let i = 0; i < text.length; i += PIECE) yield text.slice(i, i + PIECE)
}

async function storeRows(connection: Connection, table: SiteTable, csv: string): Promise<number> {
  let names: string[] | undefined
  let kinds: ('blob' | 'number' | 'text')[] = []
  let rows: unknown[][] = []
  let stored = 0
  const store = async (): Promise<void> => {
    const fresh = SHARED.has(table.name) ? await missingRows(connection, table.name, names ?? [], rows) : rows
    if (fresh.length > 0)
      await connection.query(`INSERT INTO \`${table.name}\` (${names?.map((name) => `\`${name}\``).join(', ')}) VALUES ?`, [fresh])
    stored += rows.length
    rows = []
  }
  // Rows that name others of their own table are held, and come after those.
  const within = table.references.find(({ table: to }) => to === table.name)
  const lines = Readable.from(pieces(csv)).pipe(Papa.parse(Papa.NODE_STREAM_INPUT, { skipEmptyLines: true }))
  for await (const cells of lines as AsyncIterable<string[]>) {
    if (!names) {
      names = cells
      kinds = names.map((name) => table.columns.find((column) => column.name === name)?.kind ?? 'text')
      continue
    }
    rows.push(cells.map((cell, c) => valueOf(cell, kinds[c] ?? 'text')))
    if (rows.length >= AT_ONCE && !within) await store()
  }
  if (within) rows = parentsFirst(rows, (names ?? []).indexOf(within.to), (names ?? []).indexOf(within.column))
  await store()
  return stored
}

/** Rows whose id is not there yet. */
async function missingRows(connection: Connection, table: string, names: readonly string[], rows: unknown[][]): Promise<unknown[][]> {
  const id = names.indexOf('id')
  const [there] = await connection.query<Row[]>(`SELECT id FROM \`${table}\` WHERE id IN (?)`, [[...rows.map((row) => row[id]), '']])
  const known = new Set(there.map((row) => row['id'] as string))
  return rows.filter((row) => !known.has(row[id] as string))
}

/** Rows of a tree, each after the one that it lies under. */
function parentsFirst(rows: readonly unknown[][], id: number, parent: number): unknown[][] {
  const sorted: unknown[][] = []
  const placed = new Set<unknown>([null])
  let left = rows
  while (left.length > 0) {
    const next = left.filter((row) => placed.has(row[parent] ?? null))
    if (next.length === 0) throw new PackageRefused('a place lies in one that is not in the package')
    for (const row of next) placed.add(row[id])
    sorted.push(...next)
    left = left.filter((row) => !next.includes(row))
  }
  return sorted
}
