import { readdir, readFile } from 'node:fs/promises'
import { createConnection } from 'mysql2/promise'
import type { Row } from './pool.js'

/**
 * Applies the numbered files of a folder that have not been applied, in order. MariaDB commits at each DDL, so a file holds
 * one statement that may be run again, and the log is written after it. A lock keeps two starting servers apart.
 *
 * @param only the migrations that are applied, where not all are
 * @throws where the database writes its log by statement: what a write stores would then not be what another server reads
 */
export async function migrate(url: string, folder: URL, only?: readonly string[]): Promise<string[]> {
  const connection = await createConnection({ uri: url, dateStrings: true, timezone: 'Z', charset: 'utf8mb4', connectTimeout: 10_000 })
  const applied: string[] = []
  try {
    const [[format]] = await connection.query<Row[]>('SELECT @@binlog_format AS format')
    if (format?.['format'] === 'STATEMENT')
      throw new Error('binlog_format=STATEMENT cannot be used; set binlog_format=ROW or MIXED for this database server and start again')
    const [[lock]] = await connection.query<Row[]>("SELECT GET_LOCK('bocado_migrate', 60) AS got")
    if (lock?.['got'] !== 1) throw new Error('another server is migrating this database; try again when it is done')
    await connection.query(
      'CREATE TABLE IF NOT EXISTS schema_migration (name VARCHAR(100) PRIMARY KEY, applied_at TIMESTAMP NOT NULL DEFAULT CURRENT_TIMESTAMP)',
    )
    const [rows] = await connection.query<Row[]>('SELECT name FROM schema_migration')
    const done = new Set(rows.map((row) => row['name'] as string))
    const files = (await readdir(folder)).filter((name) => name.endsWith('.sql')).sort()
    for (const name of files) {
      if (done.has(name) || (only && !only.includes(name))) continue
      await connection.query(await readFile(new URL(name, folder), 'utf8'))
      await connection.query('INSERT INTO schema_migration (name) VALUES (?)', [name])
      applied.push(name)
    }
    await connection.query("SELECT RELEASE_LOCK('bocado_migrate')")
  } finally {
    connection.destroy()
  }
  return applied
}
