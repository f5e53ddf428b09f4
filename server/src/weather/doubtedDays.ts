import type { Doubt } from '@bocado/contract'
import { civilDate, dayNumber, instantOfHour, isoInstant, type stationDays, unseenExtremes } from '@bocado/core'
import type { Queryable, Row, Write } from '../database/index.js'
import type { DailyRow } from './readingStore.js'
import { raiseVersion } from './store.js'

const HOURS = 24

/** A day of a file that lies outside what the place has had, with what somebody thought of it. */
export interface DoubtedDay extends DailyRow {
  decision: Doubt['decision']
  decidedBy: string | null
}

/** What was decided on days of files, by day. */
export async function listDayDecisions(
  db: Queryable,
  stationId: string,
): Promise<ReadonlyMap<string, Pick<DoubtedDay, 'decision' | 'decidedBy'>>> {
  const [rows] = await db.query<Row[]>(
    'SELECT d.day, d.decision, p.name FROM day_decision d JOIN person p ON p.id = d.decided_by WHERE d.station_id = ?',
    [stationId],
  )
  return new Map(
    rows.map((row) => [row['day'] as string, { decision: row['decision'] as Doubt['decision'], decidedBy: row['name'] as string }]),
  )
}

/**
 * Days of files that lie outside what the place has had at that time of year, against all of its days. Those that somebody typed since
 * are nobody's doubt.
 *
 * @param days makes the days of the station with what is given of whole days
 */
export function doubtedDays(
  read: readonly DailyRow[],
  typed: ReadonlySet<string>,
  decided: Awaited<ReturnType<typeof listDayDecisions>>,
  { series }: ReturnType<typeof stationDays>,
): DoubtedDay[] {
  if (read.length === 0) return []
  const unseen = new Set(unseenExtremes(series).map(civilDate))
  const dayOf = new Map(read.map((row) => [row.day, row]))
  return [...unseen].flatMap((day): DoubtedDay[] => {
    const row = dayOf.get(day)
    if (!row || typed.has(day)) return []
    // Where hours say what the day was, the file's extremes are not in use.
    const i = dayNumber(day) - series.firstDay
    if (series.min[i] !== row.min || series.max[i] !== row.max) return []
    return [{ ...row, ...(decided.get(day) ?? { decision: 'open', decidedBy: null }) }]
  })
}

/** Days that follow each other with the same decision are one doubt to judge. */
export function runsOfDays(doubted: readonly DoubtedDay[], utcOffsetMinutes: number): Doubt[] {
  const runs: DoubtedDay[][] = []
  for (const one of doubted) {
    const run = runs.at(-1)
    const last = run?.at(-1)
    if (run && last && dayNumber(one.day) - dayNumber(last.day) === 1 && one.decision === last.decision) run.push(one)
    else runs.push([one])
  }
  const at = (hour: number): string => isoInstant(instantOfHour(hour, utcOffsetMinutes))
  return runs.map((run): Doubt => {
    const [first, last] = [run[0] as DoubtedDay, run.at(-1) as DoubtedDay]
    return {
      variable: 'temperature',
      flag: 'unseen',
      from: at(dayNumber(first.day) * HOURS),
      to: at(dayNumber(last.day) * HOURS + HOURS - 1),
      hours: run.length * HOURS,
      read: { low: Math.min(...run.map(({ min }) => min)), high: Math.max(...run.map(({ max }) => max)) },
      standsIn: null,
      methods: [],
      decision: first.decision,
      decidedBy: first.decidedBy,
    }
  })
}

/** Keeps what somebody decided on doubted days of files. */
export async function decideDays(w: Write, stationId: string, days: readonly string[], decision: Doubt['decision']): Promise<void> {
  if (decision === 'open') await w.tx.query('DELETE FROM day_decision WHERE station_id = ? AND day IN (?)', [stationId, days])
  else
    await w.tx.query(
      `INSERT INTO day_decision (station_id, day, site_id, decision, decided_by) VALUES ?
       ON DUPLICATE KEY UPDATE decision = VALUES(decision), decided_by = VALUES(decided_by)`,
      [days.map((day) => [stationId, day, w.siteId, decision, w.personId])],
    )
  await raiseVersion(w.tx, { siteId: w.siteId, stationId }, null)
}
