import type { Clock } from '../clock.js'
import type { Database } from '../database/database.js'
import type { Session } from '../database/index.js'
import type { Memo } from '../memo.js'
import type { StationHistory } from '../weather/history.js'
import type { WeatherFileReader } from '../weatherFiles/reader.js'

/** What the server is made of; made once at start. Only what registers operations and runs by the clock holds it. */
export interface Serving {
  database: Database
  clock: Clock
  history: StationHistory
  /** What was computed and still holds. */
  memo: Memo
  readWeatherFile: WeatherFileReader
  /** Tells that something was stored, so that what follows from it is made at once, and told to whoever looks. */
  stored: () => void
}

/** What a use case may need. Its one connection is `db`; there is no way to another. */
export interface Deps extends Pick<Serving, 'clock' | 'history' | 'memo'> {
  db: Session
}

/** The parts of a server as one use case gets them. */
export const depsFor = ({ clock, history, memo }: Serving, db: Session): Deps => ({ db, clock, history, memo })

/** Runs a read over its one connection. */
export const reading = <T>(serving: Serving, work: (deps: Deps) => Promise<T>): Promise<T> =>
  serving.database.read((db) => work(depsFor(serving, db)))

/** Runs a write over its one connection. */
export async function writing<T>(serving: Serving, work: (deps: Deps) => Promise<T>, options?: { long?: boolean }): Promise<T> {
  const result = await serving.database.write((tx) => work(depsFor(serving, tx)), options)
  serving.stored()
  return result
}
