import type { FillMethod, ReadingFlag } from '@bocado/core'
import type { Queryable, Row, Transaction, Write } from '../database/index.js'
import type { HourVariable } from './readingStore.js'

export type FixDecision = 'open' | 'accepted' | 'overruled'

/** A reading that is doubted, and what stands in for it. */
export interface StoredFix {
  /** Minutes since 1970-01-01 UTC. */
  minutes: number
  variable: HourVariable
  flag: ReadingFlag
  value: number | null
  method: FillMethod
  decision: FixDecision
}

const SELECT = "SELECT TIMESTAMPDIFF(MINUTE, '1970-01-01', at) AS minutes, variable, flag, value, method, decision FROM reading_fix"

const fixOf = (row: Row): StoredFix => ({
  minutes: row['minutes'] as number,
  variable: row['variable'] as HourVariable,
  flag: row['flag'] as ReadingFlag,
  value: row['value'] as number | null,
  method: row['method'] as FillMethod,
  decision: row['decision'] as FixDecision,
})

export async function listFixes(db: Queryable, stationId: string): Promise<StoredFix[]> {
  const [rows] = await db.query<Row[]>(`${SELECT} WHERE station_id = ? ORDER BY variable, at`, [stationId])
  return rows.map(fixOf)
}

/** A fix with the reading that it doubts, for people to judge. */
export interface DoubtedReading extends StoredFix {
  reading: number | null
  decidedBy: string | null
}

export async function listDoubted(
  db: Queryable,
  siteId: string,
  stationId: string,
  from: string,
  until: string,
): Promise<DoubtedReading[]> {
  const [rows] = await db.query<Row[]>(
    `SELECT TIMESTAMPDIFF(MINUTE, '1970-01-01', f.at) AS minutes, f.variable, f.flag, f.value, f.method, f.decision, p.name AS decided_by,
       CASE f.variable WHEN 'temperature' THEN r.temperature WHEN 'humidity' THEN r.humidity WHEN 'rain' THEN r.rain ELSE r.wind END AS reading
     FROM reading_fix f LEFT JOIN reading r ON r.station_id = f.station_id AND r.at = f.at LEFT JOIN person p ON p.id = f.decided_by
     WHERE f.station_id = ? AND f.site_id = ? AND f.at >= ? AND f.at < ? ORDER BY f.variable, f.at`,
    [stationId, siteId, from, until],
  )
  return rows.map((row) => ({ ...fixOf(row), reading: row['reading'] as number | null, decidedBy: row['decided_by'] as string | null }))
}

/** Puts a station's fixes in place of the earlier ones. What was overruled stays; what was accepted stays accepted. */
export async function replaceFixes(
  tx: Transaction,
  station: { id: string; siteId: string; historyVersion: number },
  fixes: readonly (StoredFix & { at: string })[],
): Promise<void> {
  await tx.query(
    'CREATE TEMPORARY TABLE accepted_fix AS SELECT at, variable, decided_by FROM reading_fix WHERE station_id = ? AND decision = ?',
    [station.id, 'accepted'],
  )
  await tx.query("DELETE FROM reading_fix WHERE station_id = ? AND decision <> 'overruled'", [station.id])
  for (let i = 0; i < fixes.length; i += 2000) {
    const rows = fixes
      .slice(i, i + 2000)
      .map(({ at, variable, flag, value, method }) => [station.id, at, variable, station.siteId, flag, value, method])
    await tx.query('INSERT INTO reading_fix (station_id, at, variable, site_id, flag, value, method) VALUES ?', [rows])
  }
  await tx.query(
    "UPDATE reading_fix f JOIN accepted_fix a ON a.at = f.at AND a.variable = f.variable SET f.decision = 'accepted', f.decided_by = a.decided_by WHERE f.station_id = ?",
    [station.id],
  )
  await tx.query('DROP TEMPORARY TABLE accepted_fix')
  await tx.query('UPDATE station SET checked_version = ? WHERE id = ?', [station.historyVersion, station.id])
}

/** Decides on the fixes of a variable from one hour to another, both inclusive. Returns how many there were. */
export async function decideFixes(
  w: Write,
  stationId: string,
  variable: HourVariable,
  from: string,
  to: string,
  decision: FixDecision,
): Promise<number> {
  const [result] = await w.tx.query(
    'UPDATE reading_fix SET decision = ?, decided_by = ? WHERE station_id = ? AND site_id = ? AND variable = ? AND at BETWEEN ? AND ?',
    [decision, decision === 'open' ? null : w.personId, stationId, w.siteId, variable, from, to],
  )
  const { affectedRows } = result as { affectedRows: number }
  // What is derived from the readings changes with what is believed.
  if (affectedRows > 0) await w.tx.query('UPDATE station SET history_version = history_version + 1 WHERE id = ?', [stationId])
  return affectedRows
}
