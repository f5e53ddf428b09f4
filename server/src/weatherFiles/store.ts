import type { ImportResult, WeatherMapping } from '@bocado/contract'
import { instantOf, jsonOf, type Queryable, type Row, type Write } from '../database/index.js'
import type { Rejection } from './readings.js'

const SELECT = 'SELECT i.*, p.name AS person_name FROM weather_import i JOIN person p ON p.id = i.changed_by'

type Counts = Omit<ImportResult, 'id' | 'stationId' | 'fileName' | 'importedAt' | 'personName'>

const importOf = (row: Row): ImportResult => ({
  id: row['id'] as string,
  stationId: row['station_id'] as string,
  fileName: row['file_name'] as string,
  importedAt: instantOf(row['created_at'] as string),
  personName: row['person_name'] as string,
  ...jsonOf<Counts>(row['result']),
})

export async function findImport(db: Queryable, siteId: string, importId: string): Promise<ImportResult | undefined> {
  const [[row]] = await db.query<Row[]>(`${SELECT} WHERE i.id = ? AND i.site_id = ?`, [importId, siteId])
  return row && importOf(row)
}

export async function listImports(db: Queryable, siteId: string): Promise<ImportResult[]> {
  const [rows] = await db.query<Row[]>(`${SELECT} WHERE i.site_id = ? ORDER BY i.created_at DESC, i.id LIMIT 50`, [siteId])
  return rows.map(importOf)
}

export async function insertImport(
  w: Write,
  task: { importId: string; stationId: string; fileName: string; mapping: WeatherMapping; rejections: readonly Rejection[] },
): Promise<void> {
  await w.tx.query(
    "INSERT INTO weather_import (id, site_id, station_id, file_name, mapping, result, changed_by) VALUES (?, ?, ?, ?, ?, '{}', ?)",
    [task.importId, w.siteId, task.stationId, task.fileName, JSON.stringify(task.mapping), w.personId],
  )
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
