import { jsonOf, type Row } from '../database/index.js'
import { writing, type Serving } from '../http/serving.js'

/** Rows that are thinned in one transaction: locks are held for moments only. */
const AT_ONCE = 2000

/**
 * What is no longer needed, each step in a transaction of its own; docs/operations.md says what is kept how long. A step that a dying
 * server leaves out is done by the next.
 */
const STEPS: readonly { what: string; sql: string }[] = [
  // Answers kept for requests that are sent again; after a week nobody does.
  { what: 'idempotency keys', sql: `DELETE FROM idempotency WHERE created_at < NOW() - INTERVAL 7 DAY LIMIT ${AT_ONCE}` },
  // Tries to sign in are forgotten after an hour, challenges after minutes; what ended is shown to nobody.
  { what: 'tries to sign in', sql: `DELETE FROM sign_in_attempt WHERE last_at < UTC_TIMESTAMP() - INTERVAL 1 HOUR LIMIT ${AT_ONCE}` },
  { what: 'challenges', sql: `DELETE FROM passkey_challenge WHERE expires_at < UTC_TIMESTAMP() LIMIT ${AT_ONCE}` },
  {
    what: 'sign-ins that ended',
    sql: `DELETE FROM sign_in WHERE COALESCE(ended_at, LEAST(expires_at, seen_at + INTERVAL 14 DAY)) < UTC_TIMESTAMP() - INTERVAL 90 DAY LIMIT ${AT_ONCE}`,
  },
  {
    what: 'links for phones that nobody opened',
    sql: `DELETE FROM phone WHERE paired_at IS NULL AND pair_until < UTC_TIMESTAMP() - INTERVAL 90 DAY LIMIT ${AT_ONCE}`,
  },
  { what: 'links that ended', sql: `DELETE FROM link WHERE expires_at < UTC_TIMESTAMP() - INTERVAL 90 DAY LIMIT ${AT_ONCE}` },
  // What was put away as none can be taken back for a month, with its photo; what was let in has its photo with its flag.
  {
    what: 'photos of finds that were looked at',
    sql: `DELETE FROM public_find_photo WHERE public_find_id IN (
      SELECT id FROM (
        SELECT f.id FROM public_find f JOIN public_find_photo p ON p.public_find_id = f.id
        WHERE f.state <> 'waits' AND f.changed_at < UTC_TIMESTAMP() - INTERVAL 30 DAY LIMIT ${AT_ONCE}
      ) old
    )`,
  },
  // What a site keeps for some years only; of treatments it is kept always, with their records.
  {
    what: 'who changed what, by the years of its site',
    sql: `DELETE FROM audit WHERE entity <> 'deed' AND id IN (
      SELECT id FROM (
        SELECT a.id FROM audit a JOIN site s ON s.id = a.site_id AND s.audit_years IS NOT NULL
        WHERE a.entity <> 'deed' AND a.at < NOW() - INTERVAL s.audit_years YEAR LIMIT ${AT_ONCE}
      ) old
    )`,
  },
  // Of statements older than two weeks the first of each watch and day stays, for good.
  {
    what: 'statements of the same day',
    sql: `DELETE FROM issued_forecast WHERE id IN (
      SELECT id FROM (
        SELECT later.id FROM issued_forecast later
        JOIN issued_forecast first ON first.watch_id = later.watch_id AND first.today = later.today
          AND (first.issued_at < later.issued_at OR (first.issued_at = later.issued_at AND first.id < later.id))
        WHERE later.today < (SELECT MAX(today) FROM issued_forecast newest WHERE newest.watch_id = later.watch_id) - INTERVAL 14 DAY
        LIMIT ${AT_ONCE}
      ) old
    )`,
  },
]

/** Thins what is older than it has to be kept. */
export async function sweep(serving: Serving): Promise<void> {
  for (const { sql } of STEPS)
    for (let changed = 1; changed > 0;) {
      const [result] = await writing(serving, ({ db }) => db.query(sql))
      changed = (result as { affectedRows: number }).affectedRows
      if (changed < AT_ONCE) break
    }
  while (await thinForecasts(serving)) continue
}

const ISSUES_AT_ONCE = 40
const HOURS_A_DAY = 24

/** Daily means of the hours of a member, from the first hour on. */
const dailyMeans = (hours: readonly number[]): number[] =>
  Array.from({ length: Math.floor(hours.length / HOURS_A_DAY) }, (_, d) => {
    const day = hours.slice(d * HOURS_A_DAY, (d + 1) * HOURS_A_DAY)
    return Math.round((100 * day.reduce((a, b) => a + b, 0)) / HOURS_A_DAY) / 100
  })

/**
 * Weather forecasts stay hour by hour for sixty days; of older ones the daily means of their members stay.
 *
 * @returns whether there may be more
 */
async function thinForecasts(serving: Serving): Promise<boolean> {
  return writing(serving, async ({ db }) => {
    const [rows] = await db.query<Row[]>(
      `SELECT f.id, f.members FROM forecast_issue f
       JOIN (SELECT station_id, MAX(issued_at) AS newest FROM forecast_issue GROUP BY station_id) n ON n.station_id = f.station_id
       WHERE f.hours > 0 AND f.issued_at < n.newest - INTERVAL 60 DAY LIMIT ${ISSUES_AT_ONCE}`,
    )
    for (const row of rows) {
      const members = jsonOf<Record<string, number[]>[]>(row['members'])
      const means = members.map((member) =>
        Object.fromEntries(Object.entries(member).map(([variable, hours]) => [variable, dailyMeans(hours)])),
      )
      await db.query('UPDATE forecast_issue SET daily_means = ?, members = ?, hours = 0 WHERE id = ?', [
        JSON.stringify(means),
        '[]',
        row['id'],
      ])
    }
    return rows.length === ISSUES_AT_ONCE
  })
}
