import { promisify } from 'node:util'
import { gunzip, gzip } from 'node:zlib'
import type { Band } from '@bocado/contract'
import { sqlInstant, type Queryable, type Row, type Transaction } from '../database/index.js'
import type { ForecastOfWatch } from './forecast.js'

/** Of what is kept of a forecast: raised when its shape changes, so that nothing of an older shape is shown. */
const FORMAT = 8
/** Forecasts that are kept by one statement: some 2 MB. */
const AT_ONCE = 100

const packed = promisify(gzip)
const unpacked = promisify(gunzip)

/** A forecast as it is kept, with what else of its weather is asked for. */
export interface KeptForecast {
  forecast: ForecastOfWatch
  /** mm of rain by day of the season up to yesterday; null: not known. */
  rain: (number | null)[]
}

/** What the season of a whole site looks like, beside its watches. */
export type SeasonPicture = Pick<Band, 'heatAxis' | 'blooms'>

/** Which forecast of a watch is kept. */
export interface KeptKey {
  keyHash: string
  inputsVersion: number
}

/** Which forecasts are kept of a season, by watch: the hash of what each rests on. */
export async function keptForecasts(db: Queryable, siteId: string, season: string): Promise<Map<string, string>> {
  const [rows] = await db.query<Row[]>('SELECT watch_id, key_hash FROM watch_forecast WHERE site_id = ? AND season = ? AND format = ?', [
    siteId,
    season,
    FORMAT,
  ])
  return new Map(rows.map((row) => [row['watch_id'] as string, row['key_hash'] as string]))
}

/** The forecast that is kept of a watch. */
export async function loadForecast(db: Queryable, watchId: string): Promise<KeptForecast> {
  const [[row]] = await db.query<Row[]>('SELECT statement FROM watch_forecast WHERE watch_id = ?', [watchId])
  return parsed<KeptForecast>(row?.['statement'])
}

const parsed = async <T>(blob: unknown): Promise<T> => JSON.parse((await unpacked(blob as Buffer)).toString()) as T

/** What a forecast was made from, as columns, so that it can be told why it is as it is. */
interface MadeFrom extends KeptKey {
  watchId: string
  today: string
  weatherKey: string
  modelHash: string
}

/** A forecast packed for keeping: the work of it is done before a transaction begins. */
export const packedForecast = async (from: MadeFrom, kept: KeptForecast): Promise<MadeFrom & { statement: Buffer }> => ({
  ...from,
  statement: await packed(JSON.stringify(kept), { level: 5 }),
})

/** Keeps forecasts in place of earlier ones; one that was made from something older than what is kept is left out. */
export async function keepForecasts(
  tx: Transaction,
  { siteId, season, now }: { siteId: string; season: string; now: Date },
  made: readonly Awaited<ReturnType<typeof packedForecast>>[],
): Promise<void> {
  if (made.length === 0) return
  const newer = (column: string): string =>
    `${column} = IF(VALUES(inputs_version) >= watch_forecast.inputs_version OR VALUES(format) <> watch_forecast.format, VALUES(${column}), watch_forecast.${column})`
  // The version comes last: the others are held against the one that is there.
  const columns = ['season', 'today', 'weather_key', 'model_hash', 'key_hash', 'statement', 'made_at', 'format', 'inputs_version']
  const rows = made.map((one) => [
    one.watchId,
    siteId,
    season,
    FORMAT,
    one.inputsVersion,
    one.today,
    one.weatherKey.slice(0, 400),
    one.modelHash,
    one.keyHash,
    one.statement,
    sqlInstant(now),
  ])
  for (let i = 0; i < rows.length; i += AT_ONCE)
    await tx.query(
      `INSERT INTO watch_forecast (watch_id, site_id, season, format, inputs_version, today, weather_key, model_hash, key_hash, statement, made_at)
       VALUES ? ON DUPLICATE KEY UPDATE ${columns.map(newer).join(', ')}`,
      [rows.slice(i, i + AT_ONCE)],
    )
}

/** Up to what a site's values are derived. */
export interface SiteDerived extends KeptKey {
  season: string
  today: string
  /** As `daysOfStations` says them. */
  stationDays: string
}

/** Up to what a site's values are derived; undefined where none ever were. */
export async function siteDerived(db: Queryable, siteId: string): Promise<SiteDerived | undefined> {
  const [[row]] = await db.query<Row[]>(
    'SELECT season, today, station_days, inputs_version, key_hash FROM site_derived WHERE site_id = ? AND format = ?',
    [siteId, FORMAT],
  )
  if (!row) return undefined
  return {
    season: row['season'] as string,
    today: row['today'] as string,
    stationDays: row['station_days'] as string,
    inputsVersion: Number(row['inputs_version']),
    keyHash: row['key_hash'] as string,
  }
}

/** The picture of a site's season that is kept. */
export async function loadPicture(db: Queryable, siteId: string): Promise<SeasonPicture> {
  const [[row]] = await db.query<Row[]>('SELECT season_picture FROM site_derived WHERE site_id = ?', [siteId])
  return parsed<SeasonPicture>(row?.['season_picture'])
}

/** The picture packed for keeping. */
export const packedPicture = (picture: SeasonPicture): Promise<Buffer> => packed(JSON.stringify(picture), { level: 5 })

/** Notes that everything of a site is derived up to a version. */
export async function noteDerived(tx: Transaction, siteId: string, derived: SiteDerived & { now: Date; picture: Buffer }): Promise<void> {
  await tx.query(
    `INSERT INTO site_derived (site_id, season, today, station_days, derived_at, format, inputs_version, key_hash, season_picture)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)
     ON DUPLICATE KEY UPDATE season = VALUES(season), today = VALUES(today), station_days = VALUES(station_days),
       derived_at = VALUES(derived_at), format = VALUES(format),
       key_hash = VALUES(key_hash), season_picture = VALUES(season_picture), inputs_version = GREATEST(inputs_version, VALUES(inputs_version))`,
    [
      siteId,
      derived.season,
      derived.today,
      derived.stationDays,
      sqlInstant(derived.now),
      FORMAT,
      derived.inputsVersion,
      derived.keyHash,
      derived.picture,
    ],
  )
}
