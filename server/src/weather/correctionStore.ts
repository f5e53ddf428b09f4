import type { Correction } from '@bocado/contract'
import { civilDate, MS_PER_MINUTE, standardDay, standardHour } from '@bocado/core'
import type { Queryable, Row } from '../database/index.js'
import type { HourVariable } from './readingStore.js'
import type { StoredStation } from './store.js'

/** A correction as it is applied: moments in minutes since 1970-01-01 UTC, `until` exclusive. */
export interface StoredCorrection {
  id: string
  kind: Correction['kind']
  fromMinutes: number
  untilMinutes: number
  shiftMinutes: number
  variable: HourVariable | null
  readAs: string | null
  isIn: string | null
  /** Of a single hour: what it was, SI. */
  value: number | null
  note: string
  by: string
  rowVersion: number
}

/** The corrections of a station, in the order in which they were made: a later one lies over the earlier. */
export async function listCorrections(db: Queryable, stationId: string): Promise<StoredCorrection[]> {
  const [rows] = await db.query<Row[]>(
    `SELECT c.*, TIMESTAMPDIFF(MINUTE, '1970-01-01', c.from_at) AS from_minutes, TIMESTAMPDIFF(MINUTE, '1970-01-01', c.until_at) AS until_minutes,
       p.name AS person FROM station_correction c JOIN person p ON p.id = c.changed_by
     WHERE c.station_id = ? AND c.deleted_at IS NULL ORDER BY c.created_at, c.id`,
    [stationId],
  )
  return rows.map((row) => ({
    id: row['id'] as string,
    kind: row['kind'] as Correction['kind'],
    fromMinutes: row['from_minutes'] as number,
    untilMinutes: row['until_minutes'] as number,
    shiftMinutes: (row['shift_minutes'] as number | null) ?? 0,
    variable: row['variable'] as HourVariable | null,
    readAs: row['read_as'] as string | null,
    isIn: row['is_in'] as string | null,
    value: row['value'] as number | null,
    note: row['note'] as string,
    by: row['person'] as string,
    rowVersion: row['row_version'] as number,
  }))
}

/** As it is shown: days in the station's standard time. */
export function presentedCorrection(correction: StoredCorrection, station: StoredStation): Correction {
  const dayOf = (minutes: number): string => civilDate(standardDay(minutes * MS_PER_MINUTE, station.utcOffsetMinutes))
  const { id, kind, shiftMinutes, variable, readAs, isIn, value, note, by, rowVersion } = correction
  const hour = standardHour(correction.fromMinutes * MS_PER_MINUTE, station.utcOffsetMinutes)
  return {
    id,
    kind,
    from: dayOf(correction.fromMinutes),
    to: dayOf(correction.untilMinutes - 1),
    shiftMinutes: kind === 'clock' ? shiftMinutes : null,
    variable,
    readAs,
    isIn,
    hour: kind === 'value' ? ((hour % 24) + 24) % 24 : null,
    value,
    note,
    by,
    rowVersion,
  }
}
