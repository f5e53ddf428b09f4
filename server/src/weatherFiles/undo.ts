import type { ImportResult } from '@bocado/contract'
import { civilDate, dayNumber } from '@bocado/core'
import type { Row, Write } from '../database/index.js'
import { HttpProblem } from '../http/problems.js'
import { DAY_VALUES, HOUR_VALUES } from '../weather/readingStore.js'
import { lockStation, raiseVersion, WHOLE_HISTORY } from '../weather/store.js'
import { findImport } from './store.js'

/** Where rows of a file stand, and where what they replaced is kept. */
const TABLES = {
  hourly: { rows: 'reading', replaced: 'reading_replaced', key: 'at', values: HOUR_VALUES as readonly string[] },
  daily: { rows: 'daily_extremes', replaced: 'daily_replaced', key: 'day', values: DAY_VALUES as readonly string[] },
} as const

/**
 * Takes an import back as a whole: rows that it brought go, those that it replaced come back. What a device sent later over its hours
 * stays; a later file that lies over it has to be taken back first.
 *
 * @throws 404 where there is none, 409 where it is taken back already, 422 where another file lies over it
 */
export async function undoImport(w: Write, importId: string): Promise<ImportResult> {
  const found = await findImport(w.tx, w.siteId, importId)
  if (!found) throw new HttpProblem(404, 'There is no such import at this site.')
  await lockStation(w, found.stationId)
  const { undone, interval, stationId, first, last, changed } = (await findImport(w.tx, w.siteId, importId)) ?? found
  if (undone) throw new HttpProblem(409, `${undone.by} took this import back already.`)
  const { rows, replaced, key, values } = TABLES[interval]
  const [[over]] = await w.tx.query<Row[]>(
    `SELECT i.file_name, COUNT(*) AS n FROM ${replaced} r JOIN weather_import i ON i.id = r.import_id
     WHERE r.from_import_id = ? AND r.site_id = ? GROUP BY i.id ORDER BY i.created_at DESC LIMIT 1`,
    [importId, w.siteId],
  )
  if (over)
    throw new HttpProblem(
      422,
      `${over['file_name'] as string} was laid over ${Number(over['n'])} of its ${interval === 'hourly' ? 'hours' : 'days'}. Take that file back first.`,
    )
  const [[kept]] = await w.tx.query<Row[]>(`SELECT COUNT(*) AS n FROM ${replaced} WHERE import_id = ?`, [importId])
  if (changed > 0 && Number(kept?.['n']) === 0)
    throw new HttpProblem(
      422,
      'What this file replaced was not kept at the time, so it cannot be taken back as a whole. Import the right file over it.',
    )
  if (first !== null && last !== null) {
    // Standard time and UTC lie less than a day apart.
    const range = [civilDate(dayNumber(first) - 1), civilDate(dayNumber(last) + 2)]
    const mine = `t.station_id = ? AND t.import_id = ? AND t.${key} BETWEEN ? AND ?`
    await w.tx.query(
      `UPDATE ${rows} t JOIN ${replaced} r ON r.import_id = ? AND r.${key} = t.${key}
       SET ${values.map((v) => `t.${v} = r.${v}`).join(', ')}, t.import_id = r.from_import_id WHERE ${mine}`,
      [importId, stationId, importId, ...range],
    )
    await w.tx.query(`DELETE t FROM ${rows} t WHERE ${mine}`, [stationId, importId, ...range])
  }
  await w.tx.query(`DELETE FROM ${replaced} WHERE import_id = ?`, [importId])
  await w.tx.query('UPDATE weather_import SET undone_at = UTC_TIMESTAMP(), undone_by = ? WHERE id = ?', [w.personId, importId])
  await w.tx.query("INSERT INTO audit (site_id, person_id, entity, entity_id, action, before_row) VALUES (?, ?, ?, ?, 'remove', ?)", [
    w.siteId,
    w.personId,
    'weather_import',
    importId,
    JSON.stringify(found),
  ])
  await raiseVersion(w.tx, { siteId: w.siteId, stationId }, WHOLE_HISTORY)
  const result = await findImport(w.tx, w.siteId, importId)
  if (!result) throw new Error(`import ${importId} vanished inside its transaction`)
  return result
}
