import type { ParsedInputOf, ResponseOf, weather } from '@bocado/contract'
import type { Row, Write } from '../database/index.js'
import { HttpProblem, refusal } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { getSite } from '../sites/service.js'
import { dailyRowOf } from './readingStore.js'
import { getStation } from './stations.js'
import { lockStation, raiseVersion } from './store.js'

const keepBefore = (w: Write, stationId: string, action: 'change' | 'remove', rows: readonly unknown[]): Promise<unknown> =>
  w.tx.query('INSERT INTO audit (site_id, person_id, entity, entity_id, action, before_row) VALUES (?, ?, ?, ?, ?, ?)', [
    w.siteId,
    w.personId,
    'typed_day',
    stationId,
    action,
    JSON.stringify(rows),
  ])

/** Stores daily extremes that somebody typed; rain that was not typed stays as it is. Counted against what stood for each day before. */
export async function typeDays(
  w: Write,
  deps: Deps,
  stationId: string,
  input: ParsedInputOf<typeof weather.typeDays>,
): Promise<ResponseOf<typeof weather.typeDays>> {
  await getStation(w.tx, w.siteId, stationId)
  const site = await getSite(w.tx, deps.clock, w.siteId)
  const seen = new Set<string>()
  input.days.forEach(({ day }, i) => {
    if (day > site.today) throw refusal(`days.${i}.day`, 'day.typed-future', { day: { day }, today: { day: site.today } })
    if (seen.has(day)) throw refusal(`days.${i}.day`, 'day.twice', { day: { day } })
    seen.add(day)
  })
  await lockStation(w, stationId)
  const select = 'SELECT day, min_temperature, max_temperature, rain FROM'
  const [typed] = await w.tx.query<Row[]>(`${select} typed_day WHERE station_id = ? AND day IN (?)`, [stationId, [...seen]])
  const [read] = await w.tx.query<Row[]>(`${select} daily_extremes WHERE station_id = ? AND day IN (?)`, [stationId, [...seen]])
  const before = new Map([...read, ...typed].map((row) => [row['day'] as string, dailyRowOf(row)]))
  const changed = input.days.filter(({ day, min, max, rain }) => {
    const row = before.get(day)
    return row && (row.min !== min || row.max !== max || (rain !== null && row.rain !== rain))
  }).length
  if (typed.length > 0) await keepBefore(w, stationId, 'change', typed)
  await w.tx.query(
    `INSERT INTO typed_day (station_id, site_id, changed_by, day, min_temperature, max_temperature, rain) VALUES ?
     ON DUPLICATE KEY UPDATE min_temperature = VALUES(min_temperature), max_temperature = VALUES(max_temperature),
       rain = COALESCE(VALUES(rain), typed_day.rain), changed_by = VALUES(changed_by)`,
    [input.days.map(({ day, min, max, rain }) => [stationId, w.siteId, w.personId, day, min, max, rain])],
  )
  await raiseVersion(w.tx, { siteId: w.siteId, stationId }, null)
  return { new: input.days.length - before.size, changed, unchanged: before.size - changed }
}

/** Takes typed days away again: what the station or a file says of them stands once more. */
export async function untypeDays(
  w: Write,
  stationId: string,
  { days }: ParsedInputOf<typeof weather.untypeDays>,
): Promise<ResponseOf<typeof weather.untypeDays>> {
  await getStation(w.tx, w.siteId, stationId)
  await lockStation(w, stationId)
  const [typed] = await w.tx.query<Row[]>('SELECT * FROM typed_day WHERE station_id = ? AND day IN (?)', [stationId, days])
  if (typed.length === 0) throw new HttpProblem(404, 'Nothing was typed for this day, or somebody took it away already.')
  await keepBefore(w, stationId, 'remove', typed)
  await w.tx.query('DELETE FROM typed_day WHERE station_id = ? AND day IN (?)', [stationId, days])
  await raiseVersion(w.tx, { siteId: w.siteId, stationId }, null)
  return { removed: typed.length }
}
