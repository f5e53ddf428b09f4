import { createServer as createHttpServer } from 'node:http'
import { createServer } from 'node:https'
import { fileURLToPath } from 'node:url'
import { pino } from 'pino'
import { createApp } from './app.js'
import { hasAccounts } from './accounts/store.js'
import { isAnythingSeen, keepSeen } from './accounts/seen.js'
import { Changes } from './changes/changes.js'
import { clock } from './clock.js'
import { Database } from './database/database.js'
import { migrate } from './database/migrate.js'
import { writing, type Serving } from './http/serving.js'
import { Memo } from './memo.js'
import { StationHistory } from './weather/history.js'
import { weatherFileReader } from './weatherFiles/reader.js'
import { clearUploads } from './weatherFiles/uploads.js'
import { wayIn } from './way/settings.js'
import { wordsOf } from './way/words.js'
import { trustServer } from './way/trustPage.js'
import { WorkerThread } from './worker/workers.js'

/** What was computed may take this much, and the hours and days of stations that much. */
const MEMO_BYTES = 48 * 2 ** 20
const HISTORY_BYTES = 128 * 2 ** 20
/** More often than this nobody needs to know when somebody was here last. */
const SEEN_EVERY_MS = 60_000
/** Whoever asks the server to end has it ended after this, whatever is under way: a write that was not acknowledged is not stored. */
const END_MS = 4000

/**
 * Starts the server. Settings come from the environment: BOCADO_DATABASE_URL, BOCADO_LOG_LEVEL, those of `wayIn`, and BOCADO_WORKER=elsewhere
 * where processes of their own do the work beside requests.
 */
async function main(): Promise<void> {
  const url = process.env['BOCADO_DATABASE_URL']
  if (!url) throw new Error('BOCADO_DATABASE_URL is not set; npm run demo sets it')
  const log = pino({ level: process.env['BOCADO_LOG_LEVEL'] ?? 'warn' })
  process.on('unhandledRejection', (error) => log.error({ err: error as Error }, 'an error that nobody waited for'))
  await migrate(url, new URL('../migrations/', import.meta.url))
  await clearUploads()

  const way = await wayIn(process.env, new Date())
  const database = new Database(url)
  const serving: Serving = {
    database,
    clock,
    history: new StationHistory(HISTORY_BYTES),
    memo: new Memo(MEMO_BYTES),
    readWeatherFile: weatherFileReader(new URL('./weatherFile.worker.js', import.meta.url)),
    stored: () => {
      worker?.look()
      changes.look()
    },
  }
  const changes = new Changes(serving, log)
  const isWorking = process.env['BOCADO_WORKER'] !== 'elsewhere'
  const worker = isWorking ? new WorkerThread(new URL('./worker.js', import.meta.url), url, log, () => changes.look()) : undefined
  const app = createApp(serving, changes, {
    page: fileURLToPath(new URL('../../web/dist/', import.meta.url)),
    log,
    way,
  })
  if (way.isBeyond && !(await database.read((db) => hasAccounts(db))))
    throw new Error(
      'Nobody has an account here yet, so nothing is opened to others. Start it on this machine alone first and make the first account',
    )
  const server = way.tls ? createServer({ cert: way.tls.cert, key: way.tls.key }, app) : createHttpServer(app)
  server.once('error', (error) => {
    throw error
  })
  const trust = way.isBeyond && way.vouchesForItself ? trustServer(way).listen(way.port + 1, way.listen) : undefined
  server.listen(way.port, way.listen, () => {
    worker?.start()
    // What cannot be kept of it is not worth a word.
    setInterval(() => {
      if (isAnythingSeen()) void writing(serving, ({ db }) => keepSeen(db)).catch(() => undefined)
    }, SEEN_EVERY_MS).unref()
    void wordsOf(way).then((words) => process.send?.({ words }))
  })
  // Slow senders hold a connection, not the server: heads and bodies come in time, files have a limit of their own.
  server.headersTimeout = 20_000
  server.requestTimeout = 15 * 60_000

  const end = (): void => {
    setTimeout(() => process.exit(0), END_MS)
    // Streams would never end by themselves.
    changes.end()
    trust?.close()
    const worked = worker?.end()
    server.close(
      () =>
        void Promise.resolve(worked)
          .then(() => database.end())
          .then(() => process.exit(0)),
    )
    server.closeIdleConnections()
    setTimeout(() => server.closeAllConnections(), END_MS - 1500)
    void clearUploads()
  }
  process.once('SIGTERM', end)
  process.once('SIGINT', end)
  // The program that started this one is gone: do not outlive it.
  process.once('disconnect', end)
}

main().catch((error: unknown) => {
  console.error(error instanceof Error ? error.message : error)
  process.exit(1)
})
