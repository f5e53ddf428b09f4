import { randomUUID } from 'node:crypto'
import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { createConnection, type Connection } from 'mysql2/promise'
import type { Row } from '../database/index.js'
import { migrate } from '../database/migrate.js'
import { exportSite } from './exportSite.js'
import { importSite, readDescription, type Restored } from './importSite.js'

const MIGRATIONS = new URL('../../migrations/', import.meta.url)

const open = (url: string): Promise<Connection> => createConnection({ uri: url, dateStrings: true, timezone: 'Z', charset: 'utf8mb4' })

/**
 * Restores a package into the database behind `url`, which is migrated. One that an older Bocado made goes through a database of its own
 * first: it is laid into the tables of its day, and those are migrated as any old database would be.
 *
 * @throws PackageRefused with the reason; nothing is then stored
 */
export async function restorePackage(url: string, path: string): Promise<Restored> {
  const connection = await open(url)
  try {
    const { bocado } = await readDescription(path)
    const [applied] = await connection.query<Row[]>('SELECT name FROM schema_migration')
    const isOlder = applied.some((row) => !bocado.migrations.includes(row['name'] as string))
    return isOlder ? await throughItsDay(connection, url, path, bocado.migrations) : await importSite(connection, path)
  } finally {
    await connection.end()
  }
}

async function throughItsDay(connection: Connection, url: string, path: string, migrations: readonly string[]): Promise<Restored> {
  const name = `bocado_restore_${randomUUID().replaceAll('-', '')}`
  const there = new URL(url)
  there.pathname = `/${name}`
  const folder = await mkdtemp(join(tmpdir(), 'bocado-restore-'))
  await connection.query(`CREATE DATABASE ${name} CHARACTER SET utf8mb4`)
  let old: Connection | undefined
  try {
    await migrate(there.href, MIGRATIONS, migrations)
    old = await open(there.href)
    const { siteId } = await importSite(old, path)
    await migrate(there.href, MIGRATIONS)
    const renewed = join(folder, 'site.zip')
    await exportSite(old, siteId, renewed, new Date())
    return await importSite(connection, renewed)
  } finally {
    await old?.end()
    await connection.query(`DROP DATABASE ${name}`)
    await rm(folder, { recursive: true })
  }
}
