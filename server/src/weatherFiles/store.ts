import type { ImportResult, WeatherMapping } from '@bocado/contract'
import { instantOf, jsonOf, type Queryable, type Row, type Write } from '../database/index.js'
import { HttpProblem } from '../http/problems.js'
import type { Rejection } from './readings.js'

const SELECT =
  'SELECT i.*, p.name AS person_name, u.name AS undone_name FROM weather_import i JOIN person p ON p.id = i.changed_by LEFT JOIN person u ON u.id = i.undone_by'

type Counts = Omit<ImportResult, 'id' | 'stationId' | 'fileName' | 'importedAt' | 'personName' | 'undone'>

const importOf = (row: Row): ImportResult => ({
  id: row['id'] as string,
  stationId: row['station_id'] as string,
  fileName: row['file_name'] as string,
  importedAt: instantOf(row['created_at'] as string),
  personName: row['person_name'] as string,
  undone: row['undone_at'] ? { at: instantOf(row['undone_at'] as string), by: row['undone_name'] as string } : null,
  // Of imports from before nothing was left out of a line, and nothing was typed over them.
  ...{ unread: 0, typedHold: 0, ...jsonOf<Omit<Counts, 'unread' | 'typedHold'> & Partial<Counts>>(row['result']) },
})

/** An import that was stored; undefined where there is none. An id that was used for another file or station is refused. */
export async function findImport(
  db: Queryable,
  siteId: string,
  importId: string,
  of?: { hash: string; stationId: string },
): Promise<ImportResult | undefined> {
  const [[row]] = await db.query<Row[]>(`${SELECT} WHERE i.id = ? AND i.site_id = ?`, [importId, siteId])
  if (!row) return undefined
  const other = of && (row['station_id'] !== of.stationId || (row['file_hash'] !== null && row['file_hash'] !== of.hash))
  if (other) throw otherFile()
  return importOf(row)
}

export async function listImports(db: Queryable, siteId: string): Promise<ImportResult[]> {
  const [rows] = await db.query<Row[]>(`${SELECT} WHERE i.site_id = ? ORDER BY i.created_at DESC, i.id`, [siteId])
  return rows.map(importOf)
}

const otherFile = (): HttpProblem => new HttpProblem(422, 'This import id stands for another file. Begin the import anew.')

/** Whether an import that stands there now is of the same file; read as it is, not as this transaction saw it when it began. */
async function isOf(w: Write, task: { importId: string; stationId: string; hash: string }): Promise<boolean> {
  const [[row]] = await w.tx.query<Row[]>(
    'SELECT station_id, file_hash FROM weather_import WHERE id = ? AND site_id = ? LOCK IN SHARE MODE',
    [task.importId, w.siteId],
  )
  return row !== undefined && row['station_id'] === task.stationId && row['file_hash'] === task.hash
}

export async function insertImport(
  w: Write,
  task: { importId: string; stationId: string; fileName: string; mapping: WeatherMapping; rejections: readonly Rejection[]; hash: string },
): Promise<void> {
  try {
    // A first try that still stores holds the id: nobody waits for it with a connection in hand.
    await w.tx.query(
      "SET STATEMENT innodb_lock_wait_timeout = 0 FOR INSERT INTO weather_import (id, site_id, station_id, file_name, mapping, result, changed_by, file_hash) VALUES (?, ?, ?, ?, ?, '{}', ?, ?)",
      [task.importId, w.siteId, task.stationId, task.fileName, JSON.stringify(task.mapping), w.personId, task.hash],
    )
  } catch (error) {
    const { code } = error as { code?: string }
    // Stored between what this transaction sees and what it writes: the row is there, though it was not when it was looked for.
    if (code === 'ER_LOCK_WAIT_TIMEOUT' || (code === 'ER_DUP_ENTRY' && (await isOf(w, task))))
      throw new HttpProblem(409, 'This file is still being stored by its first try. Ask again in a moment.', { retryAfter: 2 })
    if (code === 'ER_DUP_ENTRY') throw otherFile()
    throw error
  }
  for (let i = 0; i < task.rejections.length; i += 2000) {
    const rows = task.rejections.slice(i, i + 2000).map(({ line, reason, content }) => [task.importId, line, w.siteId, reason, content])
    await w.tx.query('INSERT INTO weather_import_rejection (import_id, line, site_id, reason, content) VALUES ?', [rows])
  }
}

export async function listRejections(db: Queryable, siteId: string, importId: string): Promise<Rejection[]> {
  const [rows] = await db.query<Row[]>(
    'SELECT line, reason, content FROM weather_import_rejection WHERE import_id = ? AND site_id = ? ORDER BY line',
    [importId, siteId],
  )
  return rows.map((row) => ({ line: row['line'] as number, reason: row['reason'] as string, content: row['content'] as string }))
}
