import { MS_PER_MINUTE, type FillMethod, type ReadingFlag } from '@bocado/core'
import { sqlInstant, type Queryable, type Row, type Transaction, type Write } from '../database/index.js'
import type { HourVariable } from './readingStore.js'
import { raiseVersion } from './store.js'

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

/** Hour and variable of a fix: at each there is one at the most. */
export const fixKey = ({ variable, minutes }: Pick<StoredFix, 'variable' | 'minutes'>): string => `${variable} ${minutes}`

/** Who decided on the fixes of a station, by `fixKey`. */
export async function listDeciders(db: Queryable, stationId: string): Promise<Map<string, string>> {
  const [rows] = await db.query<Row[]>(
    `SELECT TIMESTAMPDIFF(MINUTE, '1970-01-01', f.at) AS minutes, f.variable, p.name FROM reading_fix f JOIN person p ON p.id = f.decided_by
     WHERE f.station_id = ?`,
    [stationId],
  )
  return new Map(
    rows.map((row) => [fixKey({ variable: row['variable'] as HourVariable, minutes: row['minutes'] as number }), row['name'] as string]),
  )
}

const sameFix = (a: StoredFix, b: StoredFix): boolean =>
  a.flag === b.flag && a.method === b.method && (a.value === b.value || Math.abs((a.value ?? NaN) - (b.value ?? NaN)) < 1e-9)

/** What a check would change of what is kept: fixes that are new or differ, and those that are gone. */
export function differenceOf(before: readonly StoredFix[], found: readonly StoredFix[]): { changed: StoredFix[]; gone: StoredFix[] } {
  const stored = new Map(before.map((fix) => [fixKey(fix), fix]))
  const wanted = new Set(found.map(fixKey))
  return {
    changed: found.filter((fix) => {
      const known = stored.get(fixKey(fix))
      return !known || (known.decision !== 'overruled' && !sameFix(known, fix))
    }),
    gone: before.filter((fix) => fix.decision !== 'overruled' && !wanted.has(fixKey(fix))),
  }
}

/**
 * Brings a station's fixes to what its check found, writing only those that differ. What was overruled stays; what was accepted
 * stays accepted.
 */
export async function storeFixes(
  tx: Transaction,
  station: { id: string; siteId: string },
  { changed, gone }: ReturnType<typeof differenceOf>,
): Promise<void> {
  for (let i = 0; i < changed.length; i += 2000) {
    const rows = changed
      .slice(i, i + 2000)
      .map(({ minutes, variable, flag, value, method }) => [station.id, sqlMinutes(minutes), variable, station.siteId, flag, value, method])
    await tx.query(
      'INSERT INTO reading_fix (station_id, at, variable, site_id, flag, value, method) VALUES ? ON DUPLICATE KEY UPDATE flag = VALUES(flag), value = VALUES(value), method = VALUES(method)',
      [rows],
    )
  }
  for (let i = 0; i < gone.length; i += 2000) {
    const rows = gone.slice(i, i + 2000).map(({ minutes, variable }) => [sqlMinutes(minutes), variable])
    await tx.query('DELETE FROM reading_fix WHERE station_id = ? AND (at, variable) IN (?)', [station.id, rows])
  }
}

const sqlMinutes = (minutes: number): string => sqlInstant(new Date(minutes * MS_PER_MINUTE))

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
  if (affectedRows > 0) await raiseVersion(w.tx, { siteId: w.siteId, stationId }, null)
  return affectedRows
}
