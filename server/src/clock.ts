import { instantOf, type Queryable, type Row } from './database/index.js'

/** The one place that knows what time it is. In the demonstration the time stands in the database. */
export interface Clock {
  now(db: Queryable): Promise<Date>
}

export const clock: Clock = {
  async now(db) {
    const [[row]] = await db.query<Row[]>('SELECT now_at FROM demo_clock')
    return row ? new Date(instantOf(row['now_at'] as string)) : new Date()
  },
}

/** The civil day of a moment in a time zone, as YYYY-MM-DD. */
export function civilDayIn(moment: Date, timeZone: string): string {
  return new Intl.DateTimeFormat('en-CA', { timeZone, year: 'numeric', month: '2-digit', day: '2-digit' }).format(moment)
}
