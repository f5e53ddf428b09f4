import { createHash, randomUUID } from 'node:crypto'
import type { Moves, WatchForecast, WindowForecast } from '@bocado/contract'
import type { Organism } from '@bocado/library'
import { civilDate, currentWindow, dayNumber } from '@bocado/core'
import { instantOf, jsonOf, sqlInstant, type Queryable, type Row } from '../database/index.js'
import type { GroundWeather, SeenFrom } from '../weather/groundWeather.js'
import type { Memo } from '../memo.js'
import { windowsAt, type StationPush } from './forecast.js'
import type { PinnedModel } from './models.js'
import type { StoredWatch } from './store.js'

type IssuedForecast = Moves['issued'][number]
type IssuedWindow = Moves['issued'][number]['windows'][number]

/** A forecast as it was issued, with what it rested on. */
interface Issued {
  id: string
  issuedAt: string
  today: string
  biofix: string | null
  model: PinnedModel
  modelName: string
  grade: IssuedForecast['grade']
  usual: IssuedForecast['usual']
  windows: IssuedWindow[]
  bloom: StationPush | undefined
}

const issuedWindows = (windows: readonly WindowForecast[]): IssuedWindow[] =>
  windows.map(({ generation, generationName, opens, closes }) => ({ generation, generationName, opens, closes }))

/** What a forecast says. */
type Said = Pick<WatchForecast, 'windows' | 'events' | 'infection' | 'grade' | 'usual'>

/**
 * Keeps what forecasts say, for good; one that says the same as before on the same day is kept once, with when it was last said.
 * Nothing else is ever changed in them. One that gives no dates is kept with the months that it names, as it was said.
 */
export async function keepIssued(
  db: Queryable,
  siteId: string,
  now: Date,
  made: readonly { watch: StoredWatch; forecast: Said; today: string; weatherKey: string; bloom: StationPush | undefined }[],
): Promise<void> {
  const rows = made.map(({ watch, forecast, today, weatherKey, bloom }) => {
    const { grade } = forecast
    const dated = grade === 'dates'
    const windows = JSON.stringify(dated ? issuedWindows(forecast.windows) : [])
    const events = JSON.stringify(dated ? forecast.events.map(({ id, dates }) => ({ id, ...dates })) : [])
    const infection =
      dated && forecast.infection ? JSON.stringify({ state: forecast.infection.state, days: forecast.infection.days }) : null
    const usual = dated ? null : JSON.stringify(forecast.usual.map(({ name, months }) => ({ name, months })))
    const hash = createHash('sha256').update([grade, windows, events, infection, usual, watch.biofix, watch.modelHash].join()).digest('hex')
    return [
      randomUUID(),
      siteId,
      watch.id,
      sqlInstant(now),
      today,
      weatherKey.slice(0, 400),
      watch.biofix,
      JSON.stringify(watch.pinned),
      watch.model,
      watch.modelHash,
      grade,
      usual,
      bloom ? JSON.stringify(bloom) : null,
      windows,
      events,
      infection,
      hash,
    ]
  })
  if (rows.length === 0) return
  await db.query(
    `INSERT INTO issued_forecast (id, site_id, watch_id, issued_at, today, weather_key, biofix, model, model_name, model_hash, grade, usual, bloom_shift, windows, events, infection, dates_hash) VALUES ?
     ON DUPLICATE KEY UPDATE said_at = CURRENT_TIMESTAMP(6)`,
    [rows],
  )
}

async function listIssued(db: Queryable, siteId: string, watchId: string): Promise<Issued[]> {
  const [rows] = await db.query<Row[]>(
    `SELECT * FROM issued_forecast WHERE site_id = ? AND watch_id = ? ORDER BY today DESC, said_at DESC LIMIT 400`,
    [siteId, watchId],
  )
  return rows.map((row) => ({
    id: row['id'] as string,
    issuedAt: instantOf(row['issued_at'] as string),
    today: row['today'] as string,
    biofix: row['biofix'] as string | null,
    model: jsonOf<PinnedModel>(row['model']),
    modelName: row['model_name'] as string,
    grade: row['grade'] as Issued['grade'],
    usual: jsonOf<Issued['usual'] | null>(row['usual']) ?? [],
    windows: jsonOf<IssuedWindow[]>(row['windows']),
    bloom: jsonOf<StationPush | null>(row['bloom_shift']) ?? undefined,
  }))
}

/** What a forecast of about a week ago said of each watch's windows: the newest that is at least a week old, and no older than two. */
export async function windowsLastWeek(
  db: Queryable,
  siteId: string,
  today: string,
): Promise<Map<string, { since: string; windows: IssuedWindow[] }>> {
  const [from, to] = [civilDate(dayNumber(today) - 14), civilDate(dayNumber(today) - 7)]
  const [rows] = await db.query<Row[]>(
    `SELECT i.watch_id, i.today, i.windows FROM issued_forecast i
     JOIN (SELECT watch_id, MAX(said_at) AS said_at FROM issued_forecast
           WHERE site_id = ? AND today BETWEEN ? AND ? AND grade = 'dates' GROUP BY watch_id) newest
       ON newest.watch_id = i.watch_id AND newest.said_at = i.said_at
     WHERE i.site_id = ? AND i.grade = 'dates' ORDER BY i.today`,
    [siteId, from, to, siteId],
  )
  return new Map(
    rows.map((row) => [row['watch_id'] as string, { since: row['today'] as string, windows: jsonOf<IssuedWindow[]>(row['windows']) }]),
  )
}

