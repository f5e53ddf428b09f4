import { requireAtLeast, requireFinite } from '../guards.js'

interface SeverityTable {
  /** Readings are rounded to this many °C, halves up, before the row is chosen. */
  precision: number
  rows: readonly { from: number; to: number; hours: readonly number[] }[]
}

const TABLES: Readonly<Record<'late-blight' | 'early-blight', SeverityTable>> = {
  'late-blight': {
    precision: 0.1,
    rows: [
      { from: 7.2, to: 11.6, hours: [16, 19, 22, 25] },
      { from: 11.7, to: 15, hours: [13, 16, 19, 22] },
      { from: 15.1, to: 26.6, hours: [10, 13, 16, 19] },
    ],
  },
  'early-blight': {
    precision: 1,
    rows: [
      { from: 13, to: 17, hours: [7, 16, 21] },
      { from: 18, to: 20, hours: [4, 9, 16, 23] },
      { from: 21, to: 25, hours: [3, 6, 13, 21] },
      { from: 26, to: 29, hours: [4, 9, 16, 23] },
    ],
  },
}

/**
 * Severity value of one noon-to-noon day from the mean temperature in °C over its humid or wet hours and their number.
 * `late-blight`: hours at relative humidity of 90 % or more (Wallin 1962; Krause, Massie & Hyre 1975). `early-blight`:
 * wet hours (Madden, Pennypacker & MacNab 1978). Limits are "at least"; outside the rows 0.
 *
 * @throws RangeError for a non-finite temperature, negative hours or an unknown table.
 * @example severityValue('late-blight', 16, 14) // 2
 */
export function severityValue(table: 'late-blight' | 'early-blight', tempC: number, hours: number): 0 | 1 | 2 | 3 | 4 {
  if (!Object.hasOwn(TABLES, table)) throw new RangeError(`table must be late-blight or early-blight, got ${String(table)}`)
  requireFinite('tempC', tempC)
  requireAtLeast('hours', hours, 0)
  const { precision, rows } = TABLES[table]
  const steps = Math.round(tempC / precision)
  const row = rows.find(({ from, to }) => steps >= Math.round(from / precision) && steps <= Math.round(to / precision))
  return (row?.hours.filter((limit) => hours >= limit).length ?? 0) as 0 | 1 | 2 | 3 | 4
}
