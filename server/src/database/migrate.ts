import { readdir, readFile } from 'node:fs/promises'
import type { Database, Row } from './pool.js'

/**
 * Applies the numbered files of a folder that have not been applied, in order. MariaDB commits at each DDL, so a file holds
 * one statement that may be run again, and the log is written after it. A lock keeps two starting servers apart.
 */
export async function migrate(database: Database, folder: URL): Promise<string[]> {
  const connection = await database.getConnection()
  const applied: string[] = []
  try {
    const [[lock]] = await connection.query<Row[]>("SELECT GET_LOCK('bocado_migrate', 60) AS got")
    if (lock?.['got'] !== 1) throw new Error('another server is migrating this database; try again when it is done')
    await connection.query(
      'CREATE TABLE IF NOT EXISTS schema_migration (name VARCHAR(100) PRIMARY KEY, applied_at TIMESTAMP NOT NULL DEFAULT CURRENT_TIMESTAMP)',
    )
    const [rows] = await connection.query<Row[]>('SELECT name FROM schema_migration')
    const done = new Set(rows.map((row) => row['name'] as string))
    const files = (await readdir(folder)).filter((name) => name.endsWith('.sql')).sort()
    for (const name of files) {
      if (done.has(name)) continue
      await connection.query(await readFile(new URL(name, folder), 'utf8'))
      await connection.query('INSERT INTO schema_migration (name) VALUES (?)', [name])
      applied.push(name)
    }
    await connection.query("SELECT RELEASE_LOCK('bocado_migrate')")
  } finally {
    connection.release()
  }
  return applied
}
