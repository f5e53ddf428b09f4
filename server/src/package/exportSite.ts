import { createHash } from 'node:crypto'
import { createWriteStream } from 'node:fs'
import { finished } from 'node:stream/promises'
import { Zip, ZipDeflate } from 'fflate'
import type { Connection } from 'mysql2/promise'
import type { Row } from '../database/index.js'
import { roomIn } from '../database/roomIn.js'
import { cellOf, csvLine, NOTHING } from './cells.js'
import { PEOPLE, siteTables, type Column, type SiteTable } from './tables.js'

/** Rows that are fetched at a time. */
const AT_ONCE = 5000
const CHUNK_BYTES = 256 * 1024

/** What a package says of itself: a Frictionless Data Package with what a restore needs to know. */
export interface PackageDescription {
  profile: 'data-package'
  name: string
  title: string
  created: string
  /** The site that it holds, and the migrations of the database that it came from. */
  bocado: { format: 1; siteId: string; migrations: string[] }
  resources: {
    name: string
    path: string
    profile: 'tabular-data-resource'
    encoding: 'utf-8'
    rows: number
    /** SHA-256 of the file, so that a package that was damaged is refused. */
    hash: string
    schema: { fields: { name: string; type: 'string' | 'number'; format?: 'base64' }[]; primaryKey: string[]; missingValues: string[] }
  }[]
}

/**
 * Writes everything of a site into one file: a zip with a CSV a table and `datapackage.json`. Everything in it is of one moment.
 *
 * @param connection to the database, in whose snapshot the site is read
 * @returns rows by table
 */
export async function exportSite(connection: Connection, siteId: string, path: string, now: Date): Promise<Record<string, number>> {
  await connection.query("SET SESSION time_zone = '+00:00'")
  await connection.query('SET SESSION TRANSACTION ISOLATION LEVEL REPEATABLE READ')
  await connection.query('START TRANSACTION WITH CONSISTENT SNAPSHOT, READ ONLY')
  try {
    const [[site]] = await connection.query<Row[]>('SELECT name FROM site WHERE id = ?', [siteId])
    if (!site) throw new Error(`there is no site ${siteId}`)
    const [applied] = await connection.query<Row[]>('SELECT name FROM schema_migration ORDER BY name')
    const file = createWriteStream(path)
    const zip = new Zip((error, data) => {
      if (error) file.destroy(error)
      else file.write(data)
    })
    const resources: PackageDescription['resources'] = []
    const people = new Set<string>()
    const tables = await siteTables(connection)
    for (const table of tables.filter(({ name }) => name !== PEOPLE)) {
      resources.push(await addTable(connection, zip, table, table.ofSite.replaceAll(':site', connection.escape(siteId)), [], people))
      await roomIn(file)
    }
    const persons = tables.find(({ name }) => name === PEOPLE)
    if (persons) resources.push(await addTable(connection, zip, persons, 'id IN (?)', [[...people, '']], people))
    const description: PackageDescription = {
      profile: 'data-package',
      name: `bocado-${siteId}`,
      title: site['name'] as string,
      created: now.toISOString(),
      bocado: { format: 1, siteId, migrations: applied.map((row) => row['name'] as string) },
      resources,
    }
    const head = new ZipDeflate('datapackage.json')
    zip.add(head)
    head.push(Buffer.from(JSON.stringify(description, null, 1)), true)
    zip.end()
    file.end()
    await finished(file)
    return Object.fromEntries(resources.map(({ name, rows }) => [name, rows]))
  } finally {
    await connection.query('ROLLBACK')
  }
}

const isKept = ({ isGenerated }: Column): boolean => !isGenerated

/** Adds the rows of a table to the zip, in the order of their keys. */
async function addTable(
  connection: Connection,
  zip: Zip,
  table: SiteTable,
  condition: string,
  values: unknown[],
  people: Set<string>,
): Promise<PackageDescription['resources'][number]> {
  const columns = table.columns.filter(isKept)
  const path = `data/${table.name}.csv`
  const entry = new ZipDeflate(path, { level: 6 })
  zip.add(entry)
  const hash = createHash('sha256')
  let pending = csvLine(columns.map(({ name }) => name))
  const push = (last: boolean): void => {
    const bytes = Buffer.from(pending)
    hash.update(bytes)
    entry.push(bytes, last)
    pending = ''
  }
  const toPeople = table.references.filter(({ table: to }) => to === PEOPLE).map(({ column }) => column)
  // A key that the database counts itself gives the order and is not kept.
  const names = [...new Set([...columns.map(({ name }) => name), ...table.primaryKey])].map((name) => `\`${name}\``).join(', ')
  const order = table.primaryKey.map((name) => `\`${name}\``)
  let rows = 0
  let after: unknown[] | undefined
  for (;;) {
    // From key to key, so that a table of millions of rows is never sorted as a whole, nor held.
    const next = after ? `AND (${order.join(', ')}) > (${order.map(() => '?').join(', ')})` : ''
    const [found] = await connection.query<Row[]>(
      `SELECT ${names} FROM \`${table.name}\` WHERE ${condition} ${next} ORDER BY ${order.join(', ')} LIMIT ${AT_ONCE}`,
      [...values, ...(after ?? [])],
    )
    for (const row of found) {
      for (const column of toPeople) if (row[column]) people.add(row[column] as string)
      pending += csvLine(columns.map(({ name }) => cellOf(row[name])))
      if (pending.length > CHUNK_BYTES) push(false)
    }
    rows += found.length
    const last = found.at(-1)
    if (found.length < AT_ONCE || !last) break
    after = table.primaryKey.map((name) => last[name] as unknown)
  }
  push(true)
  return {
    name: table.name,
    path,
    profile: 'tabular-data-resource',
    encoding: 'utf-8',
    rows,
    hash: hash.digest('hex'),
    schema: {
      fields: columns.map(({ name, kind }) => ({
        name,
        type: kind === 'number' ? ('number' as const) : ('string' as const),
        ...(kind === 'blob' ? { format: 'base64' as const } : {}),
      })),
      primaryKey: table.primaryKey,
      missingValues: [NOTHING],
    },
  }
}
