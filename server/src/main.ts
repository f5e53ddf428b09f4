import { fileURLToPath } from 'node:url'
import { pino } from 'pino'
import { createApp } from './app.js'
import { clock } from './clock.js'
import { migrate, openDatabase } from './database/index.js'
import type { Deps } from './http/route.js'
import { Memo } from './memo.js'
import { issueOnSchedule } from './watches/issueOnSchedule.js'
import { StationHistory } from './weather/history.js'
import { weatherFileReader } from './weatherFiles/reader.js'

/** Starts the server. Settings come from the environment: BOCADO_DATABASE_URL, BOCADO_PORT, BOCADO_LOG_LEVEL. */
async function main(): Promise<void> {
  const url = process.env['BOCADO_DATABASE_URL']
  if (!url) throw new Error('BOCADO_DATABASE_URL is not set; npm run demo sets it')
  const log = pino({ level: process.env['BOCADO_LOG_LEVEL'] ?? 'warn' })
  const database = openDatabase(url)
  await migrate(database, new URL('../migrations/', import.meta.url))
  // Answers kept for requests that are sent again; after a week nobody does.
  await database.query('DELETE FROM idempotency WHERE created_at < NOW() - INTERVAL 7 DAY')

  const deps: Deps = {
    database,
    clock,
    history: new StationHistory(),
    memo: new Memo(),
    readWeatherFile: weatherFileReader(new URL('./weatherFile.worker.js', import.meta.url)),
  }
  const app = createApp(deps, { page: fileURLToPath(new URL('../../web/dist/', import.meta.url)), log })
  issueOnSchedule(deps, (error) => log.error({ err: error as Error }, 'forecasts could not be issued; they are tried again in a minute'))
  // Loopback only, until accounts exist.
  const server = app.listen(Number(process.env['BOCADO_PORT'] ?? 4600), '127.0.0.1', (error) => {
    if (error) throw error
    process.send?.('listening')
  })

  const end = (): void => {
    server.close(() => void database.end().then(() => process.exit(0)))
    server.closeIdleConnections()
    setTimeout(() => process.exit(0), 5000).unref()
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
