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

/** Making one takes longer than using it a hundred times; there are some four hundred zones. */
const formats = new Map<string, Intl.DateTimeFormat>()

/** The civil day of a moment in a time zone, as YYYY-MM-DD. */
export function civilDayIn(moment: Date, timeZone: string): string {
  let format = formats.get(timeZone)
  if (!format) {
    format = new Intl.DateTimeFormat('en-CA', { timeZone, year: 'numeric', month: '2-digit', day: '2-digit' })
    formats.set(timeZone, format)
  }
  return format.format(moment)
}

/** By how many minutes the clocks of a time zone are ahead of UTC at a moment, summer time included. */
export function zoneOffsetMinutes(moment: Date, timeZone: string): number {
  const parts = new Intl.DateTimeFormat('en', { timeZone, timeZoneName: 'longOffset' }).formatToParts(moment)
  const [, sign = '+', hours = '0', minutes = '0'] =
    /GMT([+-])(\d+):(\d+)/.exec(parts.find(({ type }) => type === 'timeZoneName')?.value ?? '') ?? []
  return (sign === '-' ? -1 : 1) * (Number(hours) * 60 + Number(minutes))
}
