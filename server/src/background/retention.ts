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
  // Weather forecasts stay in full for sixty days; then the first of each day stays without its hours.
  {
    what: 'hours of weather forecasts',
    sql: `UPDATE forecast_issue SET members = '[]', hours = 0 WHERE hours > 0 AND id IN (
      SELECT id FROM (
        SELECT old.id FROM forecast_issue old
        JOIN (SELECT station_id, MAX(issued_at) AS newest FROM forecast_issue GROUP BY station_id) n ON n.station_id = old.station_id
        WHERE old.hours > 0 AND old.issued_at < n.newest - INTERVAL 75 DAY LIMIT 200
      ) thinned
    )`,
  },
]

/** Thins what is older than it has to be kept. */
export async function sweep(serving: Serving): Promise<void> {
  for (const { sql } of STEPS)
    for (let changed = 1; changed > 0;) {
      const [result] = await writing(serving, ({ db }) => db.query(sql))
      changed = (result as { affectedRows: number }).affectedRows
      if (changed < 200) break
    }
}