/** By less a window has not moved: dates are given in days, and the middle of a spread wavers. */
const LEAST_MOVED_DAYS = 2

/** How far the window that matters now lies from where it was a week ago: by its opening, or where it is open by its closing. */
export function movedSince(
  forecast: Pick<WatchForecast, 'windows' | 'grade'>,
  before: { since: string; windows: readonly IssuedWindow[] } | undefined,
): WatchForecast['moved'] {
  const now = forecast.grade === 'dates' ? currentWindow(forecast) : undefined
  const then = before?.windows.find(({ generation }) => generation === now?.generation)
  if (!now || !then || !before || now.state === 'past') return null
  const of = ({ opens, closes }: Pick<IssuedWindow, 'opens' | 'closes'>): number | null => (now.state === 'coming' ? opens.p50 : closes.p50)
  const [a, b] = [of(then), of(now)]
  if (a === null || b === null) return null
  const days = Math.round(b - a)
  return Math.abs(days) < LEAST_MOVED_DAYS ? null : { days, since: before.since }
}

/** What is needed to look at a watch's season from another moment. */
export interface MovesInput {
  watch: StoredWatch
  organism: Organism
  memo: Memo
  today: string
  now: Date
  /** What blooms say now of the season at its station. */
  bloom: StationPush | undefined
  /** The block's weather as seen from a moment. */
  weatherSeen: (seen?: SeenFrom) => Promise<GroundWeather>
}

/**
 * Forecasts of a watch as they were issued, and why the openings of its windows differ today from one of them. One input after the
 * other is put in place of the old one, in the order in which they come about: readings put right since, weather that came, the new
 * forecast, biofix, model. What each moves is its share; together they are the whole move.
 */
export async function movesOf(db: Queryable, siteId: string, input: MovesInput, since: string | undefined): Promise<Moves> {
  const all = await listIssued(db, siteId, input.watch.id)
  const newestOfDay = all.filter(({ today }, i) => all.findIndex((other) => other.today === today) === i)
  const issued = newestOfDay.slice(0, 60).map(({ id, issuedAt, today, modelName, biofix, grade, usual, windows }) => ({
    id,
    issuedAt,
    today,
    model: modelName,
    biofix,
    grade,
    usual,
    windows,
  }))
  const dated = ({ grade }: Issued): boolean => grade === 'dates'
  const before =
    since === undefined
      ? newestOfDay.find((one) => one.today < input.today && dated(one))
      : all.find((one) => one.id === since && dated(one))
  return { issued, since: before ? await compared(before, input) : null }
}

async function compared(before: Issued, input: MovesInput): Promise<NonNullable<Moves['since']>> {
  const { watch, organism, memo } = input
  const then = new Date(before.issuedAt)
  const opensBy = async (
    seen: SeenFrom | undefined,
    pinned: PinnedModel,
    biofix: string | null,
    bloom: StationPush | undefined,
  ): Promise<Map<string, number | null>> => {
    const block = await input.weatherSeen(seen)
    const windows = windowsAt(organism, pinned, biofix, block, memo, bloom)
    return new Map(windows.map(({ generation, opens }) => [generation, opens.p50]))
  }
  // A forecast older than a week or so has no days left that are still ahead; then past seasons stood there.
  const steps = [
    {
      cause: 'readings' as const,
      opens: await opensBy({ at: then, forecastAt: then }, before.model, before.biofix, before.bloom),
    },
    { cause: 'weather' as const, opens: await opensBy({ at: input.now, forecastAt: then }, before.model, before.biofix, before.bloom) },
    { cause: 'forecast' as const, opens: await opensBy(undefined, before.model, before.biofix, before.bloom) },
    { cause: 'bloom' as const, opens: await opensBy(undefined, before.model, before.biofix, input.bloom) },
    { cause: 'biofix' as const, opens: await opensBy(undefined, before.model, watch.biofix, input.bloom) },
    { cause: 'model' as const, opens: await opensBy(undefined, watch.pinned, watch.biofix, input.bloom) },
  ]
  return {
    id: before.id,
    windows: before.windows.map(({ generation, generationName, opens }) => {
      const now = steps.at(-1)?.opens.get(generation) ?? null
      let last = opens.p50
      const known = last !== null && steps.every((step) => typeof step.opens.get(generation) === 'number')
      return {
        generation,
        generationName,
        before: opens.p50,
        now,
        steps: known
          ? steps.map((step) => {
              const at = step.opens.get(generation) as number
              const days = Math.round((at - (last as number)) * 10) / 10
              last = at
              return { cause: step.cause, days }
            })
          : [],
      }
    }),
  }
}
